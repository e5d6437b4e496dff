import type { Figure } from '../figure.js';

export const madeSorts = ['composition', 'hierarchy', 'trace', 'context', 'useCases', 'flow', 'overview'] as const;
export type MadeSort = (typeof madeSorts)[number];

/** What a drawing of ours shows: the rest follows from the project as it is. */
export interface MadeDefinition {
  sort: MadeSort;
  /** Id of the item that it is about, or of a collection; empty for the whole project. */
  about: string;
  /** How many levels below it. */
  levels: number;
  /** What stands in a node beside its name. */
  detail: readonly MadeDetail[];
  /** Of a trace: how far upstream, kinds of links that are not followed, with what follows from parts, places that are folded or unfolded. */
  up?: number | undefined;
  without?: readonly string[] | undefined;
  derived?: boolean | undefined;
  opened?: readonly string[] | undefined;
  closed?: readonly string[] | undefined;
}

export const madeDetails = ['reference', 'fields', 'values', 'parts', 'ports', 'operations'] as const;
export type MadeDetail = (typeof madeDetails)[number];

export interface MadeNode {
  /** The same as long as it shows the same: placement by hand is kept by it. */
  key: string;
  /** Item that it shows, as a number of the project, or -1. */
  item: number;
  name: string;
  keyword: string;
  figure: Figure;
  parts: { title: string; lines: string[] }[];
  /** Index of the node that it hangs on as a branch, or -1. */
  branch: number;
  /** Index of the node that it lies in, or -1. */
  inside: number;
  /** Of a tree that grows to both sides: -1 to the left of its root. */
  side?: -1 | undefined;
}

export interface MadeEdge {
  from: number;
  to: number;
  label: string;
  /** Links that it stands for. */
  links: number[];
  /** It stands for links of what lies further inside, not for one between the two themselves. */
  derived: boolean;
  suspect: boolean;
  /** How its ends are marked. */
  start: 'none' | 'filledDiamond';
  end: 'none' | 'arrow';
}

export interface MadeGraph {
  nodes: MadeNode[];
  edges: MadeEdge[];
  /** Its nodes hang on each other as a tree: it is placed as one, and branches follow what is moved. */
  isTree: boolean;
  /** More would be shown than a drawing holds. */
  cut: boolean;
}

/** More nodes than this are no drawing any more. */
export const MOST_MADE = 1000;

const LINE = 17;
const [LETTER, BOLD] = [6.6, 7.6];
const [LEAST, MOST] = [110, 260];

/** Room that a node needs, in the drawing's own unit. Words are measured roughly: whoever paints cuts what does not fit. */
export function sizeOf({ figure, name, keyword, parts }: MadeNode): { width: number; height: number } {
  if (figure === 'actor') return { width: 90, height: 92 };
  const lines = parts.flatMap((part) => [...(part.title ? [part.title] : []), ...part.lines]);
  const wide = Math.max(name.length * BOLD, keyword.length * LETTER, ...lines.map((line) => line.length * LETTER)) + 28;
  const width = Math.max(LEAST, Math.min(MOST, wide));
  const rows = 1 + (keyword ? 1 : 0) + lines.length;
  return { width, height: 22 + rows * LINE + parts.length * 8 + (figure === 'ellipse' ? 14 : 0) };
}
