import { type Errand, getProject, giveErrands, listErrands, listPersons, settleErrands } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { namedAsRegister } from '../../testing/as-register';
import { aBrief, answer, aProject, idOf, presentAddress, sentTo, show, usePage } from '../../testing/page';
import { errandWords, ruleOf } from './errand-words';
import { InHandPage } from './InHandPage';

const errand = (number: number, change: Partial<Errand> = {}) => ({
  ...{ id: idOf(number), sort: 'mend' as const, item: idOf(100 + number), link: null, finding: `gap:tested:${idOf(100 + number)}`, note: 'by Friday' },
  ...{ owner: 'Ada Wick', giver: 'Ewan Reed', at: '2026-11-01T08:00:00.000Z', done: false },
  ...change,
  about: aBrief(number, `Item ${number}`),
  stands: number !== 3,
});

describe('what is in hand', () => {
  usePage();
  beforeEach(() => {
    localStorage.setItem('coomb.person', 'Ada Wick');
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(listErrands, [errand(1), errand(2, { owner: 'Ida Moss', giver: 'Ada Wick' }), errand(3)]);
    for (const endpoint of [giveErrands, settleErrands]) answer(endpoint, { seq: 8, ids: [] });
  });
  const rows = async () =>
    within(await screen.findByRole('grid', { name: 'In hand' }))
      .getAllByRole('row')
      .filter((row) => row.dataset.name !== undefined)
      .map((row) => row.getAttribute('data-name'));

  it('is what I have, what I handed on, or what anybody has', async () => {
    show(<InHandPage />);
    expect(await rows()).toEqual(['mend SYS-001', 'mend SYS-003']);
    expect(screen.getAllByText('mended')).toHaveLength(1);
    expect(screen.getAllByText('misses “Tested”: by Friday')).toHaveLength(2);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'In whose hand' }), 'handed on by me');
    await waitFor(async () => expect(await rows()).toEqual(['mend SYS-002']));
    expect(presentAddress()).toContain('whose=given');
  });

  it('opens its items as a register', async () => {
    show(<InHandPage />);
    await rows();
    expect(namedAsRegister()).toEqual(['SYS-001', 'SYS-003']);
  });

  it('is said to be done by one key, many at once', async () => {
    show(<InHandPage />);
    await rows();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('{Control>}a{/Control}d');
    await waitFor(() => expect(sentTo(/settle/)).toEqual([{ errands: [idOf(1), idOf(3)], done: true }]));
  });

  it('is taken on from others, staying what it was', async () => {
    show(<InHandPage />, { at: `/p/${aProject.id}?whose=all` });
    await rows();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('{ArrowDown}t');
    await waitFor(() =>
      expect(sentTo(/errands$/)).toEqual([
        { sort: 'mend', owner: 'Ada Wick', note: 'by Friday', about: [{ item: idOf(102), finding: `gap:tested:${idOf(102)}` }] },
      ]),
    );
  });

  it('leads to where it is worked off', () => {
    expect(errandWords.mend.goesTo(errand(1))).toBe('check/findings?rule=gap%3Atested&state=taken');
    expect(errandWords.look.goesTo(errand(1))).toBe('items/SYS-001');
    expect(ruleOf('both-ways:a+b')).toBe('both-ways');
    expect(ruleOf(null)).toBe('');
  });
});
