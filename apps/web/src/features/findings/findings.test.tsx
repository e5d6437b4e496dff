import {
  type Finding,
  type FindingRule,
  getProject,
  giveErrands,
  listFindings,
  listPersons,
  mendFindings,
  trendFindings,
  waiveFindings,
} from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, presentAddress, sentTo, show, usePage } from '../../testing/page';
import { FindingsPage } from './FindingsPage';

const rule = (id: string, group: FindingRule['group'], open: number): FindingRule => ({
  ...{ id, label: id, explains: `What ${id} asks`, group, weight: 'wrong', open, waived: 0, taken: 0 },
});
const finding = (number: number, of: string, change: Partial<Finding> = {}): Finding => ({
  ...{ key: `${of}:${number}`, rule: of, item: aBrief(number, `Item ${number}`), other: null, links: [idOf(number)], says: `is ${of}` },
  ...{ waiver: null, errand: null, mendings: [{ sort: 'removeLink', at: 0, label: 'Remove the link' }] },
  ...change,
});

describe('the list of findings', () => {
  usePage();
  const all = [finding(1, 'twice'), finding(2, 'twice'), finding(3, 'gap', { mendings: [], links: [] })];
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(listFindings, ({ url }) => {
      const wanted = url.searchParams.get('rule');
      const findings = all.filter((one) => !wanted || one.rule === wanted);
      return { seq: 7, rules: [rule('gap', 'coverage', 1), rule('twice', 'links', 2)], total: findings.length, findings };
    });
    for (const endpoint of [mendFindings, waiveFindings, giveErrands]) answer(endpoint, { seq: 8, ids: [] });
  });
  const rows = async () =>
    within(await screen.findByRole('grid', { name: 'Findings' }))
      .getAllByRole('row')
      .filter((row) => row.dataset.name !== undefined);
  const list = () => screen.getByRole('grid', { name: 'Findings' });

  it('shows what each rule found, and narrows to one', async () => {
    show(<FindingsPage />);
    expect(await rows()).toHaveLength(3);
    expect(screen.getByText('3 findings')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /^gap/ }));
    await waitFor(() => expect(presentAddress()).toContain('rule=gap'));
    await waitFor(async () => expect(await rows()).toHaveLength(1));
  });

  it('mends what is chosen by keys in one step, and leaves out what it cannot', async () => {
    show(<FindingsPage />);
    await rows();
    list().focus();
    await userEvent.keyboard('{Control>}a{/Control}');
    expect(await screen.findByText('3 chosen of 3')).toBeTruthy();
    await userEvent.keyboard('m');
    await waitFor(() =>
      expect(sentTo(/findings\/mend/)).toEqual([
        {
          findings: [
            { key: 'twice:1', sort: 'removeLink', at: 0 },
            { key: 'twice:2', sort: 'removeLink', at: 0 },
          ],
        },
      ]),
    );
    expect(await screen.findByText('Remove the link: 2 findings. Undo takes it back.')).toBeTruthy();
  });

  it('chooses exactly the findings of a range, also those that were never in sight', async () => {
    const many = Array.from({ length: 450 }, (_, at) => finding(at + 1, 'twice'));
    answer(listFindings, ({ url }) => {
      const [offset, limit] = ['offset', 'limit'].map((name) => Number(url.searchParams.get(name)));
      return { seq: 7, rules: [rule('twice', 'links', 450)], total: 450, findings: many.slice(offset, offset! + limit!) };
    });
    show(<FindingsPage />);
    await rows();
    list().focus();
    await userEvent.keyboard('{ArrowDown}{Shift>}{End}{/Shift}');
    expect(await screen.findByText('449 chosen of 450')).toBeTruthy();
    await userEvent.keyboard('m');
    await waitFor(() =>
      expect((sentTo(/findings\/mend/)[0] as { findings: { key: string }[] }).findings.map(({ key }) => key)).toEqual(many.slice(1).map(({ key }) => key)),
    );
  });

  it('says that there is no single step where there is none', async () => {
    show(<FindingsPage />);
    await rows();
    list().focus();
    await userEvent.keyboard('{End}m');
    expect(await screen.findByText(/no single step/)).toBeTruthy();
    expect(sentTo(/findings\/mend/)).toEqual([]);
  });

  it('waives the marked one only with a reason', async () => {
    show(<FindingsPage />);
    await rows();
    list().focus();
    await userEvent.keyboard('{ArrowDown}w');
    const button = await screen.findByRole('button', { name: 'Waive 1 finding' });
    expect(button).toHaveProperty('disabled', true);
    await userEvent.type(screen.getByLabelText('Why is this accepted?'), 'Agreed at review');
    await userEvent.type(screen.getByLabelText(/^Agreed by/), 'Ewan Reed');
    await userEvent.click(button);
    await waitFor(() => expect(sentTo(/findings\/waive/)).toEqual([{ findings: ['twice:2'], reason: 'Agreed at review', approver: 'Ewan Reed', until: null }]));
  });

  it('hands the chosen ones on to a person', async () => {
    show(<FindingsPage />);
    await rows();
    list().focus();
    await userEvent.keyboard(' {ArrowDown} h');
    await userEvent.type(await screen.findByLabelText('Person'), 'Ida Moss{Enter}');
    await waitFor(() =>
      expect(sentTo(/errands$/)).toEqual([
        {
          sort: 'mend',
          owner: 'Ida Moss',
          note: '',
          about: [1, 2].map((number) => ({ item: idOf(100 + number), finding: `twice:${number}`, link: idOf(number) })),
        },
      ]),
    );
  });

  it('draws the trend when asked for it', async () => {
    answer(trendFindings, [
      { seq: 1, at: '2026-11-01T08:00:00.000Z', open: { coverage: 4, evidence: 0, links: 0 } },
      { seq: 7, at: '2026-11-02T08:00:00.000Z', open: { coverage: 1, evidence: 0, links: 2 } },
    ]);
    show(<FindingsPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Trend' }));
    expect(await screen.findByText(/what must be covered 1/)).toBeTruthy();
  });
});
