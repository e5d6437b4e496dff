import { createReport, getProject, listReports } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
import { ReportsPage } from './ReportsPage';

const report = { id: idOf(61), number: 2, title: 'Status in November', at: '2026-11-20T10:00:00.000Z', person: 'Ada Brook', seq: 5, stale: true };

describe('the list of reports', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));

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
});
