import {
  cancelJob,
  createBaseline,
  findItems,
  getProject,
  getUndo,
  listBaselines,
  listChanges,
  listJobs,
  listSavedViews,
  listSources,
  lookThrough,
  readColours,
  undo,
} from '@coomb/contract';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, Refusal, sentTo, show, usePage } from '../testing/page';
import { FillItems } from '../shared/colour-key/fills';
import { Reference } from '../shared/ui/reference';
import { FindAnything } from './FindAnything';
import { KeysHelp } from './KeysHelp';
import { LedgerStrip } from './LedgerStrip';
import { readPerson } from '../shared/api/person';
import type { View } from '../shared/view';
import { views } from '../views';
import { CourseBar } from './CourseBar';
import { PersonName } from './PersonName';
import { TopLine } from './TopLine';
import { viewAt } from './view-at';

describe('the ledger strip', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(getUndo, { undo: 'Edit SYS-012', redo: null });
    answer(listJobs, []);
  });

  it('says what undo would take back, and does it by key', async () => {
    answer(undo, { seq: 8, action: 'Edit SYS-012' });
    show(<LedgerStrip people={[{ name: 'Ada', items: [], writing: [] }]} connected missed={[]} forgetMissed={() => {}} />);
    expect((await screen.findByText(/: Edit SYS-012/)).textContent).toBe(': Edit SYS-012');
    expect(screen.getByRole('button', { name: /Redo/ })).toHaveProperty('disabled', true);
    await userEvent.keyboard('{Control>}z{/Control}');
    expect(await screen.findByText('Undone: Edit SYS-012')).toBeTruthy();
  });

  it('says why something cannot be undone', async () => {
    answer(undo, () => {
      throw new Refusal('undo-refused', 'SYS-012 was changed by Ben since.');
    });
    show(<LedgerStrip people={[]} connected missed={[]} forgetMissed={() => {}} />);
    await userEvent.click(await screen.findByRole('button', { name: /Undo: Edit/ }));
    expect(await screen.findByText('SYS-012 was changed by Ben since.')).toBeTruthy();
  });

  it('shows running jobs with a way to cancel, and no finished ones', async () => {
    const job = { id: idOf(71), label: 'Import gates.docx', step: 'storing', progress: 0.4, message: '', outcome: null };
    answer(listJobs, [
      { ...job, state: 'running' },
      { ...job, id: idOf(72), label: 'Import old.docx', state: 'done' },
    ] as never);
    answer(cancelJob, { ...job, state: 'cancelled' } as never);
    show(<LedgerStrip people={[]} connected missed={[]} forgetMissed={() => {}} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Cancel' }));
    expect(screen.queryByText(/old.docx/)).toBeNull();
    await waitFor(() => expect(calls.at(-1)!.call).toBe(`POST /projects/${aProject.id}/jobs/${job.id}/cancel`));
  });

  it('names the others, and says when it lost touch', async () => {
    show(<LedgerStrip people={['Ada', 'Ben'].map((name) => ({ name, items: [], writing: [] }))} connected={false} missed={[]} forgetMissed={() => {}} />);
    expect(await screen.findByRole('group', { name: 'Here: Ada, Ben' })).toBeTruthy();
    expect(screen.getByText(/^Not connected/)).toBeTruthy();
  });
});

