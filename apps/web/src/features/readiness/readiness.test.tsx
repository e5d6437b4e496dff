import {
  type Brief,
  changeItems,
  confirmLinks,
  findSuspectsAt,
  getProject,
  getReadiness,
  giveErrands,
  holdInLens,
  listPersons,
  openFigure,
  type Readiness,
  trendFigure,
  waiveFindings,
  withdrawItems,
} from '@coomb/contract';
import { buildStateCounts, verificationStates } from '@coomb/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, presentAddress, Refusal, sentTo, show, usePage } from '../../testing/page';
import { FigurePage } from './FigurePage';
import { ReadinessPage } from './ReadinessPage';

const figure = (id: string, count: number) => ({ id, label: id, count });
const [specification] = aProject.collections;

function readiness(change: Partial<Readiness> = {}): Readiness {
  const counts: Partial<Record<string, number>> = { failing: 1, verified: 4, waived: 1, unplanned: 2 };
  return {
    seq: 7,
    rules: [
      {
        rule: 'tested',
        label: 'Tested',
        sentence: 'Every requirement is verified by at least one test case.',
        counts: { met: 5, suspect: 0, waived: 1, notMet: 2, notApplicable: 0 },
        applicable: 8,
      },
      {
        rule: 'allocated',
        label: 'Allocated',
        sentence: 'Every function has a place.',
        counts: { met: 0, suspect: 0, waived: 0, notMet: 0, notApplicable: 0 },
        applicable: 0,
      },
    ],
    states: verificationStates.map((state) => ({ ...figure(`state:${state}`, counts[state] ?? 0), state })),
    results: [figure('results:passed', 3)],
    links: [figure('links:suspect', 2), figure('links:none', 3), figure('links:open', 5)],
    scheme: [figure('scheme:kinds', 0), figure('scheme:links', 2), figure('scheme:values', 1), figure('scheme:required', 0), figure('scheme:open', 3)],
    testsPerRequirement: [figure('tests-per-requirement:0', 2), figure('tests-per-requirement:1', 6)],
    requirementsPerTest: [figure('requirements-per-test:1', 4)],
    collections: [
      {
        id: specification!.id,
        name: specification!.name,
        states: { ...buildStateCounts(), failing: 1, verified: 4 },
        rules: [{ rule: 'tested', open: 2, applicable: 8 }],
      },
    ],
    ...change,
  };
}

const targets = () => screen.getAllByRole('link').map((link) => link.getAttribute('href')!.replace(/^.*\/figure\//, ''));

describe('the readiness page', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));

  it('opens every number at its own items', async () => {
    answer(getReadiness, readiness());
    show(<ReadinessPage />);
    await screen.findByText('Every requirement is verified by at least one test case.');
    expect(targets()).toEqual(
      expect.arrayContaining([
        'rule:tested:notMet',
        'rule:tested:met',
        'rule:tested:waived',
        'rule:tested:applicable',
        'state:open',
        'state:failing',
        'state:all',
        'links:open',
        'links:suspect',
        'links:none',
        `rule:tested:notMet?collection=${specification!.id}`,
        `state:failing?collection=${specification!.id}`,
      ]),
    );
    expect(screen.getAllByRole('link').every((link) => /\d|✓/.test(link.textContent!))).toBe(true);
  });

  it('says so of a rule that applies to nothing, instead of calling it met', async () => {
    answer(getReadiness, readiness());
    show(<ReadinessPage />);
    const rule = (await screen.findByText('Every function has a place.')).parentElement!;
    expect(within(rule).getByText('Nothing it applies to yet.')).toBeTruthy();
    expect(within(rule).queryAllByRole('link')).toEqual([]);
  });

  it('adds up what is not verified yet: neither verified nor waived', async () => {
    answer(getReadiness, readiness());
    show(<ReadinessPage />);
    await screen.findByText(/verified by fresh results/);
    expect(screen.getAllByRole('link').find((link) => link.getAttribute('href')!.endsWith('state:open'))!.textContent).toBe('3');
  });

  it('shows what went wrong, and tries again when asked', async () => {
    let failing = true;
    answer(getReadiness, () => {
      if (failing) throw new Refusal('internal', 'The figures could not be computed.', 500);
      return readiness();
    });
    show(<ReadinessPage />);
    expect((await screen.findByRole('alert')).textContent).toContain('The figures could not be computed.');
    failing = false;
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    await screen.findByText('Every requirement is verified by at least one test case.');
  });
});

const brief = (number: number, title: string, state: Brief['state']): Brief => ({
  id: idOf(100 + number),
  node: number,
  reference: `SYS-${String(number).padStart(3, '0')}`,
  title,
  kind: 'requirement',
  collection: specification!.id,
  heading: false,
  withdrawn: false,
  state,
});

