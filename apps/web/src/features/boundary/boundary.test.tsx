import { addMember, addRelated, createLinks, getBoundary, getOutline, getProject, makeContext } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { answer, aProject, calls, idOf, presentAddress, show, usePage } from '../../testing/page';
import { BoundaryPage } from './BoundaryPage';
import type { Boundary } from './queries';

const named = (number: number, kind: string, title: string) => ({
  id: idOf(number),
  node: number,
  reference: `MOD-${number}`,
  title,
  kind,
  collection: idOf(11),
  heading: false,
  withdrawn: false,
  state: 'unplanned' as const,
});
const [context, gate, river, lift] = [
  named(201, 'component', 'Weir at large'),
  named(202, 'component', 'Gate'),
  named(203, 'component', 'River'),
  named(204, 'function', 'Lift the gate'),
];
const lower = named(205, 'function', 'Lower the gate');
const allocation = { link: idOf(301), revision: 1, fields: { basis: 'given' } };
const boundary: Boundary = {
  contexts: [context],
  context,
  members: [
    { part: { ...gate, title: 'Gate' }, system: gate, functions: [{ ...allocation, other: lift }] },
    { part: named(206, 'part', 'upper reach'), system: river, functions: [] },
  ],
  functions: [
    { item: lift, depth: 0, performers: [{ ...allocation, other: gate }] },
    { item: lower, depth: 0, performers: [] },
  ],
  missing: { functions: 1, performers: 1 },
};
/** What the project holds: components in the context and others, and what is none. */
const lines = [context, gate, river, named(207, 'component', 'Walkway'), lift, named(211, 'component', 'Fish')];
const outline = {
  ...outlineOf(lines.map(({ reference }) => ({ reference }))),
  id: lines.map(({ id }) => id),
  title: lines.map(({ title }) => title),
  kind: lines.map(({ kind }) => aProject.scheme.kinds.findIndex((one) => one.id === kind)),
};

describe('the boundary of a system', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(getOutline, outline);
  });
  const open = async (change: Partial<Boundary> = {}, query = '') => {
    answer(getBoundary, { ...boundary, ...change });
    show(<BoundaryPage />, { path: '/p/:project/shape/boundary', at: `/p/${aProject.id}/shape/boundary${query}` });
    await screen.findByRole('button', { name: 'New context' });
  };
  const sent = (end: string) => calls.filter(({ call }) => call.startsWith('POST') && call.endsWith(end)).at(-1)?.body;

  it('says what is missing, and gives a function to the system that has none', async () => {
    answer(addRelated, { seq: 8, item: idOf(208), reference: 'FUN-001' });
    await open();
    expect(screen.getByText('1 system without a function, 1 function that nobody performs.')).toBeTruthy();
    expect(screen.queryByRole('textbox', { name: 'What Gate is there for' })).toBeNull();
    await userEvent.type(screen.getByRole('textbox', { name: 'What River is there for' }), ' Carry water {Enter}');
    await waitFor(() =>
      expect(sent(`/items/${river.id}/related`)).toEqual({
        title: 'Carry water',
        kind: 'function',
        linkKind: 'allocated',
        reversed: true,
        collection: river.collection,
      }),
    );
  });

  it('gives a function to a system, in the direction that the scheme allows', async () => {
    answer(createLinks, { seq: 8, ids: [idOf(302)] } as never);
    await open();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Who performs Lower the gate' }), gate.id);
    await waitFor(() => expect(sent('/links')).toMatchObject({ links: [{ linkKind: 'allocated', from: lower.id, to: gate.id }] }));
  });

  it('offers those only that do not perform it yet', async () => {
    await open();
    const offered = within(screen.getByRole('combobox', { name: 'Who performs Lift the gate' })).getAllByRole('option');
    expect(offered.map((option) => option.textContent)).toEqual(['+', 'River']);
  });

  it('shows what is missing only, and keeps that in the address', async () => {
    await open();
    await userEvent.click(screen.getByRole('button', { name: 'only what is missing' }));
    expect(presentAddress()).toContain('only=missing');
    const systems = within(screen.getByRole('region', { name: 'Systems' }));
    expect(systems.queryByText('Gate')).toBeNull();
    expect(systems.getByText('River')).toBeTruthy();
    expect(within(screen.getByRole('region', { name: 'Functions' })).queryByText('Lift the gate')).toBeNull();
  });

  it('says that nothing is missing where nothing is', async () => {
    await open({ missing: { functions: 0, performers: 0 }, members: boundary.members.slice(0, 1), functions: boundary.functions.slice(0, 1) });
    expect(screen.getByText(/Nothing is missing/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'only what is missing' }));
    expect(screen.getByText('Each has a function.')).toBeTruthy();
    expect(screen.getByText('Each is performed.')).toBeTruthy();
  });

  it('adds a system that is there, by what is offered or its reference, or a new one by its name', async () => {
    answer(addMember, { seq: 8, part: idOf(209) });
    await open();
    const field = screen.getByRole('combobox', { name: 'Another system, one that is there or a new one' });
    // Those that are in it already are not offered again, and nothing that is no component.
    await waitFor(() =>
      expect([...document.querySelectorAll('datalist option')].map((one) => one.getAttribute('value'))).toEqual(['MOD-207 Walkway', 'MOD-211 Fish']),
    );
    for (const [text, button, wanted] of [
      ['MOD-207 Walkway', 'Add', { system: idOf(207) }],
      ['mod-211', 'Add', { system: idOf(211) }],
      ['fish', 'Add', { system: idOf(211) }],
      ['Boats', 'Add as new', { title: 'Boats' }],
    ] as const) {
      await userEvent.type(field, text);
      await userEvent.click(screen.getByRole('button', { name: button }));
      await waitFor(() => expect(sent(`/boundary/${context.id}/members`)).toEqual(wanted));
      await waitFor(() => expect(field).toHaveProperty('value', ''));
    }
  });

  it('leads on to a drawing of it', async () => {
    await open();
    const address = new URL(screen.getByRole('link', { name: 'Draw it' }).getAttribute('href')!, 'http://here');
    expect(Object.fromEntries(address.searchParams)).toEqual({ sort: 'composition', about: context.id, levels: '1' });
  });

  it('begins with a context where there is none, and shows the one that was made', async () => {
    answer(makeContext, { seq: 8, context: idOf(210) });
    await open({ context: null, contexts: [], members: [], functions: [], missing: { functions: 0, performers: 0 } });
    expect(screen.getByText('No context yet')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'New context' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Name of the context' }), 'Valley');
    expect(screen.getByRole('button', { name: 'Make it' })).toHaveProperty('disabled', true);
    await userEvent.type(screen.getByRole('combobox', { name: 'The system' }), 'Nothing like it');
    expect(screen.getByRole('button', { name: 'Make it' })).toHaveProperty('disabled', true);
    await userEvent.clear(screen.getByRole('combobox', { name: 'The system' }));
    await userEvent.type(screen.getByRole('combobox', { name: 'The system' }), 'MOD-207');
    await userEvent.click(screen.getByRole('button', { name: 'Make it' }));
    await waitFor(() => expect(sent('/boundary')).toEqual({ title: 'Valley', systems: [idOf(207)] }));
    await waitFor(() => expect(presentAddress()).toContain(`about=${idOf(210)}`));
  });
});
