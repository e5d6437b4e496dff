import { createReport, getOutline, getProject, listReports, readColours } from '@coomb/contract';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
import { ReportsPage } from './ReportsPage';

const report = { id: idOf(61), number: 2, title: 'Status in November', at: '2026-11-20T10:00:00.000Z', person: 'Ada Brook', seq: 5, stale: true };

describe('the list of reports', () => {
  usePage();
  beforeEach(() => {
    localStorage.clear();
    answer(getProject, aProject);
    answer(getOutline, {
      ...Object.fromEntries(['node', 'kind', 'state', 'up', 'down', 'suspect', 'gaps'].map((name) => [name, [0, 0, 0, 0]])),
      seq: 7,
      life: 'one',
      day: '2026-11-27',
      id: [idOf(21), idOf(22), idOf(23), idOf(24)],
      reference: ['', 'SYS-001', '', 'TC-001'],
      clause: [],
      title: ['Gates', 'Close', 'Pumps', 'Try'],
      kinds: aProject.scheme.kinds.map((kind) => kind.id),
      collections: aProject.collections.map((one) => one.id),
      kind: [1, 1, 1, 11],
      collection: [0, 0, 0, 1],
      parent: [-1, 0, -1, -1],
      heading: [1, 0, 1, 0],
    } as never);
  });

  it('says of each how much changed since', async () => {
    answer(listReports, [report, { ...report, id: idOf(62), number: 1, seq: 7, stale: false, title: 'Now' }] as never);
    show(<ReportsPage />);
    expect(await screen.findByText('2 changes since')).toBeTruthy();
    expect(screen.getByText('up to date')).toBeTruthy();
    expect(screen.getAllByRole('link', { name: '.docx' })[0]!.getAttribute('href')).toContain(`/reports/${report.id}`);
  });

  it('publishes title and note, and opens what came of it', async () => {
    answer(listReports, []);
    answer(createReport, { ...report, stale: false } as never);
    show(<ReportsPage />);
    const title = await screen.findByRole('textbox', { name: 'Title of the report' });
    await userEvent.clear(title);
    expect(screen.getByRole('button', { name: 'Publish now' })).toHaveProperty('disabled', true);
    await userEvent.type(title, 'Status in November');
    await userEvent.type(screen.getByRole('textbox', { name: 'Note for the cover' }), 'For the board.');
    await userEvent.click(screen.getByRole('button', { name: 'Publish now' }));
    await waitFor(() => expect(presentAddress()).toBe(`/p/${aProject.id}/publish/${report.id}`));
    expect(calls.find(({ call }) => call.startsWith('POST'))!.body).toEqual({ title: 'Status in November', note: 'For the board.' });
  });

  it('has the colours of the key that is on, unless that is not wanted', async () => {
    sessionStorage.setItem(`coomb.colours.${aProject.id}`, idOf(60));
    answer(readColours, {
      ...{ seq: 7, name: 'Priority', about: 'items', of: 'Priority', unkeyed: [], items: [[]], links: { from: [], to: [], kind: [], entry: [] } },
      entries: [{ value: 'High', label: 'High', fill: '#0072b2', count: 0 }],
    });
    answer(listReports, []);
    answer(createReport, { ...report, stale: false } as never);
    show(<ReportsPage />);
    await screen.findByRole('checkbox', { name: /coloured by “Priority”/ });
    await userEvent.click(screen.getByRole('button', { name: 'Publish now' }));
    const sent = () => calls.filter(({ call }) => call.startsWith('POST')).map(({ body }) => body);
    await waitFor(() => expect(sent()).toMatchObject([{ key: idOf(60) }]));
    cleanup();
    show(<ReportsPage />);
    await userEvent.click(await screen.findByRole('checkbox', { name: /coloured by “Priority”/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Publish now' }));
    await waitFor(() => expect(sent()).toHaveLength(2));
    expect(sent()[1]).not.toHaveProperty('key');
    sessionStorage.clear();
  });

  it('is about the collections and sections that are chosen, with the matrices asked for', async () => {
    answer(listReports, []);
    answer(createReport, { ...report, stale: false } as never);
    show(<ReportsPage />);
    const tick = async (name: string) => userEvent.click(await screen.findByRole('checkbox', { name }));
    await tick('Gate tests');
    await tick('Trace matrix of System requirements');
    await userEvent.click(screen.getByRole('button', { name: 'Sections of System requirements' }));
    await tick('Pumps');
    await userEvent.click(screen.getByRole('button', { name: 'Publish now' }));
    const sent = () => calls.filter(({ call }) => call.startsWith('POST')).at(-1)!.body;
    const [system] = aProject.collections;
    await waitFor(() =>
      expect(sent()).toEqual({ title: 'Verification status', note: '', collections: [system!.id], sections: [idOf(21)], matrices: [system!.id] }),
    );
  });

  it('is about everything where nothing is left out, and about something at least', async () => {
    answer(listReports, []);
    answer(createReport, { ...report, stale: false } as never);
    show(<ReportsPage />);
    const tick = async (name: string) => userEvent.click(await screen.findByRole('checkbox', { name }));
    const publish = () => screen.getByRole('button', { name: 'Publish now' });
    await tick('System requirements');
    await tick('Gate tests');
    expect(publish()).toHaveProperty('disabled', true);
    await tick('Gate tests');
    await tick('System requirements');
    await userEvent.click(publish());
    await waitFor(() => expect(calls.find(({ call }) => call.startsWith('POST'))?.body).toEqual({ title: 'Verification status', note: '' }));
  });

  it('keeps title and note when publishing fails', async () => {
    answer(listReports, []);
    answer(createReport, () => {
      throw new Refusal('internal', 'The report could not be written.', 500);
    });
    show(<ReportsPage />);
    await userEvent.type(await screen.findByRole('textbox', { name: 'Note for the cover' }), 'For the board.');
    await userEvent.click(screen.getByRole('button', { name: 'Publish now' }));
    expect(await screen.findByText('The report could not be written.')).toBeTruthy();
    expect((screen.getByRole('textbox', { name: 'Note for the cover' }) as HTMLTextAreaElement).value).toBe('For the board.');
  });

  it('keeps a note over another view until it is sent', async () => {
    answer(listReports, []);
    const first = show(<ReportsPage />);
    await userEvent.type(await screen.findByRole('textbox', { name: 'Note for the cover' }), 'For the board.');
    first.unmount();
    const second = show(<ReportsPage />);
    const note = () => screen.getByRole('textbox', { name: 'Note for the cover' }) as HTMLTextAreaElement;
    await screen.findByRole('button', { name: 'Publish now' });
    expect(note().value).toBe('For the board.');
    answer(createReport, { ...report, stale: false } as never);
    await userEvent.click(screen.getByRole('button', { name: 'Publish now' }));
    // The report opens: the note of the next one is empty.
    await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Note for the cover' })).toBeNull());
    second.unmount();
    show(<ReportsPage />);
    await screen.findByRole('button', { name: 'Publish now' });
    expect(note().value).toBe('');
  });
});