describe('find anything', () => {
  usePage();
  const found = {
    id: idOf(21),
    node: 2,
    reference: 'SYS-012',
    title: 'Gate stops',
    kind: 'requirement',
    collection: idOf(11),
    heading: false,
    withdrawn: false,
    state: 'verified' as const,
    referenceMarks: [],
    titleMarks: [[0, 4]] as [number, number][],
    excerpt: { where: 'Rationale', text: 'A gate stops.', marks: [[2, 6]] as [number, number][] },
  };
  beforeEach(() => {
    answer(getProject, aProject);
    const about = {
      format: 'docx',
      size: 1,
      importedAt: '2026-11-01T08:00:00.000Z',
      importedBy: 'Ada Brook',
      items: 1,
      issues: [],
      recipe: null,
      recipeId: null,
    };
    answer(listSources, [{ ...about, id: idOf(71), name: 'Weir rules.docx', lineage: idOf(71), collection: null }]);
    answer(findItems, ({ url }) => (url.searchParams.get('words')!.includes('gate') ? [found] : []));
  });
  const options = () => screen.getAllByRole('option').map((option) => option.textContent!);

  it('offers every view and action before anything is typed', async () => {
    show(<FindAnything views={views} onClose={() => {}} />);
    await screen.findByRole('listbox');
    expect(options().join('\n')).toMatch(/Section[\s\S]*Link: Trace matrix[\s\S]*Read System requirements[\s\S]*Undo your last action/);
  });

  it('puts items first, and opens the chosen one with Enter', async () => {
    const onClose = vi.fn();
    show(<FindAnything views={views} onClose={onClose} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'gate');
    await waitFor(() => expect(options()[0]).toContain('SYS-012'));
    expect(options().some((option) => option.includes('Read Gate tests'))).toBe(true);
    const marks = [...screen.getAllByRole('option')[0]!.querySelectorAll('mark')].map((mark) => mark.textContent);
    expect([marks, options()[0]]).toEqual([['Gate', 'gate'], expect.stringContaining('Rationale: A gate stops.')]);
    await userEvent.keyboard('{Enter}');
    expect(onClose).toHaveBeenCalled();
    expect(presentAddress()).toContain('item=SYS-012');
  });

  it('finds sources by their names', async () => {
    show(<FindAnything views={views} onClose={() => {}} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'rules we');
    await waitFor(() => expect(options()[0]).toContain('Weir rules.docx'));
    await userEvent.keyboard('{Enter}');
    expect(presentAddress()).toBe(`/p/${aProject.id}/gather/sources/${idOf(71)}`);
  });

  it('walks the list with the arrow keys and goes no further than its ends', async () => {
    show(<FindAnything views={views} onClose={() => {}} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'readiness');
    await userEvent.keyboard('{ArrowUp}{ArrowDown}{ArrowDown}');
    expect(screen.getAllByRole('option').filter((option) => option.getAttribute('aria-selected') === 'true')).toHaveLength(1);
    await userEvent.keyboard('{Enter}');
    expect(presentAddress()).toBe(`/p/${aProject.id}/check`);
  });

  it('says when nothing is called so', async () => {
    show(<FindAnything views={views} onClose={() => {}} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'zzz');
    expect(await screen.findByText(/Nothing says “zzz”/)).toBeTruthy();
  });
});

describe('the help on keys', () => {
  usePage();
  it.each([
    ['', 'Section', 'Move from item to item, layer to layer'],
    ['link', 'Bench', 'Link the two marked items'],
    ['link/matrix', 'Trace matrix', 'Next gap'],
    ['shape/abc', 'Read', 'Edit in place'],
  ])('at "%s" begins with those of %s', async (path, title, key) => {
    show(<KeysHelp view={viewAt(views, path)} onClose={() => {}} />);
    expect(await screen.findByText(title)).toBeTruthy();
    expect(screen.getByText(key)).toBeTruthy();
    expect(screen.getByText('Find anything')).toBeTruthy();
  });
});

describe('the course of the work', () => {
  usePage();
  const at = (rest: string) =>
    show(<CourseBar project={aProject} views={views} here={viewAt(views, rest)} />, { path: '/p/:project/*', at: `/p/${aProject.id}/${rest}` });
  const stageLinks = () => screen.getAllByRole('link').filter((link) => !link.closest('[role=group]'));

  it('carries one live number per stage', () => {
    at('');
    expect(stageLinks().map((link) => link.textContent)).toEqual(['Gather1 source', 'Shape', 'Link2 to link', 'Check1 open', 'Publish7 changes to report']);
  });

  it.each([
    ['link', ['Bench', 'Trace matrix'], 'Bench'],
    ['link/matrix', ['Bench', 'Trace matrix'], 'Trace matrix'],
    ['check/findings', ['Readiness', 'Findings'], 'Findings'],
  ])('opens the stage of %s to its views, with the present one marked', (rest, names, present) => {
    at(rest);
    for (const view of names) expect(screen.getByRole('link', { name: view })).toBeTruthy();
    expect(screen.getByRole('link', { name: present, current: 'page' })).toBeTruthy();
  });

  it.each([
    ['shape/drawings/some', 'Drawings'],
    ['link/tree/SYS-011', 'Trace tree'],
    ['gather/sources/some', 'Sources'],
    ['changes/7', 'Changes'],
  ])('marks the entry that %s was opened from', (rest, name) => {
    at(rest);
    const links = screen.getAllByRole('link').filter((link) => link.closest('[role=group]'));
    expect(links.filter((link) => link.dataset.entry === 'here').map((link) => link.textContent)).toEqual([name]);
  });

  it.each(['', 'shape', 'link/matrix', 'gather/sources/some', 'items/SYS-001'])('lets the stages stand where they are at "%s"', (rest) => {
    at(rest);
    expect(stageLinks().map((link) => link.firstElementChild!.textContent)).toEqual(['Gather', 'Shape', 'Link', 'Check', 'Publish']);
    expect(screen.getByRole('group', { name: 'Views' }).querySelectorAll('a').length).toBeGreaterThan(0);
  });

  it('shows no views of stages elsewhere', () => {
    at('gather');
    expect(screen.queryByText('Trace matrix')).toBeNull();
  });
});

