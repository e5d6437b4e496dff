import type { OutlineReply } from '@coomb/contract';
import { aProject } from './page';

export interface Line {
  reference: string;
  /** Index of the parent among the lines, or -1. */
  parent?: number;
  collection?: number;
  heading?: boolean;
}

/** An outline from a few lines; row i has node 100 + i, so that the two are never mixed up unnoticed. */
export function outlineOf(lines: Line[]): OutlineReply {
  const zeros = () => lines.map(() => 0);
  return {
    seq: 1,
    life: 'one',
    day: '2026-11-27',
    id: lines.map((_, row) => `id${row}`),
    node: lines.map((_, row) => 100 + row),
    reference: lines.map((line) => line.reference),
    title: lines.map((line) => line.reference),
    clause: [],
    kinds: aProject.scheme.kinds.map((kind) => kind.id),
    collections: aProject.collections.map((collection) => collection.id),
    kind: zeros(),
    collection: lines.map((line) => line.collection ?? 0),
    parent: lines.map((line) => line.parent ?? -1),
    heading: lines.map((line) => (line.heading ? 1 : 0)),
    state: zeros(),
    up: zeros(),
    down: zeros(),
    suspect: zeros(),
    gaps: zeros(),
  };
}
