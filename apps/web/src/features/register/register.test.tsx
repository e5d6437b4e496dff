import { changeItems, getProject, keepView, listSavedViews, lookThrough } from '@coomb/contract';
import type { RegisterWhat } from '@coomb/core';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, presentAddress, sentTo, show, usePage } from '../../testing/page';
import { readWhat, readWhere, sortBy, writeWhere } from './definition';
import { KeepLens } from './KeepLens';
import { MakeKey } from './MakeKey';
import { answerRegister, openRegister, total, what } from './testing/register-scene';

describe('a register', () => {
  usePage();
  beforeEach(answerRegister);
  const cell = (row: number, column: number) => document.getElementById(`cell-${row}-${column}`)!;
  const written = () => sentTo(/cells$/) as { cells: { item: string; column: object; text: string }[] }[];
  const paste = (grid: HTMLElement, text: string) => fireEvent.paste(grid, { clipboardData: { getData: () => text } });
  const item = (number: number) => aBrief(number, '').id;

  it('is written in by keys: a letter begins, Enter stores and goes on below, Esc leaves it as it was', async () => {
    await openRegister();
    await userEvent.keyboard('{ArrowRight}N');
    expect((screen.getByRole('textbox', { name: 'Title' }) as HTMLInputElement).value).toBe('N');
    await userEvent.keyboard('ew{Enter}');
    await waitFor(() => expect(written()).toMatchObject([{ cells: [{ item: item(1), column: { sort: 'title' }, text: 'New' }] }]));
    expect(cell(1, 1).getAttribute('aria-selected')).toBe('true');
    await userEvent.keyboard('{F2}x{Escape}');
    await userEvent.keyboard('{F2}{Enter}');
    expect(written()).toHaveLength(1);
  });

  it('offers the values of a choice, and what links lead to is written as references', async () => {
    await openRegister();
    await userEvent.keyboard('{ArrowRight}{ArrowRight}{F2}');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Priority' }), 'Low');
    await userEvent.keyboard('{Enter}');
    await waitFor(() => expect(written()[0]).toMatchObject({ cells: [{ column: { sort: 'field', field: 'priority' }, text: 'Low' }] }));
    await userEvent.keyboard('{End}{F2}');
    const links = screen.getByRole('textbox', { name: 'is verified by' });
    await userEvent.clear(links);
    await userEvent.type(links, 'TC-009{Enter}');
    await waitFor(() =>
      expect(written()[1]).toMatchObject({ cells: [{ item: item(2), column: { sort: 'links', end: 'to', linkKind: 'verifies' }, text: 'TC-009' }] }),
    );
  });

  it('takes a pasted range as one writing, leaves out what is computed, and marks refusals in their cells with the reason', async () => {
    const grid = await openRegister();
    await userEvent.keyboard('{ArrowRight}');
    paste(grid, 'One\tNonsense\tFailing\nTwo\tMedium\tFailing\n');
    await waitFor(() => expect(written()).toHaveLength(1));
    expect(written()[0]!.cells.map(({ item: of, text }) => [of, text])).toEqual([
      [item(1), 'One'],
      [item(1), 'Nonsense'],
      [item(2), 'Two'],
      [item(2), 'Medium'],
    ]);
    const mark = await within(cell(0, 2)).findByRole('alert');
    expect([mark.textContent, mark.title]).toEqual(['Nonsense', 'There is no such priority']);
    expect(within(cell(1, 2)).queryByRole('alert')).toBeNull();
  });

  it('fills a range from its first row, empties it, and pastes one value into all of it', async () => {
    const grid = await openRegister();
    await userEvent.keyboard('{ArrowRight}{ArrowRight}{Shift>}{ArrowDown}{ArrowDown}{/Shift}{Control>}d{/Control}');
    await waitFor(() => expect(written()[0]!.cells.map(({ item: of, text }) => [of, text])).toEqual([[item(2), 'High']]));
    await userEvent.keyboard('{Delete}');
    await waitFor(() => expect(written()[1]!.cells.map(({ text }) => text)).toEqual(['', '', '']));
    paste(grid, 'Medium');
    await waitFor(() => expect(written()[2]!.cells.map(({ text }) => text)).toEqual(['Medium', 'Medium', 'Medium']));
  });

  it('sets a field of all rows of a range, also of those that were never in sight', async () => {
    await openRegister();
    answer(changeItems, ({ body }) => ({ seq: 8, ids: [], changed: (body as { items: string[] }).items.length, refused: [] }));
    await userEvent.keyboard('{Control>}a{/Control}');
    await userEvent.click(screen.getByRole('button', { name: `Set a field of ${total}…` }));
    expect(await screen.findByText(`Set a field of ${total} items`)).toBeTruthy();
    await waitFor(() => expect((sentTo(/items\/change/)[0] as { items: string[] }).items).toEqual(Array.from({ length: total }, (_, at) => item(at + 1))));
  });

  it('tells a text that is cut whole while one points at it, and no longer once one scrolls', async () => {
    const grid = await openRegister();
    const [short, long] = [0, 1].map((row) => cell(row, 1).querySelector('.t')!);
    Object.defineProperty(long, 'scrollWidth', { value: 2000 });
    fireEvent.pointerOver(short!);
    expect(short!.getAttribute('title')).toBeNull();
    fireEvent.pointerOver(long!);
    expect(long!.getAttribute('title')).toBe('Item 2');
    fireEvent.scroll(grid);
    expect(long!.getAttribute('title')).toBeNull();
    fireEvent.pointerOver(long!);
    fireEvent.pointerOver(short!);
    expect(long!.getAttribute('title')).toBeNull();
  });

  it('is copied as spreadsheets take it', async () => {
    const grid = await openRegister();
    await userEvent.keyboard('{ArrowRight}{Shift>}{ArrowRight}{ArrowDown}{/Shift}');
    const kept: string[] = [];
    fireEvent.copy(grid, { clipboardData: { setData: (_: string, text: string) => kept.push(text) } });
    expect(kept).toEqual(['Item 1\tHigh\nItem 2\tLow']);
  });

  it('does not write where a value is computed', async () => {
    await openRegister();
    await userEvent.keyboard('{F2}');
    expect(screen.queryByRole('textbox', { name: 'Reference' })).toBeNull();
    await userEvent.keyboard('o');
    await waitFor(() => expect(presentAddress()).toContain('item=SYS-001'));
  });

  it('says that its rows are those seen through the lens that is on', async () => {
    sessionStorage.setItem(`coomb.through.${aProject.id}`, JSON.stringify({ lens: idOf(71), mode: 'only' }));
    answer(lookThrough, { seq: 1, name: 'Gates', items: 1, nodes: [1], linksWithin: 0, linksAcross: 1, unknown: [] });
    await openRegister();
    expect(await screen.findByText(`${total} items seen through “Gates”`)).toBeTruthy();
    sessionStorage.clear();
  });

  it('is sorted by its heads, with Shift by several; again turns it round, once more lets go', async () => {
    await openRegister();
    const sorts = () => (JSON.parse(new URLSearchParams(presentAddress().split('?')[1]).get('what') ?? '{}') as { sort?: object[] }).sort ?? [];
    await userEvent.click(screen.getByRole('button', { name: /^Title/ }));
    await waitFor(() => expect(sorts()).toEqual([{ column: 'title', descending: false }]));
    await userEvent.click(screen.getByRole('button', { name: /^Title/ }));
    await waitFor(() => expect(sorts()).toEqual([{ column: 'title', descending: true }]));
    fireEvent.click(screen.getByRole('button', { name: /^Priority/ }), { shiftKey: true });
    await waitFor(() => expect(sorts()).toHaveLength(2));
  });

  it('is narrowed by composing a condition, which reads as a sentence and can be left out', async () => {
    await openRegister();
    await userEvent.click(screen.getByRole('button', { name: 'Condition' }));
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'What of it' }), 'Priority');
    await userEvent.click(screen.getByRole('checkbox', { name: 'High' }));
    await userEvent.click(screen.getByRole('button', { name: 'Add the condition' }));
    expect(await screen.findByText('whose Priority is High')).toBeTruthy();
    expect(await screen.findByText('2 items')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Leave out: whose Priority is High' }));
    expect(await screen.findByText('140 items')).toBeTruthy();
  });

  it('takes a further column by its name', async () => {
    await openRegister();
    await userEvent.click(screen.getByRole('button', { name: 'Columns' }));
    await userEvent.type(await screen.findByLabelText('Name a further column'), 'verified latest worst{Enter}');
    await waitFor(() => expect(decodeURIComponent(presentAddress())).toContain('"sort":"result"'));
    await userEvent.click(screen.getByRole('button', { name: 'Leave Priority out' }));
    await waitFor(() => expect(screen.queryByRole('columnheader', { name: /Priority/ })).toBeNull());
  });

  it('is grouped: names of groups have no cells, and are gone past', async () => {
    await openRegister();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Group by' }), 'by Priority');
    await waitFor(() => expect(document.getElementById('cell-0-0')).toBeNull());
    expect(screen.getByText('High', { selector: '[role=gridcell]' }).textContent).toContain('20');
    expect(cell(1, 0).getAttribute('aria-selected')).toBe('true');
  });
});

