import {
  getOutline,
  getOutlineSince,
  getProject,
  keepView,
  listSavedViews,
  makeGroups,
  orderStructure,
  proposeStructure,
  readLinkNumbers,
  readMatrix,
} from '@coomb/contract';
import { packEntries } from '@coomb/core';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { namedAsRegister } from '../../testing/as-register';
import { answer, aProject, idOf, presentAddress, Refusal, sentTo, show, usePage } from '../../testing/page';
import { StructurePage } from './StructurePage';

const outline = outlineOf([
  { reference: 'Weir', heading: true },
  { reference: 'GATE', parent: 0 },
  { reference: 'DRIVE', parent: 0 },
  { reference: 'Lock', heading: true },
  { reference: 'SLUICE', parent: 3 },
  { reference: 'LAMP', parent: 3 },
]);

/** The gate on the drive and back, the sluice on the gate; nothing on the lamp. */
const edges = [
  [101, 102],
  [102, 101],
  [104, 101],
] as const;
const none = new Int32Array(edges.length).fill(-1);
const entries = btoa(
  String.fromCharCode(
    ...packEntries({
      ...{ row: Int32Array.from(edges, ([a]) => a), column: Int32Array.from(edges, ([, b]) => b), rowUse: none, columnUse: none },
      ...{ mark: new Uint8Array(edges.length), suspect: new Uint8Array(edges.length) },
    }),
  ),
);