describe('a figure opened', () => {
  usePage();
  const open = (query = '') => {
    answer(getProject, aProject);
    answer(openFigure, ({ url }) => ({
      id: 'rule:tested:notMet',
      label: 'Tested: not met',
      explains: 'Every requirement is verified by at least one test case.',
      items: url.searchParams.get('collection') === aProject.collections[1]!.id ? [] : [brief(10, 'Gate drive', 'failing'), brief(9, 'Alarm', 'unplanned')],
    }));
    show(<FigurePage />, { path: '/p/:project/check/figure/:figure', at: `/p/${aProject.id}/check/figure/rule:tested:notMet${query}` });
  };
  const rows = async () => (await screen.findAllByRole('row', { name: /SYS/ })).map((row) => /SYS-\d+/.exec(row.textContent!)![0]);

  it('lists the items with their number in the title', async () => {
    open();
    expect(await screen.findByRole('heading', { name: 'Tested: not met: 2' })).toBeTruthy();
    expect(await rows()).toEqual(['SYS-010', 'SYS-009']);
  });

  it('says what it was after earlier changes, and which of them moved it', async () => {
    const at = '2026-11-28T10:00:00.000Z';
    answer(trendFigure, {
      label: 'Tested: not met',
      points: [
        { seq: 1, at, action: 'Begin', count: null },
        { seq: 4, at, action: 'Import', count: 9 },
        { seq: 5, at, action: 'Link', count: 7 },
        { seq: 8, at, action: 'Rename', count: 7 },
        { seq: 12, at, action: 'Add', count: 10 },
      ],
    });
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'Trend' }));
    const panel = await screen.findByRole('group', { name: 'How the figure came to be' });
    const links = await within(panel).findAllByRole('link');
    expect(links.map((one) => [one.textContent, one.getAttribute('href')])).toEqual([
      ['changes 9 to 12', `/p/${aProject.id}/changes/between?since=8&asOf=12`],
      ['change 5: Link', `/p/${aProject.id}/changes/5`],
    ]);
    expect(links.map((one) => one.parentElement!.textContent!.slice(0, 2))).toEqual(['+3', '−2']);
    expect(presentAddress()).toContain('trend=yes');
  });

  it('opens as a register of what it asks for; narrowed, of the items themselves', async () => {
    const asked = () => {
      const address = new URL(screen.getByRole('link', { name: 'As a register' }).getAttribute('href')!, 'http://here');
      return (JSON.parse(address.searchParams.get('what')!) as { conditions: { shown: object; values: string[] }[] }).conditions;
    };
    open();
    await rows();
    expect(asked()).toMatchObject([{ shown: { sort: 'coverage', of: 'tested' }, values: ['not met'] }]);
    await userEvent.type(screen.getByRole('textbox', { name: 'Filter by words' }), 'drive');
    await waitFor(() => expect(asked()).toMatchObject([{ shown: { sort: 'reference' }, values: ['SYS-010'] }]));
  });

  it('filters by words and keeps them in the address', async () => {
    open();
    await screen.findByRole('heading', { name: /2$/ });
    await userEvent.type(screen.getByRole('textbox', { name: 'Filter by words' }), 'drive');
    expect(await rows()).toEqual(['SYS-010']);
    await waitFor(() => expect(presentAddress()).toContain('words=drive'));
    await userEvent.type(screen.getByRole('textbox', { name: 'Filter by words' }), 'xyz');
    expect(await screen.findByText('None of the items holds these words.')).toBeTruthy();
  });

  it('takes words and order from an address that somebody sent', async () => {
    open('?sort=reference');
    await screen.findByRole('heading', { name: /2$/ });
    expect(await rows()).toEqual(['SYS-009', 'SYS-010']);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Order' }), 'by title');
    await waitFor(() => expect(presentAddress()).toContain('sort=title'));
    expect(await rows()).toEqual(['SYS-009', 'SYS-010']);
  });

  it('narrows to a collection, and says when nothing counts there', async () => {
    open();
    await screen.findByRole('heading', { name: /2$/ });
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Collection' }), 'Gate tests');
    expect(await screen.findByText('Nothing counts here.')).toBeTruthy();
    expect(screen.getByRole('button', { name: /Save the list/ })).toHaveProperty('disabled', true);
  });
});

