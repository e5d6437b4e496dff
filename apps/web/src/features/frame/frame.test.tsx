import { cancelJob, findItems, getProject, getUndo, listJobs, listSources, undo } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
import { FindAnything } from '../find/FindAnything';
import { KeysHelp } from './KeysHelp';
import { LedgerStrip } from './LedgerStrip';

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
    expect(await screen.findByText('Here: Ada, Ben')).toBeTruthy();
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
    show(<FindAnything onClose={() => {}} />);
    await screen.findByRole('listbox');
    expect(options().join('\n')).toMatch(/Section[\s\S]*Link: Trace matrix[\s\S]*Read System requirements[\s\S]*Undo your last action/);
  });

  it('puts items first, and opens the chosen one with Enter', async () => {
    const onClose = vi.fn();
    show(<FindAnything onClose={onClose} />);
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
    show(<FindAnything onClose={() => {}} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'rules we');
    await waitFor(() => expect(options()[0]).toContain('Weir rules.docx'));
    await userEvent.keyboard('{Enter}');
    expect(presentAddress()).toBe(`/p/${aProject.id}/gather/sources/${idOf(71)}`);
  });

  it('walks the list with the arrow keys and goes no further than its ends', async () => {
    show(<FindAnything onClose={() => {}} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'readiness');
    await userEvent.keyboard('{ArrowUp}{ArrowDown}{ArrowDown}');
    expect(screen.getAllByRole('option').filter((option) => option.getAttribute('aria-selected') === 'true')).toHaveLength(1);
    await userEvent.keyboard('{Enter}');
    expect(presentAddress()).toBe(`/p/${aProject.id}/check`);
  });

  it('says when nothing is called so', async () => {
    show(<FindAnything onClose={() => {}} />);
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'zzz');
    expect(await screen.findByText(/Nothing says “zzz”/)).toBeTruthy();
  });
});

describe('the help on keys', () => {
  usePage();
  it.each([
    ['', 'Section', 'Move from item to item, layer to layer'],
    ['/link', 'Bench', 'Link the two marked items'],
    ['/link/matrix', 'Trace matrix', 'Next gap'],
    ['/shape/abc', 'Read', 'Edit in place'],
  ])('at "%s" begins with those of %s', async (path, title, key) => {
    show(<KeysHelp onClose={() => {}} />, { path: '/p/:project/*', at: `/p/${aProject.id}${path}` });
    expect(await screen.findByText(title)).toBeTruthy();
    expect(screen.getByText(key)).toBeTruthy();
    expect(screen.getByText('Find anything')).toBeTruthy();
  });
});
