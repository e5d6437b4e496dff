import { createItem, listSavedViews, type RegisterAsked } from '@coomb/contract';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, presentAddress, sentTo, usePage } from '../../testing/page';
import { useDropAnywhere } from '../../shared/marks/drag-items';
import { pageOfRegister } from './print-register';
import { answerRegister, openRegister } from './testing/register-scene';

describe('the columns of a register', () => {
  usePage();
  const written = () => JSON.parse(new URLSearchParams(presentAddress().split('?')[1]).get('what')!) as RegisterAsked['what'];
  const doWith = async (name: string, ...steps: string[]) => {
    await userEvent.click(await screen.findByRole('button', { name: `Do with ${name}` }));
    for (const step of steps) await userEvent.click(await screen.findByRole('menuitem', { name: step }));
  };
  beforeEach(answerRegister);

  it('are summed up: below each group and below all rows, and kept with the definition', async () => {
    await openRegister();
    await doWith('Priority', 'Group by it');
    await waitFor(() => expect(written().group).toEqual(['priority']));
    await doWith('Title', 'Sum up: nothing', 'different');
    await waitFor(() => expect(written().columns[1]!.tally).toEqual({ as: 'different' }));
    expect(await screen.findByText('12 different')).toBeTruthy();
    expect(screen.getByText('31 different')).toBeTruthy();
    await doWith('Title', 'Sum up: different', 'nothing');
    await waitFor(() => expect(screen.queryByText('31 different')).toBeNull());
  });

  it('are hidden and still sort and group, are shown again, and held in sight up to where one says', async () => {
    await openRegister();
    await doWith('Priority', 'Group by it');
    await doWith('Priority', 'Hide it, and keep what it does');
    await waitFor(() => expect(screen.queryByRole('columnheader', { name: /Priority/ })).toBeNull());
    expect(written()).toMatchObject({ group: ['priority'] });
    expect(await screen.findByText('High')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Columns' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Show Priority' }));
    expect(await screen.findByRole('columnheader', { name: /Priority/ })).toBeTruthy();
    await userEvent.keyboard('{Escape}');
    await doWith('Priority', 'Hold columns up to here in sight');
    await waitFor(() => expect(written().frozen).toBe(3));
    await doWith('Priority', 'Hold no columns in sight');
    await waitFor(() => expect(written().frozen).toBe(0));
  });

  it('open their menu by a key at any of their cells', async () => {
    await openRegister();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('{ArrowRight}{Alt>}{ArrowDown}{/Alt}');
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Most first' }));
    await waitFor(() => expect(written().sort).toEqual([{ column: 'title', descending: true }]));
  });
});

describe('where a register looks', () => {
  usePage();
  beforeEach(answerRegister);
  const place = () => new URLSearchParams(presentAddress().split('?')[1]).get('where');

  it('is chosen apart from what it shows: collections, a system; and a row may be each use', async () => {
    await openRegister();
    await userEvent.click(screen.getByRole('button', { name: 'Where everywhere' }));
    const [first] = aProject.collections;
    await userEvent.click(await screen.findByRole('checkbox', { name: first!.name }));
    await waitFor(() => expect(JSON.parse(place()!)).toMatchObject({ collections: [first!.id] }));
    await waitFor(() => expect(sentTo(/register$/).at(-1)).toMatchObject({ where: { collections: [first!.id] } }));
    await userEvent.click(screen.getByRole('button', { name: 'Everywhere' }));
    await waitFor(() => expect(place()).toBeNull());
    await userEvent.keyboard('{Escape}');
    await userEvent.selectOptions(screen.getByLabelText('One row for'), 'a row for each use');
    await waitFor(() => expect(sentTo(/register$/).at(-1)).toMatchObject({ what: { rows: 'usages' } }));
    expect(await screen.findByRole('columnheader', { name: /Used in/ })).toBeTruthy();
  });

  it('is kept under a name, and a kept place keeps what is shown', async () => {
    answer(listSavedViews, [
      {
        ...{ id: idOf(70), sort: 'scope', name: 'The lock', version: 1, revision: 1 },
        body: { where: JSON.stringify({ collections: [idOf(5)], below: [] }) },
        ...{ person: 'Ada', at: '2026-11-01T00:00:00.000Z' },
      },
    ] as never);
    await openRegister();
    await userEvent.click(screen.getByRole('button', { name: /^Where/ }));
    await userEvent.click(await screen.findByRole('button', { name: /Kept places/ }));
    await userEvent.click(await screen.findByRole('link', { name: 'The lock' }));
    await waitFor(() => expect(JSON.parse(place()!)).toMatchObject({ collections: [idOf(5)] }));
    expect(presentAddress()).toContain('what=');
  });
});

