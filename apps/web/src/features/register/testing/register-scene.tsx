import { getOutline, getOutlineSince, getProject, queryRegister, type RegisterAsked, type RegisterRow, writeCells } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import { expect } from 'vitest';
import { outlineOf } from '../../../testing/outline';
import { aBrief, answer, aProject, show } from '../../../testing/page';
import { RegisterPage } from '../RegisterPage';

export const total = 140;
const fieldsOf = { title: 'title', priority: 'field:priority', verified: 'links:to:verifies' } as Record<string, string>;
export const what = {
  kinds: ['requirement'],
  columns: [
    { id: 'reference', way: [], shown: { sort: 'reference' }, as: 'list' },
    { id: 'title', way: [], shown: { sort: 'title' }, as: 'list' },
    { id: 'priority', way: [], shown: { sort: 'field', of: 'priority' }, as: 'list' },
    { id: 'state', way: [], shown: { sort: 'state' }, as: 'list' },
    { id: 'verified', way: [{ linkKind: 'verifies', end: 'to' }], shown: { sort: 'reference' }, as: 'list' },
  ],
};

/** A register of forty items, of which two pass any condition. */
export function answerRegister(): void {
  answer(getProject, aProject);
  answer(getOutline, outlineOf([{ reference: 'SYS-001' }]) as never);
  answer(getOutlineSince, outlineOf([{ reference: 'SYS-001' }]) as never);
  answer(queryRegister, ({ body }) => {
    const { what: asked, offset, limit } = body as RegisterAsked & { offset: number; limit: number };
    const shown = asked.conditions.length > 0 ? 2 : total;
    const values = (number: number): Record<string, RegisterRow['cells'][number]> => ({
      ...{ reference: `SYS-${number}`, title: `Item ${number}`, priority: number % 2 ? 'High' : 'Low', state: 'Verified', verified: ['TC-001', 'TC-002'] },
    });
    return {
      ...{ seq: 7, total: shown, rowCount: shown, offset, unknown: [], tallies: asked.columns.map(({ tally }) => (tally ? 31 : null)) },
      groups:
        asked.group.length > 0
          ? [
              { values: ['High'], count: 20, tallies: asked.columns.map(({ tally }) => (tally ? 12 : null)) },
              { values: ['Low'], count: 20, tallies: asked.columns.map(() => null) },
            ]
          : [],
      columns: asked.columns.map(({ id }) => ({ id, type: 'words' as const, field: fieldsOf[id] ?? null })),
      rows: Array.from({ length: Math.max(0, Math.min(limit, shown - offset)) }, (_, by) => ({
        ...{ item: aBrief(offset + by + 1, `Item ${offset + by + 1}`), revision: 1, depth: 0, isContext: false },
        cells: asked.columns.map(({ id }) => values(offset + by + 1)[id] ?? null),
      })),
    };
  });
  answer(writeCells, ({ body }) => {
    const { cells } = body as { cells: { text: string }[] };
    const refused = cells.flatMap(({ text }, cell) => (text === 'Nonsense' ? [{ cell, says: 'There is no such priority' }] : []));
    return { seq: 8, ids: [], changed: cells.length - refused.length, refused };
  });
}

export const openRegister = async (more = '') => {
  show(<RegisterPage />, { at: `/p/${aProject.id}?what=${encodeURIComponent(JSON.stringify(what))}${more}` });
  const grid = await screen.findByRole('grid', { name: 'Register' });
  await waitFor(() => expect(document.getElementById('cell-0-0')).toBeTruthy());
  grid.focus();
  return grid;
};
