import { compareFile, type Comparison, getJob, getOutline, getProject, importFile } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { comparedEntry } from '../../../testing/compared-entry';
import { outlineOf } from '../../../testing/outline';
import { answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../../testing/page';
import { ComparePage } from './ComparePage';

const tray = idOf(80);
const source = idOf(81);
const mine = (number: number, title: string) => ({
  id: idOf(100 + number),
  reference: `SYS-00${number}`,
  title,
  html: `<p>${title} here.</p>`,
  heading: false,
  links: 2,
});
const theirs = (draft: number, title: string, key: string | null = null) => ({
  draft,
  key,
  title,
  html: `<p>${title} there.</p>`,
  heading: false,
  place: `row ${draft + 2}`,
});

const entries: Comparison['entries'] = [
  {
    ...comparedEntry(),
    id: 't0',
    conflict: true,
    mine: mine(1, 'Level'),
    theirs: theirs(0, 'Level', 'SYS-001'),
    match: { reason: 'key', likeness: 1 },
    fields: [{ field: 'text', label: 'Text', base: '<p>within 5 cm</p>', mine: '<p>within 4 cm</p>', theirs: '<p>within 3 cm</p>', verdict: 'conflict' }],
  },
  {
    ...comparedEntry(),
    id: 't1',
    mine: mine(2, 'Siren'),
    theirs: theirs(1, 'Horn'),
    match: { reason: 'similar text', likeness: 0.75 },
    fields: [
      { field: 'title', label: 'Title', base: 'Siren', mine: 'Siren', theirs: 'Horn', verdict: 'theirs' },
      { field: 'field:priority', label: 'Priority', base: 'High', mine: 'Low', theirs: 'High', verdict: 'mine' },
    ],
    linksAdded: ['is derived from NEED-2'],
    linksRemoved: ['is derived from NEED-1'],
  },
  { ...comparedEntry(), id: 't2', sort: 'new', theirs: theirs(2, 'Lamp', 'SYS-009') },
  {
    ...comparedEntry(),
    id: 't3',
    sort: 'moved',
    mine: mine(4, 'Gate'),
    theirs: theirs(3, 'Gate', 'SYS-004'),
    match: { reason: 'key', likeness: 1 },
    place: { from: 'Levels', to: 'Gates', conflict: false },
  },
  { ...comparedEntry(), id: `m${idOf(105)}`, sort: 'removed', mine: mine(5, 'Log') },
];

const comparison: Comparison = {
  seq: 7,
  file: 'spec 2.csv',
  source: { id: source, name: 'spec.csv', importedAt: '2026-11-01T08:00:00.000Z' },
  collection: { id: idOf(11), name: 'System requirements' },
  counts: { new: 1, changed: 2, moved: 1, removed: 1, returned: 0, same: 40, conflicts: 1 },
  entries,
  drawings: [],
  issues: [],
};

describe('a newer version beside what stands here', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(getOutline, { ...outlineOf([{ reference: 'SYS-001' }, { reference: 'SYS-008' }]), id: [idOf(101), idOf(108)] });
    answer(compareFile, comparison);
  });
  const open = async (query = '') => {
    show(<ComparePage />, { path: '/p/:project/gather/:tray/compare', at: `/p/${aProject.id}/gather/${tray}/compare?source=${source}${query}` });
    await screen.findByRole('heading', { name: 'spec 2.csv as a newer version' });
  };
  const list = () =>
    within(screen.getByRole('list', { name: 'Differences' }))
      .getAllByRole('listitem')
      .map((option) => /SYS-\d+/.exec(option.textContent!)![0]);
  const tick = (name: string) => screen.getByRole('checkbox', { name: `Take ${name}` });

  it('shows only what differs in a part, or in it alone', async () => {
    await open();
    await userEvent.selectOptions(screen.getByLabelText('Differing in'), 'in links (1)');
    expect(list()).toEqual(['SYS-002']);
    expect(presentAddress()).toContain('part=Links');
    await userEvent.selectOptions(screen.getByLabelText('Differing in'), 'only in place (1)');
    expect(list()).toEqual(['SYS-004']);
    await userEvent.click(screen.getByRole('button', { name: 'Leave all shown' }));
    await userEvent.selectOptions(screen.getByLabelText('Differing in'), 'in any part');
    expect(tick('SYS-004')).toHaveProperty('checked', false);
    expect(tick('SYS-002')).toHaveProperty('checked', true);
  });

  it('lists every difference with what is taken to begin with: all but what only a person can decide', async () => {
    await open();
    expect(list()).toEqual(['SYS-001', 'SYS-002', 'SYS-009', 'SYS-004', 'SYS-005']);
    expect(['SYS-001', 'SYS-002', 'Lamp', 'SYS-004', 'SYS-005'].map((name) => (tick(name) as HTMLInputElement).checked)).toEqual([
      false,
      true,
      true,
      true,
      true,
    ]);
    expect(screen.getByText(/4 of 5 differences taken, 40 items and sections the same/)).toBeTruthy();
    expect(screen.getByText(/1 to decide keep what stands here/)).toBeTruthy();
  });

  it('shows both sides of a clash with what each changed, and takes the side that is chosen', async () => {
    await open();
    expect(screen.getByText('Text: changed on both sides')).toBeTruthy();
    expect(screen.getByText('Stands here').nextSibling!.textContent).toContain('54');
    await userEvent.click(screen.getByRole('button', { name: 'Take the newer' }));
    expect(screen.queryByText(/to decide keep what stands here/)).toBeNull();
    expect(screen.getByText(/2 links become suspect until confirmed/)).toBeTruthy();
  });

  it('says by what two were matched, what stays, and which links come and go', async () => {
    await open('&entry=t1');
    expect(screen.getByText(/Matched by similar text \(75 % of the words\)/)).toBeTruthy();
    expect(screen.getByText('Priority: changed here only; it stays')).toBeTruthy();
    expect(screen.getByText('+ is derived from NEED-2')).toBeTruthy();
    expect(screen.getByText('− is derived from NEED-1')).toBeTruthy();
  });

  it('narrows to one sort, and leaves or takes all that is shown', async () => {
    await open();
    await userEvent.click(screen.getByRole('button', { name: '1 no longer there' }));
    expect(list()).toEqual(['SYS-005']);
    expect(presentAddress()).toContain('show=removed');
    await userEvent.click(screen.getByRole('button', { name: 'Leave all shown' }));
    expect(tick('SYS-005')).toHaveProperty('checked', false);
    expect(screen.getByText(/3 of 5 differences taken/)).toBeTruthy();
    expect(screen.getByRole('button', { name: '0 withdrawn here, changed there' })).toHaveProperty('disabled', true);
  });

  it('walks the list by keys and takes by key', async () => {
    await open();
    await userEvent.keyboard('{ArrowDown}t');
    expect(presentAddress()).toContain('entry=t1');
    expect(tick('SYS-002')).toHaveProperty('checked', false);
  });

  it('leads back to the tray where the address names nothing to compare with', async () => {
    show(<ComparePage />, { path: '/p/:project/gather/:tray/compare', at: `/p/${aProject.id}/gather/${tray}/compare` });
    await waitFor(() => expect(presentAddress()).toBe(`/p/${aProject.id}/gather/${tray}`));
    expect(calls.some(({ call }) => call.endsWith('/compare'))).toBe(false);
  });

  it('compares again when a match is corrected', async () => {
    await open('&entry=t2');
    await userEvent.click(screen.getByRole('button', { name: 'It is a version of…' }));
    const field = screen.getByRole('combobox', { name: /Reference of the item/ });
    expect([...document.querySelectorAll('datalist option')].map((option) => option.getAttribute('value'))).toEqual(['SYS-005']);
    await userEvent.type(field, 'sys-00');
    expect(screen.getByText('There is no sys-00 here.')).toBeTruthy();
    await userEvent.type(field, '8');
    await userEvent.click(await screen.findByRole('button', { name: 'Match' }));
    await waitFor(() => expect(calls.filter(({ call }) => call.endsWith('/compare')).at(-1)!.body).toMatchObject({ source, pairs: [[2, idOf(108)]] }));
  });

  it('imports what was chosen at the change it was compared at, and goes to read it', async () => {
    const job = {
      id: idOf(90),
      label: 'Import',
      step: '',
      progress: 1,
      message: '',
      state: 'done' as const,
      outcome: { collection: idOf(11), items: 4, sections: 0, links: 1, results: 0, issues: [] },
    };
    answer(importFile, { job: job.id });
    answer(getJob, job);
    await open('&entry=t1');
    await userEvent.click(within(screen.getByText('Title').parentElement!).getByRole('button', { name: 'Keep what stands here' }));
    await userEvent.click(screen.getByRole('button', { name: 'Import' }));
    await waitFor(() => expect(presentAddress()).toBe(`/p/${aProject.id}/shape/${idOf(11)}`));
    expect(calls.find(({ call }) => call.endsWith('/import'))!.body).toEqual({ again: { source, pairs: [], seq: 7, choices: { t1: { title: 'mine' } } } });
  });

  it('says why an import was refused and keeps the choices', async () => {
    const job = {
      id: idOf(90),
      label: 'Import',
      step: '',
      progress: 0,
      message: 'The project changed since the comparison.',
      state: 'failed' as const,
      outcome: null,
    };
    answer(importFile, { job: job.id });
    answer(getJob, job);
    await open();
    await userEvent.click(tick('SYS-002'));
    await userEvent.click(screen.getByRole('button', { name: 'Import' }));
    expect(await screen.findByText('The project changed since the comparison.')).toBeTruthy();
    expect(tick('SYS-002')).toHaveProperty('checked', false);
  });

  it('says so when nothing differs', async () => {
    answer(compareFile, { ...comparison, counts: { ...comparison.counts, new: 0, changed: 0, moved: 0, removed: 0, conflicts: 0 }, entries: [] });
    await open();
    expect(screen.getByText('Nothing differs')).toBeTruthy();
  });

  it('says what went wrong when the older version is gone', async () => {
    answer(compareFile, () => {
      throw new Refusal('not-found', 'The older version is not there any more; its import was undone.', 404);
    });
    show(<ComparePage />, { path: '/p/:project/gather/:tray/compare', at: `/p/${aProject.id}/gather/${tray}/compare?source=${source}` });
    expect((await screen.findByRole('alert')).textContent).toContain('its import was undone');
  });
});
