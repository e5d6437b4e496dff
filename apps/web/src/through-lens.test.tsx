import {
  type Finding,
  findItems,
  getDrawing,
  getOutline,
  getOutlineSince,
  getProject,
  getRealisation,
  listDrawings,
  listErrands,
  listFindings,
  listPersons,
  listSavedViews,
  listSuspects,
  lookThrough as lookThroughEndpoint,
  readImpact,
} from '@coomb/contract';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DrawingsPage } from './features/drawings/DrawingsPage';
import { FindingsPage } from './features/findings/FindingsPage';
import { ImpactPage } from './features/impact/ImpactPage';
import { InHandPage } from './features/in-hand/InHandPage';
import { RealisationPage } from './features/realisation/RealisationPage';
import { SearchPage } from './features/search/SearchPage';
import { SuspectsPage } from './features/suspects/SuspectsPage';
import { lookThrough } from './shared/lens/through';
import { outlineOf } from './testing/outline';
import { aBrief, answer, aProject, idOf, Refusal, show, usePage } from './testing/page';

const lens = idOf(71);
const finding = (number: number, change: Partial<Finding> = {}): Finding => ({
  ...{ key: `twice:${number}`, rule: 'twice', item: aBrief(number, `Item ${number}`), other: null, links: [], says: 'is twice' },
  ...{ waiver: null, errand: null, mendings: [] },
  ...change,
});

