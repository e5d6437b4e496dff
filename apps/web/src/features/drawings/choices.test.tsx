import { getProject, listWholes } from '@coomb/contract';
import type { LinkBoxes, MadeDefinition } from '@coomb/core';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { answer, aProject, idOf, show, usePage } from '../../testing/page';
import { BoxChoice } from './desk/BoxChoice';
import { MadeBar } from './made/MadeBar';

describe('what a drawing of ours shows', () => {
  usePage();
  const drive = {
    id: idOf(201),
    node: 1,
    reference: 'MOD-001',
    title: 'Drive',
    kind: 'component',
    collection: idOf(11),
    heading: false,
    withdrawn: false,
    state: 'unplanned' as const,
  };
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listWholes, {
      wholes: [{ item: drive, type: null, path: [drive.id], rows: 2, below: 2, repeats: false, here: 0, everywhere: 0, elsewhere: 0, used: false }],
    });
  });
  const outline = { ...outlineOf([{ reference: 'SYS-001' }]), id: [idOf(101)] };
  let told: MadeDefinition;
  function Bar({ first }: { first: MadeDefinition }) {
    const [definition, setDefinition] = useState(first);
    told = definition;
    return <MadeBar definition={definition} outline={outline} onChange={setDefinition} />;
  }
  const open = async (first: Partial<MadeDefinition> = {}) => {
    show(<Bar first={{ sort: 'composition', about: drive.id, levels: 2, detail: [], ...first }} />);
    return (await screen.findByRole('combobox', { name: 'Sort of drawing' })) as HTMLSelectElement;
  };
  const about = () => within(screen.getByRole('combobox', { name: 'What it is about' })).getAllByRole('option');
  const names = () => about().map((option) => option.textContent);

  it('offers what a sort can be about, and keeps what fits', async () => {
    const sort = await open();
    await screen.findByRole('option', { name: 'Drive' });
    expect(names()).toEqual(['Drive']);
    await userEvent.selectOptions(sort, 'flow');
    expect(told.sort).toBe('flow');
    await userEvent.selectOptions(sort, 'overview');
    expect(told).toMatchObject({ sort: 'overview', about: '' });
    expect(names()).toEqual(['the whole project', 'System requirements', 'Gate tests']);
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'What it is about' }), 'Gate tests');
    expect(told.about).toBe(idOf(12));
    await userEvent.selectOptions(sort, 'composition');
    expect(told).toMatchObject({ sort: 'composition', about: drive.id });
  });

  it('names the item of an address that is not among those offered', async () => {
    await open({ sort: 'hierarchy', about: idOf(101) });
    expect(names()).toEqual(['SYS-001 SYS-001', 'System requirements', 'Gate tests']);
  });

  it('goes as deep as it is told', async () => {
    await open();
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Levels' }), '5 levels');
    expect(told.levels).toBe(5);
  });

  it('puts into its nodes what was ticked, in one order', async () => {
    await open();
    await userEvent.click(screen.getByRole('button', { name: 'names only' }));
    await userEvent.click(await screen.findByRole('checkbox', { name: 'ports' }));
    await userEvent.click(screen.getByRole('checkbox', { name: 'reference' }));
    expect(told.detail).toEqual(['reference', 'ports']);
    await userEvent.click(screen.getByRole('checkbox', { name: 'ports' }));
    expect(told.detail).toEqual(['reference']);
  });

  it('says of a trace how it was grown, and offers no other sort', () => {
    show(<Bar first={{ sort: 'trace', about: idOf(101), levels: 2, up: 1, detail: [] } as MadeDefinition} />);
    return screen.findByText('A trace, as it was grown: 1 upstream, 2 downstream');
  });
});

describe('boxes with links', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));
  let told: LinkBoxes;
  function Choice({ first }: { first: Partial<LinkBoxes> }) {
    const [wish, setWish] = useState<LinkBoxes>({ shown: [], layers: [], places: {}, ...first });
    told = wish;
    return <BoxChoice wish={wish} onChange={setWish} onKeep={undefined} />;
  }
  const open = async (first: Partial<LinkBoxes> = {}) => {
    show(<Choice first={first} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Boxes' }));
    await screen.findByRole('checkbox', { name: 'beside every shape with links' });
  };
  const tick = (name: string) => userEvent.click(screen.getByRole('checkbox', { name }));

  it('stand beside all shapes or none', async () => {
    await open();
    await tick('beside every shape with links');
    expect(told.shown).toBe('all');
    await tick('beside every shape with links');
    expect(told.shown).toEqual([]);
  });

  it('tell of all layers until one is left out, and again when it is back', async () => {
    await open();
    const all = aProject.scheme.layers.map(({ id }) => id);
    await tick('Tests');
    expect(told.layers).toEqual(all.filter((id) => id !== 'tests'));
    await tick('Needs');
    expect(told.layers).toEqual(all.filter((id) => id !== 'tests' && id !== 'needs'));
    await tick('Tests');
    await tick('Needs');
    expect(told.layers).toEqual([]);
  });

  it('go back to their own places where they were put by hand', async () => {
    await open({ shown: 'all', places: { s1: { x: 4, y: 5 } } as never });
    await userEvent.click(screen.getByRole('button', { name: 'Place them by themselves again' }));
    expect(told).toMatchObject({ shown: 'all', places: {} });
    expect(screen.queryByRole('button', { name: 'Place them by themselves again' })).toBeNull();
  });
});
