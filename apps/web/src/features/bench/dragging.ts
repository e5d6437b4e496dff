import type { Announcements, CollisionDetection } from '@dnd-kit/core';
import { useEffect, useMemo, useRef } from 'react';

/** A row of the outline on one side of the bench. */
export interface BenchPlace {
  side: 'left' | 'right';
  row: number;
}

export const idOfPlace = ({ side, row }: BenchPlace) => `${side} ${row}`;

/** The row whose element lies topmost at a point of the window; undefined over anything else. */
export function placeAt(x: number, y: number): BenchPlace | undefined {
  for (const element of document.elementsFromPoint(x, y)) {
    const row = element.closest<HTMLElement>('[data-bench-row]');
    if (row) return { side: row.dataset.benchSide as BenchPlace['side'], row: Number(row.dataset.benchRow) };
  }
  return undefined;
}

/**
 * What lies under the pointer, asked of the page itself whenever it is wanted. Boxes measured beforehand are wrong as soon as rows are
 * drawn anew under the hand, at another scroll position or zoom.
 */
export function usePointer(active: boolean): {
  findUnder: CollisionDetection;
  placeUnder: () => BenchPlace | undefined;
  point: () => { x: number; y: number } | undefined;
} {
  const at = useRef<{ x: number; y: number } | undefined>(undefined);
  useEffect(() => {
    if (!active) return;
    const follow = (event: PointerEvent) => {
      at.current = { x: event.clientX, y: event.clientY };
    };
    // Before anybody else hears of it: the release is where the hand is.
    window.addEventListener('pointermove', follow, true);
    window.addEventListener('pointerup', follow, true);
    return () => {
      window.removeEventListener('pointermove', follow, true);
      window.removeEventListener('pointerup', follow, true);
      at.current = undefined;
    };
  }, [active]);
  return useMemo(
    () => ({
      point: () => at.current,
      placeUnder: () => at.current && placeAt(at.current.x, at.current.y),
      findUnder: ({ pointerCoordinates, droppableContainers }) => {
        const place = pointerCoordinates && placeAt(pointerCoordinates.x, pointerCoordinates.y);
        const target = place && droppableContainers.find((one) => one.id === idOfPlace(place));
        return target ? [{ id: target.id, data: { droppableContainer: target, value: 0 } }] : [];
      },
    }),
    [],
  );
}

/** What a screen reader says while something is dragged: references, as people call the items. */
export function buildAnnouncements(referenceOf: (row: number) => string): Announcements {
  // By its id: a dragged row that was scrolled out of sight has no data any more.
  const name = ({ id }: { id: string | number }) => referenceOf(Number(String(id).split(' ').at(-1)));
  return {
    onDragStart: ({ active }) => `${name(active)} is dragged. Drop it on an item of the other side to link them.`,
    onDragOver: ({ active, over }) => (over ? `${name(active)} is over ${name(over)}.` : `${name(active)} is over no item.`),
    onDragEnd: ({ active, over }) => (over ? `${name(active)} was dropped on ${name(over)}.` : `${name(active)} was dropped on no item.`),
    onDragCancel: ({ active }) => `${name(active)} is no longer dragged.`,
  };
}
