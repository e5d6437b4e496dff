import { confirmLinks, getItem, getLinkDifference, getProject, listPersons, listSuspects, type SuspectGroup } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { namedAsRegister } from '../../testing/as-register';
import { aBrief, answer, aProject, idOf, Refusal, sentTo, show, usePage } from '../../testing/page';
import { SuspectsPage } from './SuspectsPage';

const link = (number: number) => ({
  ...{ id: idOf(number), phrase: 'is verified by', other: aBrief(number, `Test ${number}`), since: 1, both: false, usage: null, errand: null },
});
const group = (number: number, ...links: number[]): SuspectGroup => ({
  ...{ item: aBrief(number, `Requirement ${number}`), seq: number, at: '2026-11-01T08:00:00.000Z', person: 'Maren Holt', action: `Edit SYS-${number}` },
  links: links.map(link),
});

describe('the suspect queue', () => {
  usePage();
  let groups: SuspectGroup[] = [];
  beforeEach(() => {
    groups = [group(50, 1, 2), group(60, 3)];
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(listSuspects, () => ({ seq: 7, links: groups.flatMap(({ links }) => links).length, total: groups.length, groups }));
    answer(getItem, () => {
      throw new Refusal('not-found', 'Not asked here', 404);
    });
    answer(getLinkDifference, ({ url }) => ({
      linkKind: 'verifies',
      confirmedBy: 'Ada Wick',
      ends: [
        {
          item: groups[0]?.item ?? aBrief(50, 'x'),
          words: [
            { type: 'removed' as const, text: `old ${url.pathname.slice(-14, -11)}` },
            { type: 'added' as const, text: 'new words' },
          ],
          changedBy: 'Maren Holt',
        },
      ],
    }));
    answer(confirmLinks, ({ body }) => {
      const { links: done } = body as { links: string[] };
      groups = groups.map((one) => ({ ...one, links: one.links.filter(({ id }) => !done.includes(id)) })).filter(({ links }) => links.length > 0);
      return { seq: 8, ids: [] };
    });
  });
  const rows = async () =>
    within(await screen.findByRole('grid', { name: 'Suspect links' }))
      .getAllByRole('row')
      .filter((row) => row.dataset.name !== undefined);

  it('opens what the links join as a register, each item once', async () => {
    show(<SuspectsPage />);
    await rows();
    expect(namedAsRegister()).toEqual(['SYS-050', 'SYS-001', 'SYS-002', 'SYS-060', 'SYS-003']);
  });

  it('shows each change with its links, and what changed beside the marked one', async () => {
    show(<SuspectsPage />);
    expect((await rows()).map((row) => row.getAttribute('data-name'))).toEqual([
      'SYS-050 is verified by SYS-001 Test 1',
      'SYS-050 is verified by SYS-002 Test 2',
      'SYS-060 is verified by SYS-003 Test 3',
    ]);
    expect(screen.getByText('3 links from 2 changes')).toBeTruthy();
    expect(await screen.findByText('new words')).toBeTruthy();
  });

  it('confirms link after link by one key, and goes on at the next', async () => {
    show(<SuspectsPage />);
    await rows();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('c');
    await waitFor(async () => expect(await rows()).toHaveLength(2));
    await userEvent.keyboard('c');
    await waitFor(async () => expect(await rows()).toHaveLength(1));
    await userEvent.keyboard('c');
    expect(await screen.findByText('No link is suspect')).toBeTruthy();
    expect(sentTo(/links\/confirm/)).toEqual([1, 2, 3].map((number) => ({ links: [idOf(number)], reason: '' })));
  });

  it('asks for a reason before it confirms all links of a change', async () => {
    show(<SuspectsPage />);
    await rows();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('gc');
    expect(await screen.findByText(/links of SYS-050/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText('Why'), 'Only a unit changed');
    await userEvent.click(screen.getByRole('button', { name: 'Confirm 2 links' }));
    await waitFor(() => expect(sentTo(/links\/confirm/)).toEqual([{ links: [idOf(1), idOf(2)], reason: 'Only a unit changed' }]));
  });

  it('says when a text moved on meanwhile, and keeps what was chosen', async () => {
    answer(confirmLinks, () => {
      throw new Refusal('changed-meanwhile', 'SYS-050 came to say something else since you looked. Nothing was confirmed; read the difference again.');
    });
    show(<SuspectsPage />);
    await rows();
    screen.getByRole('grid').focus();
    await userEvent.keyboard('c');
    expect((await screen.findByRole('alert')).textContent).toContain('Nothing was confirmed');
    expect(await rows()).toHaveLength(3);
  });
});