describe('the structure', () => {
  usePage();
  beforeEach(() => {
    Element.prototype.scrollTo = vi.fn();
    answer(getProject, aProject);
    answer(getOutline, outline);
    answer(getOutlineSince, { seq: 2, life: 'one', day: outline.day, whole: false, difference: null });
    answer(listSavedViews, []);
    answer(readMatrix, {
      ...{ seq: 1, life: 'one', usages: [], usagePaths: [], rowGroups: null, columnGroups: null, entries },
      marks: [{ way: [{ linkKind: 'depends', end: 'from' }], count: edges.length }],
    });
    answer(orderStructure, {
      ...{ order: [1, 0, 2], weight: 1, bound: 1, seconds: 0.2 },
      blocks: [{ start: 0, size: 2, weight: 1, bound: 1, feedback: [1] }],
    });
    answer(proposeStructure, { group: [0, 0, 1], count: 2, bits: 9, bitsOfOne: 7, isTelling: false, shared: [], seconds: 0.1 });
    answer(keepView, ({ body }) => ({ id: idOf(5), person: 'Ada Wick', at: '2026-11-28T10:00:00.000Z', ...(body as object) }) as never);
  });
  const open = async (more = '') => {
    show(<StructurePage />, { at: `/p/${aProject.id}?collections=${aProject.collections[0]!.id}${more}` });
    const grid = await screen.findByRole('grid');
    grid.focus();
    return grid;
  };
  const figures = () =>
    new Map([...document.querySelectorAll('dl > div')].map((one) => [one.querySelector('dt')!.textContent, one.querySelector('dd')!.textContent]));
  const press = (grid: HTMLElement, key: string) => fireEvent.keyDown(grid, { key });

  it('leaves out what has no dependency, and says what a cell consists of', async () => {
    const grid = await open();
    expect(screen.getByText('3 things, 3 dependencies; 1 without any left out')).toBeTruthy();
    press(grid, 'ArrowRight');
    expect(screen.getByRole('gridcell').textContent).toBe('GATE GATE on DRIVE DRIVE: 1');
    expect(screen.getByText('GATE on DRIVE')).toBeTruthy();
    expect(figures().get('Marks above the diagonal')).toBe('1');
  });

  it('folds into what a thing is a part of, by a key, and looks into it only', async () => {
    const grid = await open();
    press(grid, '-');
    await screen.findByText(/^2 things, 1 dependency/);
    press(grid, '+');
    await screen.findByText(/^3 things/);
    press(grid, '-');
    await screen.findByText(/^2 things/);
    press(grid, 'i');
    await waitFor(() => expect(presentAddress()).toContain('below=id0'));
    expect(screen.getByRole('button', { name: 'in Weir only: leave' })).toBeTruthy();
  });

  it('is ordered, with what breaks each cycle, which leads to its cell', async () => {
    await open('&by=order');
    await screen.findByText('A cycle of 2 things');
    expect([figures().get('Marks above the diagonal'), figures().get('Proven: no order has fewer'), figures().get('Things in cycles')]).toEqual([
      '1 → 1',
      '1',
      '2',
    ]);
    await userEvent.click(screen.getByRole('button', { name: 'DRIVE → GATE 1' }));
    expect(screen.getByText('DRIVE on GATE')).toBeTruthy();
    expect(sentTo(/structure\/order$/)).toMatchObject([{ nodes: 3, from: [0, 1, 2], to: [1, 0, 0], weight: [1, 1, 1], seconds: 10, seed: 1 }]);
  });

  it('opens its things, and those of a cycle, as registers', async () => {
    const grid = await open('&by=order');
    await screen.findByText('A cycle of 2 things');
    expect(namedAsRegister('All as a register').toSorted()).toEqual(['DRIVE', 'GATE', 'SLUICE']);
    expect(namedAsRegister('Its cycle as a register').toSorted()).toEqual(['DRIVE', 'GATE']);
    press(grid, 'End');
    press(grid, 'ArrowDown');
    press(grid, 'ArrowDown');
    await waitFor(() => expect(screen.queryByRole('link', { name: 'Its cycle as a register' })).toBeNull());
  });

  it('says what went wrong, and orders again', async () => {
    answer(orderStructure, () => {
      throw new Refusal('input-invalid', 'There are too many things.');
    });
    await open('&by=order');
    await screen.findByText('There are too many things.');
    answer(orderStructure, { order: [0, 1, 2], weight: 1, bound: 0, seconds: 10, blocks: [{ start: 0, size: 2, weight: 1, bound: 0, feedback: [0] }] });
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    await screen.findByText('Any order has at least');
    await userEvent.click(screen.getByRole('button', { name: 'Give it 30 seconds' }));
    expect(presentAddress()).toContain('seconds=30');
  });

  it('proposes groups, says where they tell nothing, and follows what is moved by hand', async () => {
    await open('&by=groups');
    await screen.findByText(/do not tell these groups apart/);
    expect([figures().get('Groups'), figures().get('Dependencies across groups'), figures().get('Would move')]).toEqual(['2 → 2', '1 → 1', '0 things']);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Move the thing to a group' }), 'a group of its own');
    expect([figures().get('Groups'), figures().get('Dependencies across groups')]).toEqual(['2 → 3', '1 → 3']);
    await userEvent.type(screen.getByRole('textbox', { name: 'Name of the proposal' }), 'Mine{Enter}');
    await waitFor(() => expect(sentTo(/views$/)).toHaveLength(1));
    const [{ body }] = sentTo(/views$/) as [{ body: { result: string; by: string } }];
    expect([body.by, JSON.parse(body.result)]).toEqual(['groups', { groups: [['id1'], ['id2'], ['id4']] }]);
    await userEvent.click(screen.getByRole('button', { name: 'Take 1 move back' }));
    expect(figures().get('Groups')).toBe('2 → 2');
  });

  it('turns proposed groups into items that what is in them is linked with', async () => {
    answer(makeGroups, ({ body }) => ({
      seq: 9,
      links: 2,
      refused: [],
      items: (body as { groups: object[] }).groups.map((_, at) => ({ id: idOf(50 + at), reference: `CMP-${at}` })),
    }));
    await open('&by=groups');
    await userEvent.click(await screen.findByRole('button', { name: 'As items…' }));
    const name = await screen.findByLabelText('Name of group 1');
    await userEvent.clear(name);
    await userEvent.type(name, 'Sensing');
    expect(((await screen.findByLabelText('Name of group 2')) as HTMLInputElement).disabled).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Make them' }));
    await waitFor(() => expect(sentTo(/structure\/make$/)).toHaveLength(1));
    expect(sentTo(/structure\/make$/)[0]).toMatchObject({ groups: [{ title: 'Sensing', items: [expect.any(String), expect.any(String)] }] });
    expect(await screen.findByText(/CMP-0 made, with 2 links/)).toBeTruthy();
    expect(sentTo(/structure\/make$/)[0]).not.toHaveProperty('set');

    await userEvent.click(screen.getByRole('button', { name: 'As items…' }));
    await userEvent.selectOptions(await screen.findByRole('combobox', { name: 'Where the new items stand' }), 'each in a collection of its own, in a new set');
    await userEvent.clear(screen.getByLabelText('Name of the set'));
    expect((screen.getByRole('button', { name: 'Make them' }) as HTMLButtonElement).disabled).toBe(true);
    await userEvent.type(screen.getByLabelText('Name of the set'), 'Proposal');
    await userEvent.click(screen.getByRole('button', { name: 'Make them' }));
    await waitFor(() => expect(sentTo(/structure\/make$/)[1]).toMatchObject({ set: 'Proposal' }));
  });

  it('weighs dependencies of each kind as is said', async () => {
    await open();
    await userEvent.click(await screen.findByRole('button', { name: 'counted' }));
    fireEvent.change(await screen.findByLabelText('Weight of: depends on'), { target: { value: '3' } });
    await waitFor(() => expect(presentAddress()).toContain('weights=0%3A3'));
    await userEvent.click(screen.getByRole('button', { name: 'Each pair once' }));
    await waitFor(() => expect(presentAddress()).toContain('weights=once'));
  });

  it('weighs dependencies by what links say in a field', async () => {
    const kinds = aProject.scheme.linkKinds;
    const fields = [{ id: 'load', label: 'Load', type: 'number' as const }];
    answer(getProject, { ...aProject, scheme: { ...aProject.scheme, linkKinds: kinds.map((kind) => (kind.id === 'depends' ? { ...kind, fields } : kind)) } });
    const kind = kinds.findIndex(({ id }) => id === 'depends');
    answer(readLinkNumbers, { seq: 1, from: [101], to: [102], kind: [kind], number: [2.5] });
    await open('&by=order');
    await userEvent.click(await screen.findByRole('button', { name: 'counted' }));
    await userEvent.click(await screen.findByRole('button', { name: 'By Load' }));
    await waitFor(() => expect(presentAddress()).toContain('weights=field%3Aload'));
    await screen.findByRole('button', { name: 'by Load' });
    await waitFor(() => expect(sentTo(/structure\/order$/).at(-1)).toMatchObject({ weight: [2.5, 1, 1] }));
    expect(await screen.findByText(/which weighs 1, it is none, and none that weigh less would do/)).toBeTruthy();
    expect(screen.getByText('Weight above the diagonal')).toBeTruthy();
  });

  it('says so where nothing depends on anything, and shows it all the same', async () => {
    answer(readMatrix, {
      ...{ seq: 1, life: 'one', usages: [], usagePaths: [], rowGroups: null, columnGroups: null, marks: [] },
      entries: btoa(String.fromCharCode(0)),
    });
    show(<StructurePage />, { at: `/p/${aProject.id}?collections=${aProject.collections[0]!.id}&below=id0` });
    await screen.findByText('None of these depends on another');
    expect(screen.getByText(/^2 things are left out/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Show them all the same' }));
    await screen.findByRole('grid');
    expect(within(screen.getByRole('grid')).getByRole('gridcell').textContent).toContain('itself');
  });
});
