import type { OutlineReply } from '@coomb/contract';
import { type DrawnShape, shapeStrengths } from '@coomb/core';
import { useMemo } from 'react';
import { useFills } from '../../../shared/colour-key/fills';
import { useLens } from '../../../shared/lens/use-lens';

/** How shapes are drawn: filled by the colour key that is on, and as strongly as the lens that is on shows their items. */
export function useDrawnLook(shapes: readonly Pick<DrawnShape, 'inside'>[], rowOf: readonly (number | undefined)[], outline: OutlineReply) {
  const fills = useFills();
  const lens = useLens();
  const [nodes, mode] = [lens?.nodes, lens?.mode ?? 'only'];
  const fillOf = useMemo(
    () =>
      fills &&
      ((_: unknown, index: number) => {
        const row = rowOf[index] ?? -1;
        return row < 0 ? undefined : fills.get(outline.reference[row]!);
      }),
    [fills, rowOf, outline],
  );
  const strengths = useMemo(
    () =>
      nodes &&
      shapeStrengths(
        shapes,
        (index) => {
          const row = rowOf[index] ?? -1;
          return row < 0 ? undefined : nodes.has(outline.node[row]!);
        },
        mode,
      ),
    [nodes, mode, shapes, rowOf, outline],
  );
  return { fillOf, strengths };
}