/** Of items 1, 2 and 3, the lens shows the first. */
describe('looking through a lens', () => {
  usePage();
  const asked: (string | null)[] = [];
  const note = ({ url }: { url: URL }) => asked.push(url.searchParams.get('lens'));
  const look = (mode: 'only' | 'lit') => sessionStorage.setItem(`coomb.through.${aProject.id}`, JSON.stringify({ lens, mode }));
  beforeEach(() => {
    asked.length = 0;
    const outline = outlineOf([{ reference: 'SYS-001' }, { reference: 'SYS-002' }, { reference: 'SYS-003' }]);
    answer(getOutline, { ...outline, id: [101, 102, 103].map(idOf), node: [1, 2, 3] });
    answer(getOutlineSince, { seq: 1, life: 'one', day: outline.day, whole: false, difference: null });
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(listSavedViews, []);
    answer(lookThroughEndpoint, { seq: 1, name: 'Gates', items: 1, nodes: [1], linksWithin: 0, linksAcross: 1, unknown: [] });
  });
  afterEach(() => sessionStorage.clear());

  /** Names of a list's rows that are shown in full, and of those that are faint. */
  const told = async (list: string) => {
    const rows = within(await screen.findByRole('grid', { name: list }))
      .getAllByRole('row')
      .filter((row) => row.dataset.name !== undefined);
    const isFaint = (row: HTMLElement) => Number(getComputedStyle(within(row).getByRole('gridcell')).opacity || 1) < 1;
    const names = (of: HTMLElement[]) => of.map((row) => row.dataset.name);
    return { full: names(rows.filter((row) => !isFaint(row))), faint: names(rows.filter(isFaint)) };
  };

  describe('findings', () => {
    beforeEach(() =>
      answer(listFindings, (sent) => {
        note(sent);
        const findings = [finding(1), finding(2), finding(3, { other: aBrief(1, 'Item 1') })];
        return { seq: 7, rules: [], total: findings.length, findings };
      }),
    );

    it('are asked for of what is seen only, and say so', async () => {
      look('only');
      show(<FindingsPage />);
      expect(await screen.findByText(/Figures of what is seen through “Gates” only/)).toBeTruthy();
      expect(asked.at(-1)).toBe(lens);
    });

    it('are all there where the lens lights, the others faint; between two items they are of both', async () => {
      look('lit');
      show(<FindingsPage />);
      await waitFor(async () => expect(await told('Findings')).toEqual({ full: ['SYS-001 is twice', 'SYS-003 is twice'], faint: ['SYS-002 is twice'] }));
      expect(asked).toEqual([null]);
      expect(screen.getByText(/Figures of everything/)).toBeTruthy();
    });

    it('that were chosen are chosen no more through another lens: nothing is done unseen', async () => {
      show(<FindingsPage />);
      await told('Findings');
      screen.getByRole('grid').focus();
      await userEvent.keyboard('{Control>}a{/Control}');
      expect(await screen.findByText('3 chosen of 3')).toBeTruthy();
      act(() => lookThrough(aProject.id, { lens, mode: 'only' }));
      await screen.findByText(/Figures of what is seen through “Gates” only/);
      expect(screen.queryByText('3 chosen of 3')).toBeNull();
      expect(screen.getByText('3 findings')).toBeTruthy();
    });

    it('are of everything, without a lens or where it is kept no more', async () => {
      show(<FindingsPage />).unmount();
      expect(screen.queryByText(/Figures of/)).toBeNull();
      look('only');
      answer(lookThroughEndpoint, () => {
        throw new Refusal('not-found', 'This lens is not kept any more.', 404);
      });
      show(<FindingsPage />);
      await waitFor(() => expect(asked.at(-1)).toBeNull());
      expect((await told('Findings')).full).toHaveLength(3);
    });
  });

  it('suspect links of which an end is seen are listed, the other end faint', async () => {
    look('only');
    const link = (number: number) => ({
      id: idOf(number),
      phrase: 'leads to',
      other: aBrief(number, 'Other'),
      since: 1,
      both: false,
      usage: null,
      errand: null,
    });
    answer(listSuspects, (sent) => {
      note(sent);
      const group = { item: aBrief(1, 'Item 1'), seq: 5, at: '2026-11-01T08:00:00.000Z', person: 'Maren Holt', action: 'Edit', links: [link(1), link(2)] };
      return { seq: 7, links: 2, total: 1, groups: [group] };
    });
    show(<SuspectsPage />);
    expect(await screen.findByText('2 links from 1 change, of which an end is seen through “Gates”')).toBeTruthy();
    expect(await told('Suspect links')).toEqual({ full: ['SYS-001 leads to SYS-001 Other'], faint: ['SYS-001 leads to SYS-002 Other'] });
    expect(asked.at(-1)).toBe(lens);
  });

  it('that no link of what is seen is suspect is told apart from none being so', async () => {
    look('only');
    answer(listSuspects, { seq: 7, links: 0, total: 0, groups: [] });
    show(<SuspectsPage />);
    expect(await screen.findByText('No link of what is seen is suspect')).toBeTruthy();
  });

  it('words are looked for in what is seen only', async () => {
    look('only');
    answer(findItems, (sent) => {
      note(sent);
      return [{ ...aBrief(1, 'Item 1'), referenceMarks: [], titleMarks: [], excerpt: null }];
    });
    show(<SearchPage />, { at: `/p/${aProject.id}?words=item` });
    expect(await screen.findByText('Only what is seen through “Gates” is found.')).toBeTruthy();
    await waitFor(() => expect(asked.at(-1)).toBe(lens));
  });

  it('what is in hand is of what is seen, and says of how many', async () => {
    localStorage.setItem('coomb.person', 'Ada Wick');
    look('only');
    const errand = (number: number) => ({
      ...{ id: idOf(number), sort: 'look' as const, item: idOf(100 + number), link: null, finding: null, note: '', owner: 'Ada Wick', giver: 'Ewan Reed' },
      ...{ at: '2026-11-01T08:00:00.000Z', done: false, about: aBrief(number, `Item ${number}`), stands: true },
    });
    answer(listErrands, [errand(1), errand(2), errand(3)]);
    show(<InHandPage />);
    expect(await screen.findByText('1 thing about what is seen through “Gates”, of 3')).toBeTruthy();
    expect((await told('In hand')).full).toHaveLength(1);
  });

  it.each(['only', 'lit'] as const)('of an impact nothing is left out: what is not seen is faint (%s)', async (mode) => {
    look(mode);
    const affected = (number: number) => ({ item: aBrief(number, `Item ${number}`), distance: 1, paths: 1, from: 'SYS-003', way: [] });
    answer(readImpact, {
      ...{ roots: [aBrief(3, 'Root')], suspect: 0, already: 0, upstream: { total: 0, items: [] } },
      ...{ downstream: { total: 2, items: [affected(1), affected(2)] }, stale: [] },
    });
    show(<ImpactPage />, { at: `/p/${aProject.id}?items=SYS-003` });
    expect(await screen.findByText(/What is not seen through “Gates” is faint, and counts/)).toBeTruthy();
    const { full, faint } = await told('Impact');
    expect([full.length, faint.length]).toEqual([1, 1]);
    const heads = screen.getAllByRole('row').filter((row) => row.dataset.name === undefined);
    expect(heads.map((row) => getComputedStyle(within(row).getByRole('gridcell')).opacity || '1')).toEqual(['1', '1']);
  });

  describe('drawings', () => {
    const drawing = (number: number, seen: number) => ({
      ...{ id: idOf(number), item: null, name: `Drawing ${number}`, collection: aProject.collections[0]!.id, sort: 'class' as const },
      ...{ shapes: 5, routes: 0, made: false, seen },
    });
    beforeEach(() => {
      answer(listDrawings, (sent) => {
        note(sent);
        return [drawing(1, 2), drawing(2, 0)];
      });
      answer(getDrawing, () => {
        throw new Refusal('not-found', 'Not asked here', 404);
      });
    });

    it('that show nothing of what is seen are left out, and counted', async () => {
      look('only');
      show(<DrawingsPage />);
      expect(await screen.findByText('1 of 2 drawings show something that is seen through “Gates”.')).toBeTruthy();
      expect(screen.getByText(/2 of 5 seen/)).toBeTruthy();
      expect(screen.queryByText('Drawing 2')).toBeNull();
      expect(asked.at(-1)).toBe(lens);
    });

    it('are faint where the lens lights', async () => {
      look('lit');
      show(<DrawingsPage />);
      const opacity = async (name: string) => getComputedStyle((await screen.findByText(name)).closest('a')!).opacity || '1';
      await waitFor(async () => expect([await opacity('Drawing 1'), Number(await opacity('Drawing 2')) < 1]).toEqual(['1', true]));
    });
  });

  it('layers are counted of what is seen', async () => {
    look('only');
    const layer = { layer: 'system', label: 'System', items: 1, next: null, byNext: 0, below: 0, none: 1, gaps: [] };
    answer(getRealisation, (sent) => {
      note(sent);
      return [layer];
    });
    show(<RealisationPage />);
    expect(await screen.findByText('1 item')).toBeTruthy();
    expect(screen.getByText(/Figures of what is seen through “Gates” only/)).toBeTruthy();
    expect(asked.at(-1)).toBe(lens);
  });
});
