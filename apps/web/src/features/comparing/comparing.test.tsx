import { compareMoments, getDrawing, getProject, getReadiness, listBaselines, listChanges, listDrawings, type ComparedRow } from '@coomb/contract';
import { drawingSorts } from '@coomb/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
import { figuresOf } from './ComparedFigures';
import { ComparingPage } from './ComparingPage';
import { useComparedDrawings } from './queries';

const at = '2026-11-28T10:00:00.000Z';
const row = (number: number, did: ComparedRow['did'], more: Partial<ComparedRow> = {}): ComparedRow => ({
  ...{ entity: 'item', did, item: aBrief(number, `Item ${number}`), phrase: null, other: null, parts: [] },
  ...{ group: did === 'went' ? 'Gauges' : 'Levels', seq: 10 + number, person: 'Ada Wick', at },
  ...more,
});
const rows = [
  row(1, 'came'),
  row(2, 'changed', {
    parts: [
      {
        part: 'Title',
        words: [
          { type: 'removed', text: 'old ' },
          { type: 'added', text: 'new ' },
          { type: 'same', text: 'level' },
        ],
      },
    ],
  }),
  row(3, 'came', { entity: 'link', phrase: 'verifies', other: aBrief(9, 'Other end') }),
  row(4, 'went'),
];