describe('the list behind a figure', () => {
  usePage();
  const open = (figure: string) => {
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(openFigure, {
      id: figure,
      label: 'Tested: not met',
      explains: 'Not tested',
      items: [brief(9, 'Alarm', 'unplanned'), brief(10, 'Gate drive', 'failing')],
    });
    for (const endpoint of [waiveFindings, giveErrands, withdrawItems]) answer(endpoint, { seq: 8, ids: [] });
    answer(changeItems, ({ body }) => ({ seq: 8, ids: [], changed: (body as { items: string[] }).items.length, refused: [] }));
    show(<FigurePage />, { path: '/p/:project/check/figure/:figure', at: `/p/${aProject.id}/check/figure/${figure}` });
  };
  const choose = async () => {
    (await screen.findByRole('grid', { name: 'Items' })).focus();
    await userEvent.keyboard('{Control>}a{/Control}');
    await screen.findByText('2 chosen of 2');
  };

  it('waives the gaps that are chosen', async () => {
    open('rule:tested:notMet');
    await choose();
    await userEvent.keyboard('w');
    await userEvent.type(await screen.findByLabelText('Why is this accepted?'), 'Not built this year');
    await userEvent.click(screen.getByRole('button', { name: 'Waive 2 findings' }));
    await waitFor(() => expect(sentTo(/findings\/waive/)).toMatchObject([{ findings: [9, 10].map((number) => `gap:tested:${idOf(100 + number)}`) }]));
  });

  it('waives a rule for those that miss it, where the figure counts no gaps', async () => {
    open('state:failing');
    await choose();
    answer(openFigure, ({ url }) => ({
      id: 'gaps',
      label: 'Gaps',
      explains: '',
      items: url.pathname.includes('tested') ? [brief(10, 'Gate drive', 'failing')] : [],
    }));
    await userEvent.keyboard('w');
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Rule' }), 'implemented');
    expect(await screen.findByText('None of them misses this rule.')).toBeTruthy();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Rule' }), 'Tested');
    expect(await screen.findByText('1 of 2 items misses it.')).toBeTruthy();
    await userEvent.type(screen.getByLabelText('Why is this accepted?'), 'Not built this year');
    await userEvent.click(screen.getByRole('button', { name: 'Waive 1 finding' }));
    await waitFor(() => expect(sentTo(/findings\/waive/)).toMatchObject([{ findings: [`gap:tested:${idOf(110)}`] }]));
  });

  it('sets a field of all that are chosen, saying before how many', async () => {
    open('state:failing');
    await choose();
    await userEvent.keyboard('e');
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Field' }), 'Priority');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Priority' }), 'High');
    await userEvent.click(await screen.findByRole('button', { name: 'Change 2' }));
    await waitFor(() =>
      expect(sentTo(/items\/change/)).toContainEqual({
        items: [9, 10].map((number) => idOf(100 + number)),
        change: { sort: 'field', field: 'priority', value: 'High' },
        skipRefused: true,
      }),
    );
  });

  it('confirms the suspect links of all that are chosen: says which, and keeps a reason', async () => {
    const links = [11, 12].map((number) => ({ id: idOf(number), item: aBrief(3, 'Level'), phrase: 'is verified by', other: aBrief(number, `Test ${number}`) }));
    answer(findSuspectsAt, { seq: 8, links });
    answer(confirmLinks, { seq: 9, ids: [] });
    open('state:failing');
    await choose();
    await userEvent.keyboard('c');
    expect(await screen.findByText(/SYS-003, which changed, is verified by SYS-012 Test 12/)).toBeTruthy();
    expect(sentTo(/suspects\/at/)).toEqual([{ items: [9, 10].map((number) => idOf(100 + number)) }]);
    const hold = screen.getByRole('button', { name: 'Confirm 2 links' }) as HTMLButtonElement;
    expect(hold.disabled).toBe(true);
    await userEvent.type(screen.getByLabelText('Why'), 'Only the name changed');
    await userEvent.click(hold);
    await waitFor(() => expect(sentTo(/links\/confirm/)).toEqual([{ links: [idOf(11), idOf(12)], reason: 'Only the name changed' }]));
  });

  it('says so where no link of what is chosen is suspect', async () => {
    answer(findSuspectsAt, { seq: 8, links: [] });
    open('state:failing');
    await choose();
    await userEvent.click(screen.getByRole('button', { name: 'Confirm links…' }));
    expect(await screen.findByText(/None of their links is suspect/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText('Why'), 'Nothing to say');
    expect((screen.getByRole('button', { name: 'Confirm' }) as HTMLButtonElement).disabled).toBe(true);
  });

  it('pins what is chosen to the lens that is on, leaves it out, or lets its conditions decide', async () => {
    sessionStorage.setItem(`coomb.through.${aProject.id}`, JSON.stringify({ lens: idOf(71), mode: 'only' }));
    answer(holdInLens, { seq: 9, changed: 2 });
    open('state:failing');
    for (const [name, as] of [
      ['Pin to the lens', 'pinned'],
      ['Leave out of the lens', 'leftOut'],
      ['As its conditions say', 'asked'],
    ] as const) {
      await choose();
      await userEvent.click(screen.getByRole('button', { name: 'Lens…' }));
      await userEvent.click(await screen.findByRole('button', { name }));
      await waitFor(() => expect(sentTo(/\/hold$/).at(-1)).toEqual({ items: [9, 10].map((number) => idOf(100 + number)), as }));
    }
    sessionStorage.clear();
  });

  it('asks before it withdraws many', async () => {
    open('state:failing');
    await choose();
    await userEvent.click(screen.getByRole('button', { name: 'Withdraw' }));
    expect(sentTo(/items\/withdraw/)).toEqual([]);
    await userEvent.click(await screen.findByRole('button', { name: 'Withdraw 2 items' }));
    await waitFor(() => expect(sentTo(/items\/withdraw/)).toEqual([{ items: [9, 10].map((number) => idOf(100 + number)) }]));
  });
});