describe('the line at the top', () => {
  usePage();

  it('changes the theme and remembers it', async () => {
    answer(getProject, aProject);
    show(<TopLine here={undefined} project={aProject} onFind={() => {}} onKeys={() => {}} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Dark theme' }));
    expect(document.documentElement.classList.contains('dark')).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Light theme' }));
    expect(document.documentElement.classList.contains('dark')).toBe(false);
    expect(localStorage.getItem('coomb.theme')).toBe('light');
  });

  it('keeps the name that changes are recorded under', async () => {
    localStorage.clear();
    show(<PersonName />);
    await userEvent.click(screen.getByRole('button', { name: 'Who are you?' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Your name' }), 'Ada Brook{Enter}');
    expect(screen.getByRole('button', { name: 'Ada Brook' })).toBeTruthy();
    expect(readPerson()).toBe('Ada Brook');
  });
});

describe('the lens beside the name of the project', () => {
  usePage();
  const lens = {
    id: idOf(71),
    sort: 'lens',
    name: 'Urgent',
    body: { lens: '{}', note: 'For the review', owner: 'Bo Reed', moment: 5 },
    person: 'Ada Brook',
    at: '2026-11-28T10:00:00.000Z',
  };
  const here = (looksThrough: boolean): View => ({
    stage: 'shape',
    name: 'Here',
    help: '',
    path: 'here',
    load: async () => () => null,
    ...(looksThrough && { looksThrough }),
  });
  const open = (looksThrough = true) => {
    answer(getProject, aProject);
    answer(listSavedViews, [lens]);
    answer(lookThrough, { seq: 7, name: 'Urgent', items: 23, nodes: [1, 2], linksWithin: 5, linksAcross: 1, unknown: [] });
    show(<TopLine here={here(looksThrough)} project={aProject} onFind={() => {}} onKeys={() => {}} />);
  };
  afterEach(() => sessionStorage.clear());

  it('is chosen, says what it shows and what leads out of it, and is taken off again', async () => {
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'everything' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Urgent' }));
    expect(await screen.findByText('23 items, 5 links between them; 1 link leads out of it.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'through Urgent' })).toBeTruthy();
    expect([screen.queryByText('For the review') !== null, screen.queryByText('Of Bo Reed, kept by Ada Brook') !== null]).toEqual([true, true]);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'What it does not show' }), 'these are lit, the rest is faint');
    expect(sessionStorage.getItem(`coomb.through.${aProject.id}`)).toBe(JSON.stringify({ lens: lens.id, mode: 'lit' }));
    await userEvent.click(screen.getAllByRole('button', { name: 'Look at everything' })[0]!);
    expect(await screen.findByRole('button', { name: 'everything' })).toBeTruthy();
  });

  it('has a moment of its own that is looked at, where one belongs to it', async () => {
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'everything' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Urgent' }));
    await userEvent.click(await screen.findByRole('button', { name: /Look as of change 5/ }));
    expect(JSON.parse(sessionStorage.getItem(`coomb.moment.${aProject.id}`)!)).toMatchObject({ seq: 5 });
  });

  it('that is kept no more shows everything, and says so', async () => {
    sessionStorage.setItem(`coomb.through.${aProject.id}`, JSON.stringify({ lens: lens.id, mode: 'only' }));
    open();
    answer(lookThrough, () => {
      throw new Refusal('not-found', 'This lens is not kept any more.', 404);
    });
    expect(await screen.findByText('kept no more: all is shown')).toBeTruthy();
  });

  it('is stepped through by a key, and a view that does not look through it says so', async () => {
    open(false);
    await screen.findByRole('button', { name: 'everything' });
    await waitFor(() => expect(calls.some(({ call }) => call.includes('/views'))).toBe(true));
    await userEvent.keyboard('\\');
    expect(await screen.findByRole('button', { name: 'through Urgent' })).toBeTruthy();
    expect(screen.getByText('not here: all is shown')).toBeTruthy();
    await userEvent.keyboard('\\');
    expect(await screen.findByRole('button', { name: 'everything' })).toBeTruthy();
  });
});

describe('the moment beside the name of the project', () => {
  usePage();
  afterEach(() => sessionStorage.clear());
  const change = (seq: number, at: string) => ({ id: idOf(seq), seq, at, person: 'Ada Brook', action: `Edit ${seq}`, changes: 1, undone: false });
  const open = () => {
    answer(getProject, aProject);
    answer(listSavedViews, []);
    answer(listBaselines, [{ id: idOf(90), name: 'First review', note: '', seq: 5, person: 'Ada Brook', at: '2026-11-02T10:00:00.000Z' }]);
    answer(listChanges, [change(9, '2026-11-20T10:00:00.000Z'), change(7, '2026-11-10T10:00:00.000Z'), change(5, '2026-11-02T10:00:00.000Z')]);
    show(<TopLine here={undefined} project={aProject} onFind={() => {}} onKeys={() => {}} />);
  };
  const kept = () => JSON.parse(sessionStorage.getItem(`coomb.moment.${aProject.id}`) ?? 'null') as { seq: number; says: string } | null;

  it('is a baseline, a change or the end of a day; a key leads back to now', async () => {
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'now' }));
    await userEvent.click(await screen.findByRole('button', { name: /First review/ }));
    expect(kept()).toEqual({ seq: 5, says: 'First review' });
    expect(await screen.findByRole('button', { name: 'as of First review' })).toBeTruthy();
    await userEvent.click(await screen.findByRole('button', { name: /7 Edit 7/ }));
    expect(kept()?.seq).toBe(7);
    fireEvent.change(screen.getByLabelText('Day'), { target: { value: '2026-11-15' } });
    await userEvent.click(screen.getByRole('button', { name: 'As of its end' }));
    await waitFor(() => expect(kept()).toEqual({ seq: 7, says: 'the end of 15 Nov 2026' }));
    await userEvent.keyboard('{Alt>}n{/Alt}');
    expect(kept()).toBeNull();
  });

  it('is given a name, also an earlier one', async () => {
    open();
    answer(createBaseline, { id: idOf(91), name: 'Second', note: '', seq: 7, person: 'Ada Brook', at: '2026-11-28T10:00:00.000Z' });
    await userEvent.click(await screen.findByRole('button', { name: 'now' }));
    await userEvent.click(await screen.findByRole('button', { name: /7 Edit 7/ }));
    await userEvent.type(await screen.findByLabelText('Name for this moment'), 'Second');
    await userEvent.click(screen.getByRole('button', { name: 'Name it' }));
    await waitFor(() => expect(sentTo(/baselines$/)).toContainEqual({ name: 'Second', note: '', seq: 7 }));
  });
});