describe('what is kept of a register for every view', () => {
  usePage();
  const kept = { id: idOf(77), name: 'Urgent', person: 'Ada Brook', at: '2026-11-28T10:00:00.000Z' };
  const { scheme } = aProject;
  beforeEach(() => {
    sessionStorage.clear();
    answer(getProject, aProject);
    answer(listSavedViews, []);
    answer(keepView, ({ body }) => ({ ...kept, ...(body as { sort: string; name: string; body: Record<string, unknown> }) }));
  });
  const keptBodies = () => sentTo(/views$/) as { sort: string; name: string; body: Record<string, string> }[];
  const conditions: RegisterWhat['conditions'] = [{ way: [], of: 'some', shown: { sort: 'field', of: 'priority' }, test: 'is', values: ['High'] }];

  it('are its kinds and conditions as a lens, which is looked through at once', async () => {
    show(<KeepLens what={{ ...readWhat(scheme, '', 'requirement'), conditions }} />, { at: `/p/${aProject.id}` });
    await userEvent.click(await screen.findByRole('button', { name: 'Keep as a lens…' }));
    await userEvent.type(await screen.findByLabelText('Name'), 'Urgent');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Items of other kinds' }), 'items of other kinds are not shown');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(keptBodies()).toHaveLength(1));
    expect(keptBodies()[0]).toMatchObject({ sort: 'lens', name: 'Urgent' });
    expect(JSON.parse(keptBodies()[0]!.body.lens!)).toEqual({ kinds: ['requirement'], others: 'hidden', conditions, match: 'all' });
    await waitFor(() => expect(sessionStorage.getItem(`coomb.through.${aProject.id}`)).toBe(JSON.stringify({ lens: kept.id, mode: 'only' })));
  });

  it('keep what was pinned to a lens of the same name', async () => {
    const body = { lens: JSON.stringify({ pinned: [idOf(3)], leftOut: [idOf(4)] }), note: '' };
    answer(listSavedViews, [{ ...kept, sort: 'lens', body }]);
    show(<KeepLens what={{ ...readWhat(scheme, '', ''), kinds: [], conditions }} />, { at: `/p/${aProject.id}` });
    await userEvent.click(await screen.findByRole('button', { name: 'Keep as a lens…' }));
    await userEvent.type(await screen.findByLabelText('Name'), 'urgent');
    await userEvent.click(await screen.findByRole('button', { name: 'Keep it anew' }));
    await waitFor(() => expect(JSON.parse(keptBodies()[0]!.body.lens!)).toMatchObject({ pinned: [idOf(3)], leftOut: [idOf(4)] }));
    expect(keptBodies()[0]!.name).toBe('Urgent');
  });

  it('are colours for the values of a choice, of which each can be another, and one left out', async () => {
    show(<MakeKey />, { at: `/p/${aProject.id}` });
    await userEvent.click(await screen.findByRole('button', { name: 'Colour key…' }));
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Coloured by' }), 'Priority');
    fireEvent.change(await screen.findByLabelText('Fill of High'), { target: { value: '#123456' } });
    await userEvent.type(screen.getByLabelText('Called 1'), 'Urgent');
    await userEvent.click(screen.getByRole('button', { name: 'Leave Low out' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep and colour' }));
    await waitFor(() => expect(keptBodies()).toHaveLength(1));
    const key = JSON.parse(keptBodies()[0]!.body.key!) as { entries: { value: string; label?: string; fill: string }[]; ranges: boolean };
    expect(key.ranges).toBe(false);
    expect(key.entries.map(({ value }) => value)).toEqual(['High', 'Medium']);
    expect(key.entries[0]).toEqual({ value: 'High', label: 'Urgent', fill: '#123456' });
    await waitFor(() => expect(sessionStorage.getItem(`coomb.colours.${aProject.id}`)).toBe(kept.id));
  });

  it('are colours of links, with lines and signs of their own', async () => {
    show(<MakeKey />, { at: `/p/${aProject.id}` });
    await userEvent.click(await screen.findByRole('button', { name: 'Colour key…' }));
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Coloured by' }), 'Confirmed or suspect');
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Line of entry 2' }), 'dashed, wide');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Sign of entry 2' }), 'triangle');
    fireEvent.change(screen.getByLabelText('Line of suspect'), { target: { value: '#112233' } });
    await userEvent.click(screen.getByRole('button', { name: 'Keep and colour' }));
    await waitFor(() => expect(keptBodies()).toHaveLength(1));
    const key = JSON.parse(keptBodies()[0]!.body.key!) as { about: string; shown: object; entries: object[] };
    expect([key.about, key.shown]).toEqual(['links', { sort: 'linkStanding' }]);
    expect(key.entries[1]).toMatchObject({ value: 'suspect', line: '#112233', dash: 'dashed', width: 3, glyph: 'triangle' });
    expect(key.entries[0]).not.toHaveProperty('dash');
  });

  it('are ranges for numbers, kept in rising order whatever order they were written in', async () => {
    show(<MakeKey />, { at: `/p/${aProject.id}` });
    await userEvent.click(await screen.findByRole('button', { name: 'Colour key…' }));
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Coloured by' }), 'Links');
    await userEvent.click(await screen.findByRole('button', { name: 'Entry' }));
    await userEvent.type(screen.getByLabelText('Value 2'), '10');
    await userEvent.click(screen.getByRole('button', { name: 'Entry' }));
    await userEvent.type(screen.getByLabelText('Value 3'), '2');
    await userEvent.click(screen.getByRole('button', { name: 'Keep and colour' }));
    await waitFor(() => expect(keptBodies()).toHaveLength(1));
    const key = JSON.parse(keptBodies()[0]!.body.key!) as { entries: { value: string }[]; ranges: boolean };
    expect([key.ranges, ...key.entries.map(({ value }) => value)]).toEqual([true, '2', '10', '']);
  });
});

describe('what an address says of a register', () => {
  const { scheme } = aProject;

  it('is read, or the ready register of a kind stands for it', () => {
    expect(readWhat(scheme, '', 'testCase').kinds).toEqual(['testCase']);
    expect(readWhat(scheme, 'nonsense', '').kinds).toEqual([scheme.verification.of.kinds[0]]);
    expect(readWhat(scheme, JSON.stringify(what), '')).toMatchObject(what);
    expect(readWhere(writeWhere({ collections: [idOf(1)], below: [] }))).toEqual({ collections: [idOf(1)], below: [] });
    expect(readWhere('{')).toEqual({ collections: [], below: [] });
    expect(writeWhere({ collections: [], below: [] })).toBe('');
  });

  it('is sorted by another column in place of the others, or after them', () => {
    const sorted = { ...readWhat(scheme, '', ''), sort: [{ column: 'a', descending: true }] };
    expect(sortBy(sorted, 'b', false)).toEqual([{ column: 'b', descending: false }]);
    expect(sortBy(sorted, 'b', true)).toEqual([...sorted.sort, { column: 'b', descending: false }]);
    expect(sortBy(sorted, 'a', true)).toEqual([]);
  });
});
