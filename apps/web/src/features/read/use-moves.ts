import type { OutlineReply } from '@coomb/contract';
import { useEffect, useRef } from 'react';
import { useMoveItem } from '../item-sheet/queries';
import { findMove, type MoveWish } from './find-move';

interface Places {
  outline: Pick<OutlineReply, 'id' | 'parent' | 'seq'>;
  rows: readonly number[];
  /** Place among the rows of each item. */
  placeOf: ReadonlyMap<string, number>;
}

/** Moves items one step after the other, however fast they are wished for: each step starts from the outline that the one before it made. */
export function useMoves(project: string, { outline, rows, placeOf }: Places): (id: string, wish: MoveWish) => void {
  const move = useMoveItem(project);
  const wishes = useRef<{ id: string; wish: MoveWish }[]>([]);
  const isMoving = useRef(false);
  /** The change that the last step was; the outline must have it. */
  const made = useRef(0);
  const goOn = () => {
    while (!isMoving.current && outline.seq >= made.current && wishes.current.length > 0) {
      const { id, wish } = wishes.current.shift()!;
      const place = placeOf.get(id);
      const target = place === undefined ? undefined : findMove(outline, rows, place, wish);
      if (!target) continue;
      isMoving.current = true;
      move.mutate(
        { id, ...target },
        {
          onSuccess: ({ seq }) => {
            made.current = seq;
          },
          // What was wished for beyond a refused step is not meant any more.
          onError: () => {
            wishes.current = [];
          },
          onSettled: () => {
            isMoving.current = false;
          },
        },
      );
    }
  };
  useEffect(goOn);
  return (id, wish) => {
    wishes.current.push({ id, wish });
    goOn();
  };
}
