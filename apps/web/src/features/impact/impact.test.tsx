import { type AffectedItem, getProject, giveErrands, listPersons, readImpact } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { namedAsRegister } from '../../testing/as-register';
import { aBrief, answer, aProject, idOf, presentAddress, Refusal, sentTo, show, usePage } from '../../testing/page';
import { ImpactPage } from './ImpactPage';

const affected = (number: number, distance: number): AffectedItem => ({
  ...{ item: aBrief(number, `Item ${number}`), distance, paths: 2, from: 'SYS-001' },
  way: Array.from({ length: distance }, (_, at) => ({
    phrase: 'leads to',
    reference: `SYS-${String(number - distance + at + 1).padStart(3, '0')}`,
    suspect: false,
    usage: null,
  })),
});

describe('impact', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(giveErrands, { seq: 8, ids: [] });
    answer(readImpact, ({ body }) => {
      const { items } = body as { items: string[] };
      if (items.includes('SYS-404')) throw new Refusal('not-found', 'There is no item SYS-404.', 404);
      return {
        ...{ roots: items.map((_, at) => aBrief(at + 1, 'Root')), suspect: 3, already: 0, upstream: { total: 0, items: [] } },
        downstream: { total: 2, items: [affected(2, 1), affected(3, 2)] },
        stale: [{ item: aBrief(9, 'Stale one'), becomes: 'stale' as const }],
      };
    });
  });
  const open = (query = '?items=SYS-001') => show(<ImpactPage />, { at: `/p/${aProject.id}${query}` });
  const rows = async () =>
    within(await screen.findByRole('grid', { name: 'Impact' }))
      .getAllByRole('row')
      .filter((row) => row.dataset.name !== undefined);

  it('asks which items would change where none is named', async () => {
    open('');
    expect(await screen.findByText('Which items would change?')).toBeTruthy();
    await userEvent.type(screen.getByLabelText('References of further items'), 'SYS-001 SYS-007{Enter}');
    await waitFor(() => expect(sentTo(/impact$/).at(-1)).toEqual({ items: ['SYS-001', 'SYS-007'] }));
  });

  it('opens what would be touched as a register, or what is chosen of it', async () => {
    open();
    await rows();
    expect(namedAsRegister()).toEqual(['SYS-002', 'SYS-003', 'SYS-009']);
    screen.getByRole('grid').focus();
    await userEvent.keyboard('{End} ');
    await screen.findByRole('button', { name: 'Hand 1 on…' });
    expect(namedAsRegister()).toEqual(['SYS-003']);
  });

  it('says what would become of links and evidence, and by which way each item is reached', async () => {
    open();
    expect((await rows()).map((row) => row.getAttribute('data-name'))).toEqual([
      'SYS-009 becomes Stale',
      'SYS-001 → leads to SYS-002',
      'SYS-001 → leads to SYS-002 → leads to SYS-003',
    ]);
    expect(screen.getByText(/3 links would become suspect, 1 verification state would be another/)).toBeTruthy();
  });

  it('is a list or a tree, along chosen links and so far', async () => {
    open();
    await rows();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Links that are followed' }), 'only “verifies”');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'How far' }), '2 links');
    await waitFor(() => expect(sentTo(/impact$/).at(-1)).toEqual({ items: ['SYS-001'], kinds: ['verifies'], most: 2 }));
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Shape' }), 'as a tree');
    await waitFor(() => expect(presentAddress()).toContain('shape=tree'));
  });

  it('is handed on as a list to work off', async () => {
    open();
    await rows();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('{Control>}a{/Control}h');
    await userEvent.type(await screen.findByLabelText('Person'), 'Ida Moss{Enter}');
    await waitFor(() =>
      expect(sentTo(/errands$/)).toEqual([
        { sort: 'look', owner: 'Ida Moss', note: 'Impact of SYS-001', about: [9, 2, 3].map((number) => ({ item: idOf(100 + number) })) },
      ]),
    );
  });

  it('says so of a reference that nobody knows', async () => {
    open('?items=SYS-404');
    expect((await screen.findByRole('alert')).textContent).toContain('There is no item SYS-404.');
  });
});
