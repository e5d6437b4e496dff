import type { ModelBox } from '../../source/model.js';
import { layTree } from '../tidy-tree.js';
import { type MadeGraph, sizeOf } from './made-graph.js';

export interface Point {
  x: number;
  y: number;
}

/** What was placed by hand: of trees how far from where a node would stand, of others where it stands. By keys of nodes. */
export type HandPlaces = Readonly<Record<string, Point>>;

const TREE_GAPS = { along: 56, across: 14 };
const GAP = 28;

/** A tree from left to right (a side of -1: to the left); what was moved by hand carries its branch along. */
export function placeTree({ nodes }: MadeGraph, hand: HandPlaces): ModelBox[] {
  const sizes = nodes.map(sizeOf);
  const boxes: ModelBox[] = nodes.map((_, index) => ({ x: 0, y: 0, ...sizes[index]! }));
  for (const side of [1, -1] as const) {
    // The root belongs to both sides.
    const own = [...nodes.keys()].filter((index) => nodes[index]!.branch < 0 || (nodes[index]!.side ?? 1) === side);
    if (side < 0 && own.every((index) => nodes[index]!.branch < 0)) continue;
    const placeOf = new Map(own.map((index, at) => [index, at]));
    const { along, across } = layTree(
      own.map((index) => ({ parent: placeOf.get(nodes[index]!.branch) ?? -1, along: sizes[index]!.width, across: sizes[index]!.height })),
      TREE_GAPS,
    );
    const moved: Point[] = [];
    own.forEach((index, at) => {
      const up = nodes[index]!.branch < 0 ? undefined : moved[placeOf.get(nodes[index]!.branch)!];
      const by = hand[nodes[index]!.key] ?? { x: 0, y: 0 };
      moved.push({ x: (up?.x ?? 0) + by.x, y: (up?.y ?? 0) + by.y });
      if (side < 0 && nodes[index]!.branch < 0) return;
      const { width } = sizes[index]!;
      const rootWidth = sizes[own[0]!]!.width;
      const x = side > 0 ? along[at]! : rootWidth - along[at]! - width;
      Object.assign(boxes[index]!, { x: x + moved[at]!.x, y: across[at]! - across[0]! + moved[at]!.y });
    });
  }
  return boxes;
}

/**
 * Puts nodes where they were placed by hand, and those that came since beside what they are joined with: what a person placed is never laid out
 * anew. `laid` are boxes as they were laid out, for nodes that nobody placed.
 */
export function placeByHand({ nodes, edges }: MadeGraph, laid: readonly ModelBox[], hand: HandPlaces): ModelBox[] {
  if (Object.keys(hand).length === 0) return [...laid];
  const boxes = laid.map((box, index): ModelBox => ({ ...box, ...hand[nodes[index]!.key] }));
  const isPlaced = nodes.map(({ key }) => key in hand);
  const anchorOf = (index: number): number => {
    const joined = edges.flatMap(({ from, to }) => (from === index ? [to] : to === index ? [from] : []));
    return joined.find((other) => isPlaced[other]) ?? (nodes[index]!.inside >= 0 && isPlaced[nodes[index]!.inside] ? nodes[index]!.inside : -1);
  };
  // What is joined with something placed goes first; the rest follows what was placed just now.
  const open = nodes.flatMap((node, index) => (isPlaced[index] || holds(nodes, index) ? [] : [{ index, key: node.key }]));
  while (open.length > 0) {
    const at = Math.max(
      0,
      open.findIndex(({ index }) => anchorOf(index) >= 0),
    );
    const { index } = open.splice(at, 1)[0]!;
    const anchor = anchorOf(index);
    const taken = boxes.filter((_, other) => isPlaced[other] && !holds(nodes, other));
    const start = anchor >= 0 ? boxes[anchor]! : (taken.at(-1) ?? boxes[index]!);
    Object.assign(boxes[index]!, findFree(start, boxes[index]!, taken));
    isPlaced[index] = true;
  }
  return growHolders(nodes, boxes);
}

const holds = (nodes: MadeGraph['nodes'], index: number) => nodes.some(({ inside }) => inside === index);

/** Boxes that hold others are as large as what they hold asks for. */
export function growHolders(nodes: MadeGraph['nodes'], boxes: readonly ModelBox[]): ModelBox[] {
  const grown = boxes.map((box) => ({ ...box }));
  // Those that lie deepest first.
  for (let index = nodes.length - 1; index >= 0; index--) {
    const within = nodes.flatMap(({ inside }, at) => (inside === index ? [grown[at]!] : []));
    if (within.length === 0) continue;
    const left = Math.min(...within.map(({ x }) => x)) - GAP;
    const top = Math.min(...within.map(({ y }) => y)) - GAP - 22;
    grown[index] = {
      x: left,
      y: top,
      width: Math.max(...within.map(({ x, width }) => x + width)) + GAP - left,
      height: Math.max(...within.map(({ y, height }) => y + height)) + GAP - top,
    };
  }
  return grown;
}

/** The nearest place beside a box that overlaps nothing: right, below, left, above, then further away. */
export function findFree(beside: ModelBox, { width, height }: ModelBox, taken: readonly ModelBox[]): Point {
  const touches = (x: number, y: number) =>
    taken.some((one) => x < one.x + one.width + GAP / 2 && one.x < x + width + GAP / 2 && y < one.y + one.height + GAP / 2 && one.y < y + height + GAP / 2);
  for (let ring = 0; ring < 60; ring++) {
    const by = ring * (height + GAP);
    for (const [x, y] of [
      [beside.x + beside.width + GAP + ring * 20, beside.y],
      [beside.x, beside.y + beside.height + GAP + by],
      [beside.x + beside.width + GAP, beside.y + by],
      [beside.x - width - GAP - ring * 20, beside.y],
      [beside.x, beside.y - height - GAP - by],
    ] as const)
      if (!touches(x, y)) return { x, y };
  }
  return { x: beside.x, y: beside.y + beside.height + GAP };
}
