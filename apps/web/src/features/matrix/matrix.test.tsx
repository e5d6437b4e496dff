import {
  createLinks,
  getOutline,
  getOutlineSince,
  getProject,
  listSavedViews,
  listUsed,
  planLinks,
  readCells,
  readMatrix,
  removeLinks,
  listBaselines,
  listChanges,
} from '@coomb/contract';
import { packEntries, type WayStep } from '@coomb/core';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { namedAsRegister } from '../../testing/as-register';
import { answer, aProject, idOf, presentAddress, sentTo, show, usePage } from '../../testing/page';
import { MatrixPage } from './MatrixPage';

const outline = outlineOf([
  { reference: 'Levels', heading: true },
  { reference: 'REQ-1', parent: 0 },
  { reference: 'REQ-2', parent: 0 },
  { reference: 'TC-1', collection: 1 },
  { reference: 'TC-2', collection: 1 },
]);
const [first, second] = aProject.collections;
const requirement = outline.kinds.indexOf('requirement');
const test = outline.kinds.indexOf('testCase');
outline.kind = [requirement, requirement, requirement, test, test];
const verified: WayStep = { linkKind: 'verifies', end: 'to' };

/** Entries by nodes and marks, as they travel. */
function packed(...list: [number, number, number][]): string {
  const column = (at: 0 | 1 | 2) => list.map((one) => one[at]);
  const none = new Int32Array(list.length).fill(-1);
  const bytes = packEntries({
    ...{ row: Int32Array.from(column(0)), column: Int32Array.from(column(1)), mark: Uint8Array.from(column(2)) },
    ...{ suspect: new Uint8Array(list.length), rowUse: none, columnUse: none },
  });
  return btoa(String.fromCharCode(...bytes));
}

