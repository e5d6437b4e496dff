import type { Drawing, LinkColumnsReply, OutlineReply } from '@coomb/contract';
import type { Scheme } from '@coomb/core';
import type { ChosenLink } from '../../linking/LinkedList';

/** What the shapes of a drawing are linked with, by rows of the outline. */
export interface DrawnLinks {
  /** Shapes of each outline row. */
  shapesOf: ReadonlyMap<number, number[]>;
  /** Row of each shape, or -1. */
  rowOf: readonly number[];
  /** Links of each shape's item that trace something: what a part is a use of is no news on a drawing. */
  counts: ReadonlyMap<number, number>;
  /** Links by row: the other row, and how it reads from here. */
  of: ReadonlyMap<number, readonly ChosenLink[]>;
}

const STRUCTURAL = new Set(['types', 'composes']);

export function findDrawnLinks(
  scheme: Scheme,
  outline: OutlineReply,
  drawing: Pick<Drawing, 'shapes' | 'id' | 'item'>,
  links: LinkColumnsReply | undefined,
): DrawnLinks {
  const rowOfId = new Map(outline.id.map((id, row) => [id, row]));
  const rowOfNode = new Map(outline.node.map((node, row) => [node, row]));
  const rowOf = drawing.shapes.map(({ item }) => (item === null ? -1 : (rowOfId.get(item) ?? -1)));
  const shapesOf = new Map<number, number[]>();
  rowOf.forEach((row, shape) => {
    if (row < 0) return;
    const known = shapesOf.get(row);
    if (known) known.push(shape);
    else shapesOf.set(row, [shape]);
  });
  const own = drawing.item ? rowOfId.get(drawing.item.id) : undefined;
  const of = new Map<number, ChosenLink[]>();
  const add = (row: number, link: ChosenLink) => {
    const known = of.get(row);
    if (known) known.push(link);
    else of.set(row, [link]);
  };
  for (let at = 0; links && at < links.id.length; at++) {
    const kind = scheme.linkKinds[links.kind[at]!];
    if (!kind || (kind.role && STRUCTURAL.has(kind.role))) continue;
    const [from, to] = [rowOfNode.get(links.from[at]!), rowOfNode.get(links.to[at]!)];
    if (from === undefined || to === undefined) continue;
    const inUse = (end: readonly number[]) => {
      const usagePath = links.usagePaths[end[at] ?? -1];
      return { usage: links.usages[end[at] ?? -1] ?? null, ...(usagePath && { usagePath }) };
    };
    const common = { id: links.id[at]!, suspect: links.suspect[at] === 1 };
    if (shapesOf.has(from) || from === own) add(from, { ...common, other: to, phrase: kind.phrase, ...inUse(links.fromUsage) });
    if (shapesOf.has(to) || to === own) add(to, { ...common, other: from, phrase: kind.reverse, ...inUse(links.toUsage) });
  }
  const counts = new Map<number, number>();
  for (const [row, list] of of) for (const shape of shapesOf.get(row) ?? []) counts.set(shape, list.length);
  return { shapesOf, rowOf, counts, of };
}
