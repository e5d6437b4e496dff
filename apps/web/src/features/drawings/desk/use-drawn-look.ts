import type { OutlineReply } from '@coomb/contract';
import { type DrawnRoute, type DrawnShape, shapeStrengths } from '@coomb/core';
import { useMemo } from 'react';
import { useFills, useLinkCoats } from '../../../shared/colour-key/fills';
import { useLens } from '../../../shared/lens/use-lens';

interface Drawn {
  shapes: readonly Pick<DrawnShape, 'inside'>[];
  routes: readonly Pick<DrawnRoute, 'from' | 'to'>[];
}

/**
 * How a drawing looks: coated by the colour key that is on, each shape as strong as the lens that is on shows its item. `rowOf` has outline rows
 * by shape; `ownerOf` the shapes that boxes beside them belong to, which follow the drawing's own.
 */
export function useDrawnLook({ shapes, routes }: Drawn, rowOf: readonly number[], outline: OutlineReply, ownerOf: readonly number[]) {
  const fills = useFills();
  const coats = useLinkCoats();
  const lens = useLens();
  const [nodes, mode] = [lens?.nodes, lens?.mode ?? 'only'];
  const coatOf = useMemo(() => {
    const coat = (index: number) => fills?.get(outline.reference[rowOf[index] ?? -1] ?? '');
    return fills && coat;
  }, [fills, rowOf, outline]);
  const coatOfRoute = useMemo(() => {
    const nodeOf = (shape: number) => outline.node[rowOf[shape] ?? -1] ?? -1;
    const coat = (index: number) => {
      const [a, b] = [nodeOf(routes[index]?.from ?? -1), nodeOf(routes[index]?.to ?? -1)];
      return a < 0 || b < 0 ? undefined : (coats?.(a, b) ?? coats?.(b, a));
    };
    return coats && coat;
  }, [coats, routes, rowOf, outline]);
  const strengths = useMemo(() => {
    if (!nodes) return undefined;
    const isSeen = (index: number) => ((rowOf[index] ?? -1) < 0 ? undefined : nodes.has(outline.node[rowOf[index]!]!));
    const own = shapeStrengths(shapes, isSeen, mode);
    return ownerOf.length === 0 ? own : Float32Array.from([...own, ...ownerOf.map((shape) => own[shape] ?? 1)]);
  }, [nodes, mode, shapes, rowOf, outline, ownerOf]);
  return { coatOf, coatOfRoute, strengths };
}
