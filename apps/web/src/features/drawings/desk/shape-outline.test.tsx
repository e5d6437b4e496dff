import { ChakraProvider } from '@chakra-ui/react';
import type { Drawing } from '@coomb/contract';
import { render, screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { system } from '../../../shared/ui/theme';
import { usePage } from '../../../testing/page';
import { ShapeOutline } from './ShapeOutline';

const shape = (id: string, name: string, inside = -1) => ({ id, name, inside });
const drawing = {
  shapes: [shape('w', 'Weir'), shape('g', 'Gate', 0), shape('x', '')],
  routes: [
    { id: 'r1', from: 1, to: 0, label: 'closes' },
    { id: 'r2', from: 0, to: 2, label: '' },
  ],
} as unknown as Pick<Drawing, 'shapes' | 'routes'>;

describe('a drawing in words', () => {
  usePage();
  it('names shapes with what they lie in and lines with their ends, and is not written again where it says the same', () => {
    let asked = 0;
    const tell = (index: number) => {
      asked++;
      return `block ${drawing.shapes[index]!.name}, 1 link`;
    };
    const element = () => (
      <ChakraProvider value={system}>
        <ShapeOutline drawing={drawing} describe={tell} />
      </ChakraProvider>
    );
    const { rerender } = render(element());
    const lines = (name: string) =>
      within(screen.getByRole('list', { name }))
        .getAllByRole('listitem')
        .map((line) => line.textContent);
    expect(lines('Shapes')).toEqual(['block Weir, 1 link', 'block Gate, 1 link, inside Weir']);
    expect(lines('Lines')).toEqual(['Gate closes Weir', 'Weir leads to something']);
    const before = asked;
    rerender(element());
    expect(asked).toBe(before);
  });

  it('says nothing of what a lens leaves out, nor of lines that lead there', () => {
    render(
      <ChakraProvider value={system}>
        <ShapeOutline drawing={drawing} describe={(index) => drawing.shapes[index]!.name} strengths={[1, 0, 1]} />
      </ChakraProvider>,
    );
    expect(screen.getByRole('list', { name: 'Shapes' }).textContent).toBe('Weir');
    expect(screen.getByRole('list', { name: 'Lines' }).textContent).toBe('Weir leads to something');
  });
});
