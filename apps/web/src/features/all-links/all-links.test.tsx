import {
  changeLinks,
  findLinkIds,
  getProject,
  type ListedLink,
  listPersons,
  lookThrough as lookThroughEndpoint,
  queryLinks,
  removeLinks,
} from '@coomb/contract';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { lookThrough } from '../../shared/lens/through';
import { aBrief, answer, aProject, calls, idOf, presentAddress, sentTo, show, usePage } from '../../testing/page';
import { AllLinksPage } from './AllLinksPage';

const link = (number: number): ListedLink => ({
  ...{ id: idOf(number), revision: 1, kind: number % 2 ? 'verifies' : 'derives', from: aBrief(number, `Item ${number}`), to: aBrief(900, 'Target') },
  ...{ suspect: number === 1, origin: 'made', person: 'Ada Wick', at: '2026-11-01T08:00:00.000Z', fromUse: null, toUse: null, fields: {} },
});

describe('all links', () => {
  usePage();
  const total = 250;
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(queryLinks, ({ url }) => {
      const [offset, limit] = ['offset', 'limit'].map((name) => Number(url.searchParams.get(name)));
      const wanted = url.searchParams.get('kind');
      const all = Array.from({ length: total }, (_, at) => link(at + 1)).filter(({ kind }) => !wanted || kind === wanted);
      const counts = [
        { id: 'verifies', count: 125 },
        { id: 'derives', count: 125 },
      ];
      return {
        ...{ seq: 7, all: total, total: all.length, groups: url.searchParams.get('group') === 'kind' ? counts : [], offset: offset! },
        counts: {
          kind: counts,
          origin: [],
          person: [],
          layers: [],
          state: [{ id: 'suspect', count: 1 }],
          use: [{ id: 'Weir › North gate', count: 2 }],
          value: [{ id: 'High', count: 3 }],
        },
        rows: all.slice(offset, offset! + limit!),
      };
    });
    answer(
      findLinkIds,
      Array.from({ length: total }, (_, at) => idOf(at + 1)),
    );
    answer(removeLinks, { seq: 8, ids: [] });
  });
  const list = async () => screen.findByRole('grid', { name: 'All links' });
  const names = async () =>
    within(await list())
      .getAllByRole('row')
      .filter((row) => row.dataset.name !== undefined)
      .map((row) => row.getAttribute('data-name'));

  it('chooses nothing any more once another lens is looked through, or what is listed is another', async () => {
    answer(lookThroughEndpoint, { seq: 1, name: 'Gates', items: 1, nodes: [1], linksWithin: 0, linksAcross: 1, unknown: [] });
    show(<AllLinksPage />);
    await names();
    const choose = async () => {
      (await list()).focus();
      await userEvent.keyboard(' ');
      expect(await screen.findByText('1 chosen')).toBeTruthy();
    };
    await choose();
    act(() => lookThrough(aProject.id, { lens: idOf(71), mode: 'only' }));
    expect(await screen.findByText('None chosen')).toBeTruthy();
    await waitFor(() => expect(calls.some(({ call }) => call.includes('/lenses/'))).toBe(true));
    expect(await screen.findByText('250 of 250 links, of which an end is seen through “Gates”')).toBeTruthy();
    await choose();
    act(() => lookThrough(aProject.id, undefined));
    expect(await screen.findByText('None chosen')).toBeTruthy();
  });

  it('asks for what lies in sight only, and says how many there are', async () => {
    show(<AllLinksPage />);
    expect((await names())[0]).toBe('SYS-001 verifies SYS-900');
    expect(screen.getByText('250 of 250 links')).toBeTruthy();
    expect(calls.filter(({ call }) => call.endsWith('/link-list'))).toHaveLength(1);
  });

  it('narrows by what is chosen, which stays in the address', async () => {
    show(<AllLinksPage />);
    await list();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Kind of link' }), 'verifies (125)');
    await waitFor(() => expect(presentAddress()).toContain('kind=verifies'));
    expect(await screen.findByText('125 of 250 links')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'All links' }));
    await waitFor(() => expect(presentAddress()).not.toContain('kind'));
  });

  it('is narrowed by a use, and by what an end says in a field: its values are offered once it is chosen', async () => {
    show(<AllLinksPage />);
    await list();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'In use' }), 'Weir › North gate (2)');
    await waitFor(() => expect(presentAddress()).toContain('use=Weir'));
    expect(screen.queryByRole('combobox', { name: 'Value of the field' })).toBeNull();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Field of an end' }), 'whose Priority is');
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Value of the field' }), 'High (3)');
    await waitFor(() => expect(presentAddress()).toMatch(/field=priority.*value=High/));
    await userEvent.click(screen.getByRole('button', { name: 'All links' }));
    await waitFor(() => expect(presentAddress()).not.toMatch(/use=|field=|value=/));
  });

  it('chooses all that the filter leaves, also what was never in sight, before something is done to all', async () => {
    show(<AllLinksPage />);
    (await list()).focus();
    await userEvent.keyboard('{Control>}a{/Control}');
    expect(await screen.findByText('250 chosen')).toBeTruthy();
    await userEvent.keyboard('{Delete}');
    await waitFor(() => expect((sentTo(/links\/remove/)[0] as { links: string[] }).links).toHaveLength(total));
  });

  it('chooses exactly the rows of a range, also those that were never in sight', async () => {
    show(<AllLinksPage />);
    (await list()).focus();
    await userEvent.keyboard('{PageDown}{Shift>}{End}{/Shift}');
    expect(await screen.findByText('235 chosen')).toBeTruthy();
    await userEvent.keyboard('{Delete}');
    await waitFor(() =>
      expect((sentTo(/links\/remove/)[0] as { links: string[] }).links.toSorted()).toEqual(Array.from({ length: 235 }, (_, at) => idOf(16 + at))),
    );
  });

  it('groups with counts, and folds a group', async () => {
    show(<AllLinksPage />, { at: `/p/${aProject.id}?group=kind` });
    const group = await screen.findByRole('button', { name: /verifies\s*125/ });
    const before = (await names()).length;
    await userEvent.click(group);
    expect(group.getAttribute('aria-expanded')).toBe('false');
    expect((await names()).length).toBeLessThanOrEqual(before);
    expect(screen.getByRole('button', { name: /is derived from\s*125/ })).toBeTruthy();
  });

  it('says what a change would do before it is made: what it changes, and what it leaves', async () => {
    answer(changeLinks, ({ body }) => ({
      ...{ seq: 8, ids: [] },
      ...{ changed: 1, refused: (body as { dryRun?: boolean }).dryRun ? [{ link: idOf(2), says: 'SYS-002 – SYS-900 would be said twice' }] : [] },
    }));
    show(<AllLinksPage />);
    (await list()).focus();
    await userEvent.keyboard(' {ArrowDown} e');
    await userEvent.click(await screen.findByText('Hang an end elsewhere'));
    await userEvent.type(screen.getByLabelText('Reference of the item to hang it on'), 'SYS-042');
    expect(await screen.findByText('SYS-002 – SYS-900 would be said twice')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Change 1' }));
    await waitFor(() =>
      expect(sentTo(/links\/change/)).toContainEqual({
        links: [idOf(1), idOf(2)],
        change: { sort: 'end', end: 'to', item: 'SYS-042' },
        skipRefused: true,
      }),
    );
  });
});