describe('the colour key beside the name of the project', () => {
  usePage();
  afterEach(() => sessionStorage.clear());

  const priorityKey = { shown: { sort: 'field', of: 'priority' }, ranges: false, entries: ['High', 'Low'].map((value) => ({ value, fill: '#0072b2' })) };

  it('is chosen, shows its entries with how many items have each, and what has none; and is taken off', async () => {
    answer(getProject, aProject);
    answer(listSavedViews, [
      { id: idOf(81), sort: 'colourKey', name: 'Priority', body: { key: JSON.stringify(priorityKey) }, person: 'Ada Brook', at: '2026-11-28T10:00:00.000Z' },
    ]);
    answer(readColours, {
      ...{
        seq: 7,
        name: 'Priority',
        about: 'items',
        links: { from: [], to: [], kind: [], entry: [] },
        of: 'Priority',
        items: [['SYS-001'], []],
        unkeyed: [{ value: 'Odd', count: 3 }],
      },
      entries: [
        { value: 'High', label: 'Urgent', fill: '#0072b2', count: 1 },
        { value: 'Low', label: 'Low', fill: '#f0e442', count: 0 },
      ],
    });
    show(
      <FillItems project={aProject.id}>
        <TopLine here={undefined} project={aProject} onFind={() => {}} onKeys={() => {}} />
        <Reference reference="SYS-001" />
        <Reference reference="SYS-002" />
      </FillItems>,
    );
    await userEvent.click(await screen.findByRole('button', { name: 'by state' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Priority' }));
    expect(await screen.findByText('Odd: no entry')).toBeTruthy();
    const list = decodeURIComponent((screen.getByRole('link', { name: '1 item of Urgent' }) as HTMLAnchorElement).href);
    expect(list).toContain('"conditions":[{"way":[],"of":"some","shown":{"sort":"field","of":"priority"},"test":"is","values":["High"]}]');
    const filled = screen.getByText('SYS-001');
    expect([filled.style.background, filled.style.color]).toEqual(['rgb(0, 114, 178)', 'rgb(255, 255, 255)']);
    expect(screen.getByText('SYS-002').style.background).toBe('');
    await userEvent.click(screen.getAllByRole('button', { name: 'Colour by state' })[0]!);
    expect(await screen.findByRole('button', { name: 'by state' })).toBeTruthy();
    expect(screen.getByText('SYS-001').style.background).toBe('');
  });
});
