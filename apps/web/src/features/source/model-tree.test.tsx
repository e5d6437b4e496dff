import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { idOf, show, usePage } from '../../testing/page';
import { ModelTree } from './ModelTree';

const item = (number: number) => ({
  id: idOf(number),
  node: number,
  reference: `MOD-00${number}`,
  title: 'x',
  kind: 'component',
  collection: idOf(11),
  heading: false,
  withdrawn: false,
  state: 'unplanned' as const,
});

/** Two packages; the first holds a block with two parts, the second a block of the same name in another file. */
const model = {
  type: 'model' as const,
  id: ['p1', 'b1', 'a', 'b', 'p2', 'b2'],
  name: ['Drive', 'Motor', 'shaft', '', 'Spare', 'Motor'],
  sort: [0, 1, 2, 2, 0, 1],
  sorts: ['package', '«block» class', 'part'],
  parent: [-1, 0, 1, 1, -1, 4],
  line: [2, 3, 4, 5, 9, 10],
  file: [0, 0, 0, 0, 1, 1],
  files: ['drive.xmi', 'spare.xmi'],
};
const items = [
  { item: item(1), place: { element: 'b1' }, line: 3 },
  { item: item(2), place: { element: 'b2' }, line: 10 },
] as never;

describe('a model as the tree that its file is', () => {
  usePage();
  const open = (at?: string) => show(<ModelTree model={model} items={items} at={at} />);
  const rows = () => screen.getAllByRole('treeitem').map((row) => row.dataset.element);
  const chosen = () => screen.getAllByRole('treeitem').find((row) => row.getAttribute('aria-selected') === 'true')?.dataset.element;
  const line = (element: string) => within(screen.getAllByRole('treeitem').find((row) => row.dataset.element === element)!);

  it('opens at the element of the item that was asked for, with the way to it', () => {
    open('MOD-002');
    expect(rows()).toEqual(['p1', 'p2', 'b2']);
    expect(chosen()).toBe('b2');
    expect(screen.getByText('Spare › Motor; spare.xmi, line 10; b2')).toBeTruthy();
  });

  it('says which element became which item, and which stand in the file only', () => {
    open();
    expect(line('b1').getByRole('link', { name: 'MOD-001' })).toBeTruthy();
    expect(line('p1').getByText('in the file only')).toBeTruthy();
    expect(screen.getByText('6 elements')).toBeTruthy();
  });

  it('is walked with the keys: in, on, out, folded', async () => {
    open('MOD-001');
    screen.getByRole('tree').focus();
    await userEvent.keyboard('{ArrowRight}');
    expect(rows()).toEqual(['p1', 'b1', 'a', 'b', 'p2']);
    await userEvent.keyboard('{ArrowRight}{ArrowDown}');
    expect(chosen()).toBe('b');
    await userEvent.keyboard('{ArrowLeft}');
    expect(chosen()).toBe('b1');
    await userEvent.keyboard('{ArrowLeft}');
    expect(rows()).toEqual(['p1', 'b1', 'p2']);
    await userEvent.keyboard('{End}');
    expect(chosen()).toBe('p2');
    await userEvent.keyboard('{Home}');
    expect(chosen()).toBe('p1');
  });

  it('finds by name, sort and identifier, one after the other, and unfolds the way', async () => {
    open();
    const find = screen.getByRole('textbox', { name: 'Find in the file' });
    await userEvent.type(find, 'motor block{Enter}');
    expect(chosen()).toBe('b1');
    expect(screen.getByText('1 of 2')).toBeTruthy();
    await userEvent.type(find, '{Enter}');
    expect(chosen()).toBe('b2');
    await userEvent.type(find, '{Enter}');
    expect(chosen()).toBe('b1');
    await userEvent.clear(find);
    await userEvent.type(find, 'boiler{Enter}');
    expect(screen.getByText('nothing')).toBeTruthy();
    expect(chosen()).toBe('b1');
  });

  it('says what to do with a file that holds none', () => {
    show(<ModelTree model={{ ...model, id: [], name: [], sort: [], parent: [], line: [], file: [] }} items={[]} at={undefined} />);
    expect(screen.getByText(/Look at it as the text that it is/)).toBeTruthy();
  });
});
