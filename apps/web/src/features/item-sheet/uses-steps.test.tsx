import { addRelated, createItem, endWaiting, getOutline, getProject, joinWaitingEnd, listUsages, moveItem, setInUsage, type Usage } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { answer, aProject, calls, idOf, Refusal, show, usePage } from '../../testing/page';
import { InUse } from './InUse';
import type { Sheet } from './queries';
import { hasSteps, Steps } from './Steps';
import { WaitingEnds } from './WaitingEnds';

const aSheet = (change: Partial<Sheet>) =>
  ({ id: idOf(21), reference: 'MOD-035', collection: idOf(11), kind: 'value', fields: {}, uses: 2, withdrawn: false, heading: false, ...change }) as Sheet;
const sent = (end: string) => calls.filter(({ call }) => !call.startsWith('GET') && call.endsWith(end)).at(-1);

describe('an item in one of its uses', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));
  const above = (number: number) => ({
    id: idOf(number),
    node: number,
    reference: `MOD-${number}`,
    title: 'Gate',
    kind: 'part',
    collection: idOf(11),
    heading: false,
    withdrawn: false,
    state: 'unplanned' as const,
  });
  const useOf = (number: number, change: Partial<Usage> = {}): Usage => ({
    id: null,
    path: [above(number), { ...above(21), kind: 'value' }],
    says: `gate ${number} › travel`,
    links: 0,
    fields: {},
    gone: false,
    revision: 0,
    ...change,
  });
  const left = useOf(31, { fields: { amount: '1.8 m' }, links: 2, revision: 4 });
  const right = useOf(32);

  function Shown({ sheet }: { sheet: Sheet }) {
    const [use, setUse] = useState<readonly string[]>();
    return <InUse sheet={sheet} use={use} onChoose={setUse} />;
  }
  const open = async (change: Partial<Sheet> = {}, usages = [left, right]) => {
    answer(listUsages, { usages, cut: false });
    show(<Shown sheet={aSheet({ fields: { amount: '2.4 m' }, ...change })} />);
    return screen.findByRole('combobox', { name: 'The use that it is shown in' });
  };

  it('offers every use with what it has of its own, and U goes round them', async () => {
    const choice = (await open()) as HTMLSelectElement;
    expect(
      within(choice)
        .getAllByRole('option')
        .map((option) => option.textContent),
    ).toEqual(['in every use (2)', 'as gate 31 › travel, 2 links of its own', 'as gate 32 › travel']);
    const seen: string[] = [];
    for (let times = 0; times < 3; times++) {
      await userEvent.keyboard('u');
      seen.push(choice.selectedOptions[0]!.textContent!);
    }
    expect(seen).toEqual(['as gate 31 › travel, 2 links of its own', 'as gate 32 › travel', 'in every use (2)']);
  });

  it('says what is so here and what is so elsewhere', async () => {
    await userEvent.selectOptions(await open(), `${idOf(31)},${idOf(21)}`);
    expect(await screen.findByText('1.8 m')).toBeTruthy();
    expect(screen.getByText(/elsewhere/).textContent).toContain('2.4 m');
  });

  it('keeps a value for this use only, with the revision that was seen', async () => {
    answer(setInUsage, { seq: 9, ids: [] });
    await userEvent.selectOptions(await open(), `${idOf(32)},${idOf(21)}`);
    await userEvent.click(await screen.findByRole('button', { name: 'Say what is so here only' }));
    const form = within(screen.getByRole('form', { name: 'Values as gate 32 › travel' }));
    expect(form.getByText(/as everywhere:/).textContent).toContain('2.4 m');
    await userEvent.type(form.getByRole('textbox'), '3.1 m');
    await userEvent.click(form.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(sent('/usages')!.body).toEqual({ path: [idOf(32), idOf(21)], fields: { amount: '3.1 m' }, revision: 0 }));
    await waitFor(() => expect(screen.queryByRole('form')).toBeNull());
  });

  it('goes back to what holds everywhere, and sends nothing where nothing was said', async () => {
    answer(setInUsage, { seq: 9, ids: [] });
    await userEvent.selectOptions(await open(), `${idOf(31)},${idOf(21)}`);
    await userEvent.click(await screen.findByRole('button', { name: 'Change what is so here only' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(sent('/usages')).toBeUndefined();
    await userEvent.click(await screen.findByRole('button', { name: 'Change what is so here only' }));
    await userEvent.click(screen.getByRole('button', { name: 'As everywhere' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(sent('/usages')!.body).toEqual({ path: [idOf(31), idOf(21)], fields: { amount: null }, revision: 4 }));
  });

  it('lets nothing be said of a use that is no more', async () => {
    await userEvent.selectOptions(await open({}, [useOf(31, { gone: true, fields: { amount: '1.8 m' } })]), `${idOf(31)},${idOf(21)}`);
    expect(await screen.findByText('1.8 m')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Change what is so here only' })).toBeNull();
  });
});

describe('ends that wait', () => {
  usePage();
  const waiting = [
    { id: idOf(61), phrase: 'is verified by', target: 'tests.xmi#tc_14' },
    { id: idOf(62), phrase: 'satisfies', target: 'needs.xmi#n_2' },
  ];
  const line = (at: number) => within(screen.getAllByRole('listitem')[at]!);

  it('names the file that has not come, and joins the end that was meant', async () => {
    let refuse = true;
    answer(joinWaitingEnd, () => {
      if (refuse) throw new Refusal('not-found', 'There is no item TC-140', 404);
      return { seq: 9, ids: [idOf(71)] };
    });
    show(<WaitingEnds project={aProject.id} waiting={waiting} />);
    expect(line(1).getByText('n_2 in needs.xmi, which has not come yet')).toBeTruthy();
    await userEvent.click(line(1).getByRole('button', { name: 'Join' }));
    expect(line(0).queryByRole('textbox')).toBeNull();
    const field = line(1).getByRole('textbox', { name: 'Reference of the item that it is' });
    expect(line(1).getByRole('button', { name: 'Link it' })).toHaveProperty('disabled', true);
    await userEvent.type(field, ' TC-140 {Enter}');
    expect(await screen.findByText(/There is no item TC-140/)).toBeTruthy();
    expect(field).toHaveProperty('value', ' TC-140 ');
    refuse = false;
    await userEvent.type(field, '{Enter}');
    await waitFor(() => expect(sent(`/waiting-ends/${idOf(62)}/join`)!.body).toEqual({ item: 'TC-140' }));
    expect(await screen.findByText('Linked.')).toBeTruthy();
  });

  it('lets go of one and not of the other', async () => {
    answer(endWaiting, { seq: 9, ids: [] });
    show(<WaitingEnds project={aProject.id} waiting={waiting} />);
    await userEvent.click(line(0).getByRole('button', { name: 'Let go' }));
    await waitFor(() => expect(sent(`/waiting-ends/${idOf(61)}/let-go`)).toBeTruthy());
    expect(sent(`/waiting-ends/${idOf(62)}/let-go`)).toBeUndefined();
  });
});

describe('a use case in steps', () => {
  usePage();
  const kindAt = (id: string) => aProject.scheme.kinds.findIndex((kind) => kind.id === id);
  const lines = [{ reference: 'UC-1' }, { reference: 'ST-1', parent: 0 }, { reference: 'ST-2', parent: 0 }, { reference: 'ST-3', parent: 0 }];
  const outline = {
    ...outlineOf(lines),
    id: lines.map((_, row) => idOf(80 + row)),
    title: ['Lower the gate', 'Ask for it', 'Warn the bank', 'Move'],
    kind: ['useCase', 'step', 'step', 'step'].map(kindAt),
    up: [0, 0, 2, 0],
  };
  const useCase = aSheet({ id: idOf(80), reference: 'UC-1', kind: 'useCase' });
  beforeEach(() => {
    answer(getProject, aProject);
    answer(getOutline, outline);
  });
  const open = async (sheet = useCase) => {
    show(<Steps sheet={sheet} />);
    return within(await screen.findByRole('list', { name: 'Steps of UC-1' }));
  };

  it('is what use cases and steps are written as, and headings are not', () => {
    const said = (kind: string, heading = false) => hasSteps(aProject.scheme, { kind, heading });
    expect([said('useCase'), said('step'), said('requirement'), said('useCase', true)]).toEqual([true, true, false, false]);
  });

  it('numbers them in reading order, with their links', async () => {
    const list = await open();
    expect(list.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
      expect.stringMatching(/^1Ask for it.*no link/),
      expect.stringMatching(/^2Warn the bank.*2 links/),
      expect.stringMatching(/^3Move.*no link/),
    ]);
  });

  it('adds the next one behind the last, and takes the one after it', async () => {
    answer(createItem, { ...useCase, id: idOf(90), node: 1, title: 'x', html: '', parent: null, revision: 1 } as never);
    const list = await open();
    await userEvent.type(list.getByRole('textbox', { name: 'The next step' }), 'Lock it{Enter}');
    await waitFor(() =>
      expect(sent('/items')!.body).toMatchObject({ collection: idOf(11), kind: 'step', title: 'Lock it', parent: idOf(80), after: idOf(83) }),
    );
  });

  it('puts them in another order: to the front, up and down', async () => {
    answer(moveItem, { seq: 9, ids: [] });
    const list = await open();
    expect(list.getByRole('button', { name: 'Move step up: Ask for it' })).toHaveProperty('disabled', true);
    expect(list.getByRole('button', { name: 'Move step down: Move' })).toHaveProperty('disabled', true);
    const press = async (name: string) => {
      await userEvent.click(list.getByRole('button', { name }));
      await waitFor(() => expect(sent('/move')).toBeTruthy());
      const { call, body } = calls.splice(
        calls.findIndex((one) => one.call.endsWith('/move')),
        1,
      )[0]!;
      return [call.split('/').at(-2), body];
    };
    expect(await press('Move step up: Warn the bank')).toEqual([idOf(82), { parent: idOf(80), after: null }]);
    expect(await press('Move step up: Move')).toEqual([idOf(83), { parent: idOf(80), after: idOf(81) }]);
    expect(await press('Move step down: Ask for it')).toEqual([idOf(81), { parent: idOf(80), after: idOf(82) }]);
  });

  it('makes a requirement of the step that was chosen, linked from the beginning', async () => {
    answer(addRelated, { seq: 9, item: idOf(91), reference: 'SYS-050' });
    const list = await open();
    await userEvent.click(list.getAllByRole('button', { name: 'Requirement…' })[1]!);
    const title = list.getByRole('textbox', { name: 'Title of the requirement' });
    expect(title).toHaveProperty('value', 'Warn the bank');
    await userEvent.type(title, ' with a horn{Enter}');
    await waitFor(() => expect(sent(`/items/${idOf(82)}/related`)!.body).toMatchObject({ title: 'Warn the bank with a horn', kind: 'requirement' }));
    expect(await screen.findByText(/SYS-050 was made/)).toBeTruthy();
    await waitFor(() => expect(list.queryByRole('textbox', { name: 'Title of the requirement' })).toBeNull());
  });

  it('is read only once it was withdrawn', async () => {
    const list = await open({ ...useCase, withdrawn: true });
    expect(list.queryByRole('textbox', { name: 'The next step' })).toBeNull();
  });
});
