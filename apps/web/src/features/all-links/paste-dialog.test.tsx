import { getProject, pasteLinks } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, Refusal, sentTo, show, usePage } from '../../testing/page';
import { PasteDialog } from './PasteDialog';

type Sent = { text: string; dryRun?: boolean; wait?: boolean };

describe('pasting links', () => {
  usePage();
  let closed = 0;
  const none = { makes: 0, stands: 0, asks: 0, waits: 0, unknown: 0, refused: 0 };
  beforeEach(() => {
    closed = 0;
    answer(getProject, aProject);
    answer(pasteLinks, ({ body }) => {
      const { text, wait } = body as Sent;
      if (text.includes('\u0000')) throw new Refusal('input-invalid', 'The file is not a text file of separated values.', 400);
      return {
        ...{ seq: 8, ids: [], shape: 'pairs' as const },
        counts: { ...none, makes: 1, ...(wait ? { waits: 1 } : { unknown: 1 }) },
        rows: [
          { line: 1, left: 'TC-001', right: 'SYS-001', outcome: 'makes' as const, says: 'TC-001 verifies SYS-001' },
          { line: 2, left: 'TC-999', right: 'SYS-001', outcome: wait ? ('waits' as const) : ('unknown' as const), says: 'there is no TC-999' },
        ],
        passed: [{ line: 3, says: '“TC-003” has nothing at its other end' }],
      };
    });
    show(<PasteDialog project={aProject} onClose={() => closed++} />);
  });
  const paste = async (text: string) => {
    const cells = await screen.findByLabelText('Cells');
    cells.focus();
    await userEvent.paste(text);
  };
  const rows = () =>
    within(screen.getByRole('table', { name: 'Rows' }))
      .getAllByRole('row')
      .map((row) => row.textContent);

  it('says of every row what becomes of it, and stores nothing before it is told to', async () => {
    await paste('TC-001\tSYS-001\nTC-999\tSYS-001\nTC-003');
    expect(await screen.findByText('1 will be made')).toBeTruthy();
    expect(rows()).toEqual([
      '1TC-001SYS-001will be madeTC-001 verifies SYS-001',
      '2TC-999SYS-001not foundthere is no TC-999',
      '3no link: “TC-003” has nothing at its other end',
    ]);
    expect((sentTo(/pasted/) as Sent[]).every(({ dryRun }) => dryRun)).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: '1 not found' }));
    expect(rows()).toEqual(['2TC-999SYS-001not foundthere is no TC-999']);
  });

  it('lets ends wait where asked, and makes what may be made', async () => {
    await paste('TC-001\tSYS-001\nTC-999\tSYS-001');
    await userEvent.click(await screen.findByLabelText('Let them wait for items that are not there yet'));
    await userEvent.selectOptions(screen.getByRole('combobox', { name: /How they are linked/ }), 'left “verifies” right');
    await userEvent.click(await screen.findByRole('button', { name: 'Make 2 links' }));
    await waitFor(() => expect(closed).toBe(1));
    expect(sentTo(/pasted/)).toContainEqual({ text: 'TC-001\tSYS-001\nTC-999\tSYS-001', wait: true, linkKind: 'verifies', reversed: false });
    expect(await screen.findByText('1 link made; 1 end waits. Undo takes it back.')).toBeTruthy();
  });

  it('says what is wrong with cells that cannot be read', async () => {
    await paste('a\u0000b');
    expect((await screen.findByRole('alert')).textContent).toContain('not a text file');
    expect(screen.getByRole('button', { name: 'Make links' })).toHaveProperty('disabled', true);
  });
});
