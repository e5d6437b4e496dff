import type { LinkColumnsReply, OutlineReply } from '@coomb/contract';
import { counted } from '@coomb/core';
import { useMemo } from 'react';
import type { Project } from '../../shared/live/project-queries';

/** What the section shows of a project: rows of the outline by layer, and links as pairs of rows. */
export function useStrata(project: Project, outline: OutlineReply | undefined, seams: LinkColumnsReply | undefined) {
  const layers = useMemo(() => (outline ? buildLayers(project, outline) : []), [project, outline]);
  const rowOf = useMemo(() => new Map(outline?.node.map((node, row) => [node, row])), [outline]);
  const pairs = useMemo(() => (seams ? seams.from.flatMap((from, i): [number, number][] => pairOf(rowOf, from, seams.to[i]!)) : []), [seams, rowOf]);
  return { layers, pairs, rowOf };
}

function pairOf(rowOf: Map<number, number>, from: number, to: number): [number, number][] {
  const a = rowOf.get(from);
  const b = rowOf.get(to);
  return a === undefined || b === undefined ? [] : [[a, b]];
}

function buildLayers({ scheme }: Project, outline: OutlineReply): { id: string; label: string; plural: string; rows: number[] }[] {
  const layerOfKind = scheme.kinds.map((kind) => scheme.layers.findIndex((layer) => layer.id === kind.layer));
  const rows: number[][] = scheme.layers.map(() => []);
  outline.id.forEach((_, row) => {
    const layer = layerOfKind[outline.kind[row]!];
    if (!outline.heading[row] && layer !== undefined && layer >= 0) rows[layer]!.push(row);
  });
  return scheme.layers.map((layer, index) => ({ id: layer.id, label: layer.label, plural: counted(rows[index]!.length, 'item'), rows: rows[index]! }));
}