describe('two moments compared', () => {
  usePage();
  let asked: URLSearchParams[] = [];
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listBaselines, [{ id: aBrief(7, '').id, name: 'Issue 3', note: '', seq: 4, person: 'Ada Wick', at }]);
    answer(listChanges, [
      { id: aBrief(8, '').id, seq: 20, at, person: 'Ada Wick', action: 'Reword', changes: 1, undone: false },
      { id: aBrief(6, '').id, seq: 12, at, person: 'Ada Wick', action: 'Make 3 links', changes: 3, undone: false },
    ]);
    asked = [];
    answer(compareMoments, ({ url }) => {
      asked.push(url.searchParams);
      const shown = rows.filter(({ did }) => !url.searchParams.get('did') || did === url.searchParams.get('did'));
      return {
        ...{ from: { seq: Number(url.searchParams.get('since')), at }, to: { seq: 20, at } },
        ...{ items: { came: 1, went: 1, changed: 1, moved: 0 }, links: { came: 1, went: 0, changed: 0, moved: 0 } },
        persons: [
          { person: 'Ada Wick', count: 3 },
          { person: 'Ewan Reed', count: 1 },
        ],
        groups: [
          { label: 'Levels', count: 3 },
          { label: 'Gauges', count: 1 },
        ],
        ...{ total: shown.length, rows: shown },
      };
    });
  });

  it('begin with the newest baseline, group by group, with marks in the words', async () => {
    show(<ComparingPage />);
    await screen.findByText('Item 1');
    expect(asked.at(-1)!.get('since')).toBe('4');
    expect(screen.getAllByRole('heading', { level: 2 }).map((one) => one.textContent)).toEqual(['Levels 3', 'Gauges 1']);
    expect([...document.querySelectorAll('del, ins')].map((one) => `${one.tagName} ${one.textContent}`)).toEqual(['DEL old ', 'INS new ']);
    expect(screen.getByText('verifies')).toBeTruthy();
    expect(screen.getByText('Other end')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Ada Wick, change 14' })).toHaveProperty('href', expect.stringContaining('/changes/14'));
  });

  it('are narrowed by their figures, and by whose last hand it was', async () => {
    const user = userEvent.setup();
    show(<ComparingPage />);
    await user.click(await within(await screen.findByRole('group', { name: 'Items' })).findByRole('button', { name: '1 went' }));
    await waitFor(() => expect(screen.queryByText('Item 1')).toBeNull());
    expect(presentAddress()).toContain('did=went');
    expect(within(screen.getByRole('group', { name: 'Links' })).getByRole('button', { name: '0 went' })).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('button', { name: '1 went' }));
    await screen.findByText('Item 1');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Whose last hand' }), 'Ewan Reed');
    await waitFor(() => expect(asked.at(-1)!.get('person')).toBe('Ewan Reed'));
  });

  it('are chosen among baselines and changes before what is looked at', async () => {
    const user = userEvent.setup();
    show(<ComparingPage />);
    const choice = await screen.findByRole('combobox', { name: 'Compare with' });
    await waitFor(() =>
      expect(
        within(choice)
          .getAllByRole('option')
          .map((one) => one.textContent),
      ).toEqual(['Issue 3 (change 4)', 'change 12: Make 3 links']),
    );
    await user.selectOptions(choice, '12');
    await waitFor(() => expect(asked.at(-1)!.get('since')).toBe('12'));
  });

  it('say why they cannot be, and when nothing is different', async () => {
    answer(compareMoments, () => {
      throw new Refusal('input-invalid', 'Change 30 is later than change 20, which is looked at.');
    });
    show(<ComparingPage />, { at: `/p/${aProject.id}?since=30` });
    expect(await screen.findByText(/is later than change 20/)).toBeTruthy();
  });

  it('compares figures: those that are different, with what they were, leading to their trend', async () => {
    const readiness = (notMet: number, failing: number) => ({
      ...{ seq: 20, results: [], links: [], scheme: [], testsPerRequirement: [], requirementsPerTest: [], collections: [] },
      rules: [
        {
          rule: 'tested',
          label: 'Tested',
          sentence: 'Every one is.',
          counts: { met: 4, suspect: 0, waived: 0, notMet, notApplicable: 0 },
          applicable: 4 + notMet,
        },
      ],
      states: [{ id: 'state:failing', label: 'Failing', count: failing, state: 'failing' as const }],
    });
    answer(getReadiness, ({ url }) => (url.searchParams.get('asOf') === '12' ? readiness(9, 2) : readiness(3, 2)));
    show(<ComparingPage />, { at: `/p/${aProject.id}?since=12&what=figures` });
    const table = await screen.findByRole('table', { name: 'Figures that are different' });
    expect(
      within(table)
        .getAllByRole('row')
        .slice(1)
        .map((line) => line.textContent),
    ).toEqual(['Tested: not met93−6']);
    expect(within(table).getByRole('link').getAttribute('href')).toBe(`/p/${aProject.id}/check/figure/rule:tested:notMet?trend=yes`);
    expect(screen.getByText('4 more figures are what they were.')).toBeTruthy();
    expect(figuresOf({ ...readiness(1, 1), states: [] }, readiness(1, 1)).at(-1)).toEqual({
      id: 'state:failing',
      label: 'Failing',
      before: undefined,
      after: 1,
    });
  });

  it('compares drawings: only those that differ are shown, one over the other', async () => {
    const shape = (id: string, name: string) => ({
      id,
      element: id,
      item: null,
      figure: 'box',
      name,
      x: 0,
      y: 0,
      width: 80,
      height: 40,
      inside: -1,
      keyword: '',
      parts: [],
    });
    const drawing = (id: string, name: string, shapes: object[]) => ({
      id,
      name,
      item: null,
      collection: idOf(1),
      sort: drawingSorts[0],
      shapes,
      routes: [],
      revision: 1,
      boxes: { shown: [], layers: [], places: {} },
      made: null,
    });
    const brief = (id: string, name: string) => ({ id, name, item: null, collection: idOf(1), sort: drawingSorts[0], shapes: 1, routes: 0, made: false });
    answer(listDrawings, [brief(idOf(1), 'Sites'), brief(idOf(2), 'Gates')] as never);
    answer(getDrawing, (({ url }: { url: URL }) => {
      const isThen = url.searchParams.get('asOf') === '12';
      return url.pathname.endsWith(idOf(1))
        ? drawing(idOf(1), 'Sites', [shape('a', 'Weir')])
        : drawing(idOf(2), 'Gates', [shape('b', isThen ? 'Old gate' : 'Gate')]);
    }) as never);
    expect(await findCompared(12)).toEqual([['Gates', ['changed']]]);
  });
});

async function findCompared(since: number) {
  const found: unknown[] = [];
  function Probe() {
    const { data, error } = useComparedDrawings(aProject.id, since);
    if (data) found.splice(0, found.length, ...data.map(({ name, changes }) => [name, changes.map(({ sort }) => sort)]));
    return <p>{data ? 'compared' : error ? String(error) : 'waiting'}</p>;
  }
  show(<Probe />, { at: `/p/${aProject.id}` });
  await screen.findByText('compared');
  return found;
}
