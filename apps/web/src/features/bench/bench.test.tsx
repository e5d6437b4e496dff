import {
  createLinks,
  getOutline,
  getOutlineSince,
  getProject,
  listLinks,
  listSavedViews,
  listUsed,
  type OutlineReply,
  refuseSuggestions,
  suggestLinks,
} from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, sentTo, show, usePage } from '../../testing/page';
import { BenchPage } from './BenchPage';

const kinds = aProject.scheme.kinds.map(({ id }) => id);
const rows = [
  { reference: 'SYS-001', title: 'Level', kind: 'requirement', collection: 0 },
  { reference: 'SYS-002', title: 'Flow', kind: 'requirement', collection: 0 },
  { reference: 'TC-001', title: 'Opens', kind: 'testCase', collection: 1 },
  { reference: 'TC-002', title: 'Closes', kind: 'testCase', collection: 1 },
];
const column = (value: number) => rows.map(() => value);
const outline: OutlineReply = {
  ...{ seq: 7, life: 'a', day: '2026-11-28', kinds, collections: aProject.collections.map(({ id }) => id) },
  id: rows.map((_, at) => idOf(101 + at)),
  node: rows.map((_, at) => at),
  reference: rows.map(({ reference }) => reference),
  title: rows.map(({ title }) => title),
  clause: [],
  kind: rows.map(({ kind }) => kinds.indexOf(kind)),
  collection: rows.map(({ collection }) => collection),
  ...{ parent: column(-1), heading: column(0), state: column(6), up: column(0), down: column(0), suspect: column(0), gaps: column(0) },
};

describe('candidates on the bench', () => {
  usePage();
  let refused: string[] = [];
  beforeEach(() => {
    refused = [];
    // Rows are drawn where there is room for them.
    Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, value: 600 });
    answer(getProject, aProject);
    answer(getOutline, outline);
    answer(getOutlineSince, { seq: 8, life: 'a', day: '2026-11-28', whole: false, difference: null });
    answer(listUsed, { usages: [], items: [] } as never);
    answer(listSavedViews, []);
    answer(listLinks, { seq: 7, life: 'a', id: [], from: [], to: [], kind: [], suspect: [], usages: [], usagePaths: [], fromUsage: [], toUsage: [] });
    answer(suggestLinks, () =>
      [
        {
          item: aBrief(4, 'Closes', { id: idOf(104), reference: 'TC-002' }),
          score: 2,
          likelihood: 0.8,
          reasons: [{ sort: 'words' as const, words: ['level'] }],
          shared: ['level'],
        },
        {
          item: aBrief(3, 'Opens', { id: idOf(103), reference: 'TC-001' }),
          score: 1,
          likelihood: 0.2,
          reasons: [{ sort: 'words' as const, words: ['flow'] }],
          shared: ['flow'],
        },
      ].filter(({ item }) => !refused.includes(item.id)),
    );
    answer(refuseSuggestions, ({ body }) => {
      refused.push(...(body as { pairs: { other: string }[] }).pairs.map(({ other }) => other));
      return { seq: 8, ids: [idOf(70)] };
    });
    answer(createLinks, { seq: 8, ids: [idOf(71)] });
    show(<BenchPage />, { at: `/p/${aProject.id}?left=${idOf(11)}&right=${idOf(12)}&order=likely&at=SYS-001` });
  });
  const desk = async () => {
    const bench = await screen.findByRole('group', { name: /^Bench/ });
    await screen.findByText(/likely, 80 %/);
    bench.focus();
  };

  it('are taken by one key, the likeliest first, and the link says that it was suggested', async () => {
    await desk();
    await userEvent.keyboard('a');
    await waitFor(() => expect(sentTo(/\/links$/)).toEqual([{ links: [{ linkKind: 'verifies', from: idOf(104), to: idOf(101) }], origin: 'suggested' }]));
    expect(await screen.findByText('SYS-001 is verified by TC-002')).toBeTruthy();
  });

  it('are refused by one key, and the next one is at hand', async () => {
    await desk();
    await userEvent.keyboard('x');
    await waitFor(() => expect(sentTo(/suggestions\/refuse/)).toEqual([{ pairs: [{ item: idOf(101), other: idOf(104) }] }]));
    await waitFor(() => expect(screen.queryByText(/likely, 80 %/)).toBeNull());
    await userEvent.keyboard('a');
    await waitFor(() => expect(sentTo(/\/links$/)).toMatchObject([{ links: [{ from: idOf(103), to: idOf(101) }] }]));
  });
});