describe('rows of a register', () => {
  usePage();
  beforeEach(answerRegister);

  it('are added after the one that one is at, one after the other', async () => {
    answer(createItem, ({ body }) => ({ ...aBrief(90, (body as { title: string }).title), id: idOf(90), html: '', fields: {}, parent: null, revision: 1 }));
    await openRegister();
    await userEvent.click(screen.getByRole('button', { name: 'Row' }));
    await userEvent.type(await screen.findByLabelText('Its title'), 'Pool gauge{Enter}');
    await waitFor(() => expect(sentTo(/items$/)).toHaveLength(1));
    expect(sentTo(/items$/)[0]).toMatchObject({ title: 'Pool gauge', after: aBrief(1, 'x').id });
    await waitFor(() => expect((screen.getByLabelText('Its title') as HTMLInputElement).value).toBe(''));
    await userEvent.type(screen.getByLabelText('Its title'), 'Lock gauge{Enter}');
    await waitFor(() => expect(sentTo(/items$/)[1]).toMatchObject({ title: 'Lock gauge', after: idOf(90) }));
  });

  it('are linked with what is dropped on a cell of links, beside what stands there; elsewhere in the row that cell takes nothing', async () => {
    await openRegister();
    const drop = (element: Element) => {
      const dataTransfer = { types: ['application/x-coomb-reference'], getData: () => 'TC-007', dropEffect: '' };
      fireEvent.dragOver(element, { dataTransfer });
      fireEvent.drop(element, { dataTransfer });
    };
    const taken: string[] = [];
    function Taker() {
      useDropAnywhere((dragged, target) => taken.push(`${dragged} on ${target}`));
      return null;
    }
    render(<Taker />);
    drop(document.getElementById('cell-0-4')!.querySelector('.reference')!);
    await waitFor(() => expect(sentTo(/cells$/)).toHaveLength(1));
    expect(sentTo(/cells$/)[0]).toMatchObject({
      cells: [{ item: aBrief(1, 'x').id, column: { sort: 'links', linkKind: 'verifies', end: 'to' }, text: 'TC-001, TC-002, TC-007' }],
    });
    expect(taken).toEqual([]);
    drop(document.getElementById('cell-0-1')!);
    expect(taken).toEqual(['TC-007 on SYS-001']);
  });

  it('are printed with their groups, texts escaped', () => {
    const columns = [
      { id: 'title', name: 'Title & more', width: 300, field: null },
      { id: 'count', name: 'Count', width: 100, field: null },
    ];
    const rows = ['<b>', 'two'].map((title, at) => ({ item: aBrief(at + 1, title), revision: 1, depth: 0, isContext: false, cells: [title, at] }));
    const page = pageOfRegister({
      title: 'Weir',
      says: '2 items',
      columns,
      rows,
      groupAt: new Map([[1, 'High (1)']]),
      valueAt: (row, column) => row.cells[column]!,
    });
    expect(page).toContain('<th>Title &amp; more</th>');
    expect(page).toContain('<td>&lt;b&gt;</td><td class="number">0</td>');
    expect(page.indexOf('High (1)')).toBeGreaterThan(page.indexOf('&lt;b&gt;'));
    expect(page.indexOf('High (1)')).toBeLessThan(page.indexOf('<td>two</td>'));
    expect(page).toContain('width:75.0%');
  });
});
