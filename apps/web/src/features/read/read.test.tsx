import {
  compareMoments,
  createItem,
  editItem,
  getProject,
  type Item,
  listBaselines,
  listChanges,
  moveItem,
  readCollection,
  withdrawItems,
} from '@coomb/contract';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { aBrief, answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
import { Specification } from './Specification';

const [collection] = aProject.collections;
const outline = {
  ...outlineOf([
    { reference: 'SYS-001', heading: true },
    { reference: 'SYS-002', parent: 0 },
    { reference: 'SYS-003', parent: 0 },
  ]),
  id: [21, 22, 23].map(idOf),
  kind: [0, 0, 0].map(() => aProject.scheme.kinds.findIndex((kind) => kind.id === 'requirement')),
  title: ['Levels', 'Pool level', 'Alarm'],
};

const item = (row: number): Item => ({
  id: outline.id[row]!,
  node: 100 + row,
  collection: collection!.id,
  kind: 'requirement',
  reference: outline.reference[row]!,
  title: outline.title[row]!,
  html: row ? `<p>Text of ${outline.reference[row]}</p>` : '',
  fields: {},
  heading: row === 0,
  parent: row ? outline.id[0]! : null,
  revision: 3,
  withdrawn: false,
  state: 'unplanned',
});

describe('reading and editing in place', () => {
  usePage();
  beforeEach(() => {
    localStorage.clear();
    answer(getProject, aProject);
    answer(readCollection, { total: 3, items: [0, 1, 2].map(item) });
  });
  const open = async (query = '') => {
    show(<Specification collection={collection!} outline={outline} rows={[0, 1, 2]} />, {
      path: '/p/:project/shape',
      at: `/p/${aProject.id}/shape${query}`,
    });
    await screen.findByText('Text of SYS-002');
  };
  const sent = (method: string) => calls.filter(({ call }) => call.startsWith(method)).at(-1);

  it('shows reference, title and text of each item in order', async () => {
    await open();
    expect(screen.getAllByRole('article').map((row) => row.getAttribute('aria-label'))).toEqual(['SYS-001 Levels', 'SYS-002 Pool level', 'SYS-003 Alarm']);
  });

  it('shows a title that is only the first words of the text once', async () => {
    const long = { ...item(1), html: '<p>Pool <strong>level</strong> &amp; more stand here</p>' };
    answer(readCollection, { total: 3, items: [item(0), { ...long, title: 'Pool level & more…' }, item(2)] });
    const titles = [...outline.title];
    titles[1] = 'Pool level & more…';
    show(<Specification collection={collection!} outline={{ ...outline, title: titles }} rows={[0, 1, 2]} />, {
      path: '/p/:project/shape',
      at: `/p/${aProject.id}/shape`,
    });
    await screen.findByText(/& more stand here/);
    expect(screen.queryByText('Pool level & more…')).toBeNull();
    expect(screen.getByText('Alarm')).toBeTruthy();
  });

  it('opens the sheet of a reference beside the text', async () => {
    await open();
    await userEvent.click(screen.getByRole('link', { name: 'SYS-003' }));
    expect(presentAddress()).toContain('item=SYS-003');
  });

  it('marks what is different since a moment: words in title and text, what came, fields at the margin, and tells what went', async () => {
    const word = (type: 'same' | 'added' | 'removed', text: string) => ({ type, text });
    const compared = (row: number, did: 'came' | 'changed', parts: { part: string; words: ReturnType<typeof word>[] }[]) => ({
      ...{ entity: 'item' as const, did, item: aBrief(1, outline.title[row]!, { id: outline.id[row]! }), phrase: null, other: null, parts },
      ...{ group: '', seq: 9, person: 'Ada', at: '2026-11-28T10:00:00.000Z' },
    });
    const counts = { came: 1, went: 2, changed: 1, moved: 0 };
    const told = {
      ...{
        from: { seq: 4, at: '2026-10-28T10:00:00.000Z' },
        to: { seq: 9, at: '2026-11-28T10:00:00.000Z' },
        items: counts,
        links: counts,
        persons: [],
        total: 2,
        groups: [],
      },
      rows: [
        compared(1, 'changed', [
          { part: 'Text', words: [word('same', 'Text of '), word('removed', 'old'), word('added', 'new')] },
          { part: 'Priority', words: [word('removed', 'Low'), word('added', 'High')] },
        ]),
        compared(2, 'came', [{ part: 'Text', words: [word('added', 'All of it')] }]),
      ],
    };
    const among: string[][] = [];
    answer(compareMoments, ({ url }) => {
      const ids = url.searchParams.get('among')?.split(',') ?? [];
      among.push(ids);
      return { ...told, rows: told.rows.filter((row) => ids.includes(row.item.id)) };
    });
    answer(listBaselines, [{ id: idOf(40), name: 'Last month', note: '', seq: 4, person: 'Ada', at: '2026-10-28T00:00:00.000Z' }]);
    answer(listChanges, [{ id: idOf(41), seq: 9, action: 'Reword', person: 'Ada', at: '2026-11-28T00:00:00.000Z', changes: 1, undone: false }]);
    await open();
    await userEvent.selectOptions(await screen.findByLabelText('Mark what is different since'), 'since Last month (change 4)');
    const changed = await screen.findByRole('article', { name: /SYS-002/ });
    await waitFor(() => expect(changed.querySelectorAll('ins')).toHaveLength(2));
    expect([...changed.querySelectorAll('del, ins')].map(({ textContent }) => textContent)).toEqual(['old', 'new', 'Low', 'High']);
    expect(changed.textContent).toContain('changed');
    const came = screen.getByRole('article', { name: /SYS-003/ });
    expect([came.querySelector('ins'), came.textContent!.includes('came'), came.textContent!.includes('Text of SYS-003')]).toEqual([null, true, true]);
    // What is asked for is what stands on the pages that are read.
    expect(among.filter((ids) => ids.length > 0)).toEqual([[...outline.id]]);
    expect(screen.getByRole('link', { name: '2 went' }).getAttribute('href')).toContain('changes/between?since=4');
    await userEvent.selectOptions(screen.getByLabelText('Mark what is different since'), 'no marks');
    await waitFor(() => expect(changed.querySelector('ins')).toBeNull());
  });

  it('writes a new item after the marked one, by key; it is stored once it has been written', async () => {
    answer(createItem, { ...item(1), id: idOf(24), reference: 'SYS-004', title: 'Gauge' });
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
    await userEvent.keyboard('a');
    const title = await screen.findByRole('textbox', { name: 'Title' });
    expect(screen.getAllByRole('article').map((row) => row.getAttribute('aria-label')!.slice(0, 10))).toEqual([
      'SYS-001 Le',
      'SYS-002 Po',
      'A new item',
      'SYS-003 Al',
    ]);
    await userEvent.type(title, 'Gauge{Control>}{Enter}{/Control}');
    await waitFor(() => expect(sent('POST')!.body).toEqual({ collection: collection!.id, title: 'Gauge', after: outline.id[1] }));
    await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Title' })).toBeNull());
  });

  it('stores nothing of an item that was never written', async () => {
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
    await userEvent.keyboard('a');
    await screen.findByRole('textbox', { name: 'Title' });
    await userEvent.keyboard('{Control>}{Enter}{/Control}');
    expect(await screen.findByText(/Give it a title first/)).toBeTruthy();
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.getAllByRole('article')).toHaveLength(3));
    expect(sent('POST')).toBeUndefined();
    expect(localStorage.getItem(`coomb.drafts.${aProject.id}`)).toBeNull();
  });

  it('stores nothing when an item is opened and stored untouched, by key or button', async () => {
    answer(readCollection, {
      total: 3,
      items: [item(0), { ...item(1), html: '<table><tbody><tr><td>3 m</td></tr></tbody></table><p>H<sub>2</sub>O</p>' }, item(2)],
    });
    show(<Specification collection={collection!} outline={outline} rows={[0, 1, 2]} />, { path: '/p/:project/shape', at: `/p/${aProject.id}/shape` });
    await screen.findByText('3 m');
    for (const store of [
      () => userEvent.keyboard('{Control>}{Enter}{/Control}'),
      () => userEvent.click(screen.getByRole('button', { name: /^Save(?! as| and)/ })),
    ]) {
      await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
      await userEvent.keyboard('{Enter}');
      (await screen.findByRole('textbox', { name: 'Text' })).focus();
      await store();
      await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Title' })).toBeNull());
    }
    expect(sent('PATCH')).toBeUndefined();
  });

  it('keeps what was begun when the view goes away, and takes it up again with the revision it was begun on', async () => {
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
    await userEvent.keyboard('{Enter}');
    await userEvent.type(await screen.findByRole('textbox', { name: 'Title' }), ' band');
    cleanup();
    answer(editItem, item(1));
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
    await userEvent.keyboard('{Enter}');
    expect(await screen.findByText(/You began this on/)).toBeTruthy();
    expect((screen.getByRole('textbox', { name: 'Title' }) as HTMLInputElement).value).toBe('Pool level band');
    await userEvent.click(screen.getByRole('button', { name: /^Save(?! as| and)/ }));
    await waitFor(() => expect(sent('PATCH')!.body).toEqual({ revision: 3, title: 'Pool level band' }));
    await waitFor(() => expect(localStorage.getItem(`coomb.drafts.${aProject.id}`)).toBeNull());
  });

  it('leaves by Esc without losing what was begun, and throws it away by its button', async () => {
    await open();
    const edit = async () => {
      await userEvent.click(screen.getByRole('article', { name: /SYS-003/ }));
      await userEvent.keyboard('{Enter}');
      return (await screen.findByRole('textbox', { name: 'Title' })) as HTMLInputElement;
    };
    await userEvent.type(await edit(), ' bell');
    await userEvent.keyboard('{Escape}');
    expect((await edit()).value).toBe('Alarm bell');
    await userEvent.click(screen.getByRole('button', { name: 'Leave unchanged' }));
    expect((await edit()).value).toBe('Alarm');
    expect(sent('PATCH')).toBeUndefined();
  });

  it('moves by keys below its neighbour, and says when the server refuses', async () => {
    answer(moveItem, () => {
      throw new Refusal('move-refused', 'SYS-002 cannot stand below itself.');
    });
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
    await userEvent.keyboard('{Alt>}{ArrowDown}{/Alt}');
    expect(await screen.findByText('SYS-002 cannot stand below itself.')).toBeTruthy();
    expect(sent('POST')!.body).toMatchObject({ parent: outline.id[0], after: outline.id[2] });
  });

  it('withdraws the marked item and says how it comes back', async () => {
    answer(withdrawItems, { seq: 8, ids: [outline.id[2]!] });
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-003/ }));
    await userEvent.keyboard('{Delete}');
    expect(await screen.findByText('Withdrawn. Undo brings it back.')).toBeTruthy();
    expect(sent('POST')!.body).toEqual({ items: [outline.id[2]] });
  });

  it('edits the title in place against the revision that was read, and keeps what was typed when it changed meanwhile', async () => {
    answer(editItem, () => {
      throw new Refusal('changed-meanwhile', 'SYS-002 was changed by Ben Hale meanwhile.');
    });
    await open();
    await userEvent.click(screen.getByRole('article', { name: /SYS-002/ }));
    await userEvent.keyboard('{Enter}');
    const title = await screen.findByRole('textbox', { name: 'Title' });
    await userEvent.clear(title);
    await userEvent.type(title, 'Pool level band');
    await userEvent.click(screen.getByRole('button', { name: /^Save(?! as| and)/ }));
    expect((await screen.findAllByText(/changed by Ben Hale meanwhile/)).length).toBeGreaterThan(0);
    expect(sent('PATCH')!.body).toMatchObject({ revision: 3, title: 'Pool level band' });
    expect((screen.getByRole('textbox', { name: 'Title' }) as HTMLInputElement).value).toBe('Pool level band');
  });

  describe('choosing items', () => {
    const chosen = () =>
      screen
        .getAllByRole('article')
        .filter((row) => row.dataset.chosen)
        .map((row) => row.getAttribute('aria-label')!.slice(0, 7));

    it('goes by keys: one, with what stands below, a range, all, none', async () => {
      await open();
      await userEvent.keyboard('{ArrowDown}{ArrowDown} ');
      expect(chosen()).toEqual(['SYS-002']);
      await userEvent.keyboard('{Shift>}{ArrowDown}{/Shift}');
      expect(chosen()).toEqual(['SYS-002', 'SYS-003']);
      expect(screen.getByText('2 chosen')).toBeTruthy();
      await userEvent.keyboard('{Escape}');
      expect(chosen()).toEqual([]);
      await userEvent.keyboard('{ArrowUp}{ArrowUp} ');
      expect(chosen()).toEqual(['SYS-001', 'SYS-002', 'SYS-003']);
      await userEvent.keyboard(' ');
      expect(chosen()).toEqual([]);
      await userEvent.keyboard('{Control>}a{/Control}');
      expect(chosen()).toHaveLength(3);
    });

    it('goes by mouse: with Ctrl one by one, with Shift a range', async () => {
      await open();
      const user = userEvent.setup();
      const row = (index: number) => screen.getAllByRole('article')[index]!;
      await user.keyboard('{Control>}');
      await user.click(row(2));
      await user.keyboard('{/Control}{Shift>}');
      await user.click(row(1));
      await user.keyboard('{/Shift}');
      expect(chosen()).toEqual(['SYS-002', 'SYS-003']);
      await user.click(screen.getByRole('button', { name: 'Let go' }));
      expect(chosen()).toEqual([]);
    });

    it('withdraws all of them in one step', async () => {
      answer(withdrawItems, { seq: 8, withdrawn: 2 } as never);
      await open();
      await userEvent.keyboard('{ArrowDown}{ArrowDown}{Shift>}{ArrowDown}{/Shift}{Delete}');
      await waitFor(() => expect(sent('POST')!.body).toEqual({ items: [outline.id[1], outline.id[2]] }));
    });
  });

  it('invites to write when there is nothing yet', async () => {
    show(<Specification collection={collection!} outline={outlineOf([])} rows={[]} />, { path: '/p/:project/shape', at: `/p/${aProject.id}/shape` });
    await userEvent.click(await screen.findByRole('button', { name: 'Write the first item' }));
    expect(await screen.findByRole('textbox', { name: 'Title' })).toBeTruthy();
    expect(presentAddress()).toContain('write=end');
  });
});
