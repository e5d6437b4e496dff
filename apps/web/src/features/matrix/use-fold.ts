import type { OutlineReply } from '@coomb/contract';
import { type FoldedAxis, foldAxis } from '@coomb/core';
import { useMemo, useState } from 'react';
import { lineId } from './MatrixHeads';
import type { MatrixSide } from './matrix-sides';

/** What is folded: all below so many levels, with what was folded and unfolded by hand since. */
export function useFold(outline: OutlineReply | undefined, sides: readonly MatrixSide[] | undefined, level: string) {
  const [flipped, setFlipped] = useState<ReadonlySet<string>>(new Set());
  const folded = useMemo(() => {
    const found = outline && sides && level ? foldedTo(outline, sides, Number(level)) : new Set<string>();
    for (const id of flipped) if (!found.delete(id)) found.add(id);
    return found;
  }, [outline, sides, level, flipped]);
  const flip = (ids: readonly string[]) => {
    const next = new Set(flipped);
    for (const id of ids) if (!next.delete(id)) next.add(id);
    setFlipped(next);
  };
  return { folded, flip, reset: () => setFlipped(new Set()) };
}

/** Ids of the lines that are folded when so many levels are shown. */
export function foldedTo(outline: OutlineReply, sides: readonly MatrixSide[], levels: number): Set<string> {
  const found = new Set<string>();
  for (const side of sides) {
    const depth = new Int32Array(side.rows.length);
    side.parent.forEach((parent, line) => {
      depth[line] = parent < 0 ? 1 : depth[parent]! + 1;
      if (parent >= 0 && depth[parent] === levels && !side.uses.has(line)) found.add(lineId(outline, side, parent));
    });
  }
  return found;
}

export const levelOptions = (most: string, whole: string): { value: string; label: string }[] => [
  { value: '', label: whole },
  ...['first level', 'two levels', 'three levels', 'four levels'].slice(0, Number(most)).map((label, at) => ({ value: String(at + 1), label })),
];

export function foldSide(outline: OutlineReply, side: MatrixSide, folded: ReadonlySet<string>): FoldedAxis {
  const lines = folded.size === 0 ? [] : [...side.rows.keys()].filter((line) => !side.uses.has(line) && folded.has(lineId(outline, side, line)));
  return foldAxis(side, new Set(lines));
}