describe('the matrix', () => {
  usePage();
  beforeEach(() => {
    Element.prototype.scrollTo = vi.fn();
    answer(getProject, aProject);
    answer(getOutline, outline);
    answer(getOutlineSince, { seq: 2, life: 'one', day: outline.day, whole: false, difference: null });
    answer(listUsed, { seq: 1, items: [] } as never);
    answer(listSavedViews, []);
    answer(readMatrix, ({ body }) => {
      const { marks = [] } = body as { marks: WayStep[][] };
      const ways = marks.length > 0 ? marks : [[verified]];
      return {
        ...{ seq: 1, life: 'one', usages: [], usagePaths: [], rowGroups: null, columnGroups: null },
        marks: ways.map((way, at) => ({ way, count: at === 0 ? 1 : 2 })),
        entries: packed([101, 103, 0], ...(ways.length > 1 ? ([[102, 104, 1]] as [number, number, number][]) : [])),
      };
    });
    answer(readCells, ({ body }) =>
      (body as { cells: { row: string; column: string }[] }).cells.map(({ row, column }) => ({
        links: row === 'id1' && column === 'id3' ? [{ id: idOf(7), linkKind: 'verifies', reversed: true, suspect: false, rowUse: null, columnUse: null }] : [],
        paths: [],
      })),
    );
    answer(createLinks, { seq: 2, ids: [idOf(8)] } as never);
    answer(removeLinks, { seq: 2, ids: [] } as never);
    answer(planLinks, [{ linkKind: 'verifies', reversed: true, makes: 3, refused: 1, says: ['It is linked already.'] }]);
  });
  const open = async (more = '') => {
    show(<MatrixPage />, { at: `/p/${aProject.id}?rows=${first!.id}&columns=${second!.id}${more}` });
    const grid = await screen.findByRole('grid');
    grid.focus();
    return grid;
  };
  const stands = () => screen.getByRole('gridcell').textContent;
  const press = (grid: HTMLElement, key: string, more: object = {}) => fireEvent.keyDown(grid, { key, ...more });

  it('tells the cell that one stands on, and moves to the next that is linked', async () => {
    const grid = await open();
    expect(stands()).toBe('REQ-1 × TC-1: is verified by');
    press(grid, 'ArrowDown');
    expect(stands()).toBe('REQ-2 × TC-1: no link');
    press(grid, 'ArrowUp', { ctrlKey: true });
    expect(stands()).toBe('REQ-1 × TC-1: is verified by');
    press(grid, 'g');
    expect(stands()).toBe('REQ-2 × TC-1: no link');
    expect(grid.getAttribute('aria-rowcount')).toBe('3');
  });

  it('opens its rows as a register', async () => {
    await open();
    expect(namedAsRegister('Rows as a register')).toEqual(['REQ-1', 'REQ-2']);
  });

  it('links and unlinks the two items of a cell', async () => {
    const grid = await open();
    press(grid, 'Enter');
    await waitFor(() => expect(sentTo(/links\/remove$/)).toEqual([{ links: [idOf(7)] }]));
    press(grid, 'ArrowRight');
    press(grid, ' ');
    await waitFor(() => expect(sentTo(/links$/)).toMatchObject([{ links: [{ linkKind: 'verifies', from: 'id4', to: 'id1' }] }]));
  });

  it('links each of several with each of several, and says before what will be made', async () => {
    const grid = await open();
    press(grid, 'ArrowDown', { shiftKey: true });
    press(grid, 'ArrowRight', { shiftKey: true });
    const bar = screen.getByRole('group', { name: 'The cells that are chosen' });
    expect(bar.textContent).toContain('2 × 2 cells: 1 mark');
    press(grid, 'Enter');
    await userEvent.click(await screen.findByRole('button', { name: 'Make 3 links' }));
    await waitFor(() => expect((sentTo(/links$/) as { links: object[] }[])[0]!.links).toHaveLength(4));
  });

  it('takes away what stands in several cells, having said how many', async () => {
    const grid = await open();
    press(grid, 'a', { ctrlKey: true });
    press(grid, 'Delete');
    await userEvent.click(await screen.findByRole('button', { name: 'Remove 1 link' }));
    await waitFor(() => expect(sentTo(/links\/remove$/)).toEqual([{ links: [idOf(7)] }]));
  });

  it('marks a way through items between, beside the links', async () => {
    await open();
    await userEvent.click(screen.getByRole('button', { name: 'Mark' }));
    const offers = await screen.findByText('Ways through items between them');
    const way = within(offers.parentElement!).getByRole('button', { name: 'leads to → is verified by' });
    await userEvent.click(way);
    const marks = await screen.findByRole('group', { name: 'Marks' });
    await waitFor(() => expect(marks.textContent).toContain('leads to → is verified by2'));
    expect(decodeURIComponent(presentAddress())).toContain('"derives","end":"to"');
    await userEvent.click(within(marks).getByRole('button', { name: 'Every kind of link' }));
    await waitFor(() => expect(presentAddress()).not.toContain('marks='));
  });

  it('finds a line by its words, where it is folded too', async () => {
    await open('&level=1');
    expect(screen.getByText('1 of 2 linked')).toBeTruthy();
    await userEvent.type(screen.getByRole('textbox', { name: 'Find a row' }), 'req-2');
    await waitFor(() => expect(stands()).toContain('REQ-2 ×'));
    await userEvent.type(screen.getByRole('textbox', { name: 'Find a row' }), 'x');
    expect(screen.getByRole('textbox', { name: 'Find a row' }).getAttribute('aria-invalid')).toBe('true');
  });

  it('is compared with an earlier moment: what stayed, came and went; a line whose only link went is a gap', async () => {
    answer(listBaselines, [{ id: idOf(40), name: 'Last month', note: '', seq: 3, person: 'Ada', at: '2026-10-28T00:00:00.000Z' }]);
    answer(listChanges, [{ id: idOf(41), seq: 9, action: 'Link', person: 'Ada', at: '2026-11-28T00:00:00.000Z', changes: 1, undone: false }]);
    answer(readMatrix, ({ url }) => ({
      ...{ seq: 9, life: 'one', usages: [], usagePaths: [], rowGroups: null, columnGroups: null, marks: [{ way: [verified], count: 1 }] },
      entries: url.searchParams.get('asOf') === '3' ? packed([102, 104, 0]) : packed([101, 103, 0]),
    }));
    const grid = await open();
    await userEvent.selectOptions(await screen.findByLabelText('Compare with'), 'with Last month (change 3)');
    expect((await screen.findByRole('group', { name: 'Compared' })).textContent).toMatch(/^stayed0came1went1/);
    grid.focus();
    await waitFor(() => expect(stands()).toBe('REQ-1 × TC-1: came'));
    const now = screen.getByRole('grid');
    press(now, 'ArrowDown');
    press(now, 'ArrowRight');
    expect(stands()).toBe('REQ-2 × TC-2: went');
    await userEvent.selectOptions(screen.getByLabelText('Compare with'), 'not compared');
    await waitFor(() => expect(screen.queryByRole('group', { name: 'Compared' })).toBeNull());
  });

  it('names its lines: items by reference and title, what groups them by title alone', async () => {
    await open();
    const names = (side: string) =>
      [...within(screen.getByRole('group', { name: side })).getAllByRole('button')]
        .filter(({ className }) => className === 'name')
        .map(({ textContent }) => textContent);
    expect([names('Rows'), names('Columns')]).toEqual([
      ['Levels', 'REQ-1 REQ-1', 'REQ-2 REQ-2'],
      ['TC-1 TC-1', 'TC-2 TC-2'],
    ]);
  });

  it('keeps its folds when its sides are swapped', async () => {
    const grid = await open();
    await userEvent.click(screen.getByRole('button', { name: 'Fold Levels' }));
    await screen.findByText('1 of 2 linked');
    press(grid, 'x');
    await waitFor(() => expect(presentAddress()).toContain(`rows=${second!.id}`));
    expect(await screen.findByRole('button', { name: 'Unfold Levels' })).toBeTruthy();
  });
});
