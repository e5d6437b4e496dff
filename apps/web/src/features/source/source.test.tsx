import { clipPassage, getProject, readSource, removeClipping } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, show, usePage } from '../../testing/page';
import type { SourceReading } from './queries';
import { SourcePage } from './SourcePage';

const item = (number: number, title = 'Gate') => ({
  id: idOf(100 + number),
  node: number,
  reference: `SYS-00${number}`,
  title,
  kind: 'requirement',
  collection: idOf(11),
  heading: false,
  withdrawn: false,
  state: 'unplanned' as const,
});
const paragraph = (at: number, text: string, level = 0) => ({ type: 'paragraph' as const, at, level, text, html: text });
const reading: SourceReading = {
  id: idOf(60),
  name: 'Walkway.md',
  label: 'Markdown',
  importedAt: '2026-11-20T10:00:00.000Z',
  importedBy: 'Ada Brook',
  newer: null,
  content: {
    type: 'document',
    blocks: [paragraph(1, 'Walkway', 1), paragraph(2, 'The walkway shall carry four people. It is oak.'), paragraph(3, 'Lamps must burn. See SYS-001.')],
  },
  items: [],
  clippings: [],
  lost: [],
  issues: [],
};

describe('a stored source', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));
  const open = async (change: Partial<SourceReading> = {}, query = '') => {
    answer(readSource, { ...reading, ...change });
    show(<SourcePage />, { path: '/p/:project/gather/sources/:source', at: `/p/${aProject.id}/gather/sources/${reading.id}${query}` });
    await screen.findByRole('heading', { name: reading.name });
  };
  const made = { seq: 8, links: 0, issues: [], item: { ...item(5), collection: idOf(11), html: '', fields: {}, parent: null, revision: 1 } };

  it('walks the binding sentences that nothing accounts for, and makes items of them', async () => {
    answer(clipPassage, made as never);
    await open();
    expect(screen.getByText('2 of 2 sentences with')).toBeTruthy();
    expect(screen.getByText('0 %')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Next one' }));
    await userEvent.click(screen.getByRole('button', { name: 'Make an item' }));
    await waitFor(() =>
      expect(calls.filter(({ call }) => call.endsWith('/clip')).at(-1)!.body).toEqual({
        passages: [{ block: 1, start: 0, end: 36, quote: 'The walkway shall carry four people.' }],
        html: '<p>The walkway shall carry four people.</p>',
        as: 'item',
        collection: idOf(11),
      }),
    );
    expect(await screen.findByRole('button', { name: 'Below SYS-005' })).toBeTruthy();
  });

  it('follows keys and other binding words', async () => {
    answer(clipPassage, made as never);
    await open();
    const words = screen.getByRole('textbox', { name: 'Binding words' });
    await userEvent.clear(words);
    await userEvent.type(words, 'is');
    expect(screen.getByText('1 of 1 sentences with')).toBeTruthy();
    await userEvent.click(document.body);
    await userEvent.keyboard('n');
    expect(screen.getByText('It is oak.')).toBeTruthy();
    await userEvent.keyboard('i');
    await waitFor(() => expect(calls.at(-1)!.call).toContain('GET'));
    expect(calls.filter(({ call }) => call.endsWith('/clip')).at(-1)!.body).toMatchObject({ passages: [{ quote: 'It is oak.', start: 37 }] });
  });

  it('selects sentences by keys, over the end of a paragraph, and clips them as one', async () => {
    answer(clipPassage, made as never);
    await open();
    await userEvent.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{Shift>}{ArrowDown}{/Shift}');
    expect(screen.getByText(/It is oak\.\s+Lamps must burn\./)).toBeTruthy();
    await userEvent.keyboard('{Shift>}{ArrowLeft}{/Shift}i');
    await waitFor(() =>
      expect(calls.filter(({ call }) => call.endsWith('/clip')).at(-1)?.body).toMatchObject({
        passages: [
          { block: 1, quote: 'It is oak.' },
          { block: 2, quote: 'Lamps must' },
        ],
        html: '<p>It is oak.</p><p>Lamps must</p>',
      }),
    );
  });

  it('says so when nothing is selected', async () => {
    await open();
    expect((screen.getByRole('button', { name: 'Make an item' }) as HTMLButtonElement).disabled).toBe(true);
    await userEvent.keyboard('i');
    expect(await screen.findByText('Select a passage in the text first.')).toBeTruthy();
    expect(calls.some(({ call }) => call.endsWith('/clip'))).toBe(false);
  });

  it('counts what is clipped, lets it go again, and lists what a newer version lost', async () => {
    answer(removeClipping, { seq: 8, ids: [idOf(70)] });
    const clipping = { id: idOf(70), block: 1, start: 0, end: 36, quote: 'The walkway shall carry four people.', field: 'text', item: item(1) };
    await open({ clippings: [clipping], lost: [{ ...clipping, id: idOf(71), quote: 'Gone words.', item: item(2) }] });
    expect(screen.getByText('1 of 2 sentences with')).toBeTruthy();
    expect(screen.getByText('Not found in this version: 1')).toBeTruthy();
    expect(screen.getByText('Gone words.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Let go of “Gone words.”' })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /Let go of “The walkway/ }));
    await waitFor(() => expect(calls.some(({ call }) => call === `POST /projects/${aProject.id}/clippings/${idOf(70)}/remove`)).toBe(true));
  });

  it('shows an item in a sheet at its row, and in a file of elements at its line', async () => {
    await open(
      {
        content: {
          type: 'sheets',
          sheets: [
            {
              name: 'A',
              rows: [
                ['ID', 'Title'],
                ['A-1', 'Gate'],
              ],
            },
          ],
        },
        items: [{ item: item(1), place: { sheet: 'A', row: 1, says: 'A, row 2' }, line: null }],
      },
      '?at=SYS-001',
    );
    const current = async () => (await screen.findAllByRole('listitem')).find((row) => row.getAttribute('aria-current'))!.textContent;
    expect(await current()).toContain('SYS-0012A-1Gate');
    expect(screen.getByText('1 of 2 rows that hold something became an item or a section.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Next one' }));
    expect(await current()).toContain('IDTitle');
  });

  it('leads to the newer version', async () => {
    await open({ newer: idOf(61) }, '?at=SYS-001');
    expect(screen.getByRole('link', { name: 'There is a newer version' }).getAttribute('href')).toBe(`/p/${aProject.id}/gather/sources/${idOf(61)}?at=SYS-001`);
  });
});
