import type { FieldValue } from '../../fields/field-value.js';
import type { CoverageState } from '../../scheme/rule.js';
import type { Scheme } from '../../scheme/scheme.js';
import type { TraceGraph } from '../../trace/graph.js';
import type { VerificationState } from '../../verification/state.js';

/** One way in which an item is used: a path of parts from a system down to it. */
export interface RowUse {
  /** Ids of items, the item itself last. */
  path: readonly string[];
  /** The path in titles. */
  says: string;
}

/** What is known of uses: which there are, and what holds in one of them only. */
export interface UseGround {
  /** Paths of at least two items. */
  of: (node: number) => readonly RowUse[];
  /** Whether a link holds in a use of the item at one of its ends. */
  holds: (link: number, end: 'from' | 'to', use: RowUse) => boolean;
  /** Fields that say something else in a use than anywhere. */
  fieldsIn: (use: RowUse) => Readonly<Record<string, FieldValue>>;
}

/** What a register reads of a project. Items are told by their nodes. */
export interface RegisterGround {
  scheme: Scheme;
  graph: TraceGraph;
  items: readonly { kind: string; heading: boolean; withdrawn: boolean; reference: string; title: string; collection: string; parent: number }[];
  /** Place in reading order. */
  rowOf: ArrayLike<number>;
  nameOfCollection: (collection: string) => string;
  stateOf: (node: number) => VerificationState;
  /** Of a rule of coverage. */
  coverageOf: (rule: string, node: number) => CoverageState;
  fieldsOf: (node: number) => Readonly<Record<string, FieldValue>>;
  /** Milliseconds. */
  createdAt: (node: number) => number;
  changedAt: (node: number) => number;
  changedBy: (node: number) => string;
  /** What a test gave last, in words and when. */
  resultOf: (node: number) => { outcome: string; at: number } | undefined;
  /** Nothing where items are looked at as such only. */
  uses?: UseGround;
  /** Names of the drawings that show an item; looked up only where they are asked for. */
  drawnIn?: (node: number) => readonly string[];
  /** Items whose text says some words, in whatever case. Texts are not held in memory: whoever asks of them has looked for these words before. */
  textSays?: (words: string) => ReadonlySet<number>;
}

/** A value of an item: nothing, words, a number, yes or no, or several words. Moments are said as 2026-11-28, or with the time behind it, in UTC. */
export type Value = null | string | number | boolean | readonly string[];
export type ValueType = 'words' | 'number' | 'moment' | 'yesNo' | 'choice' | 'several';

/** One thing that something of a sort can show. */
export interface Offer {
  /** Of which field, rule or link kind; nothing where there is one only. */
  of?: string;
  label: string;
  type: ValueType;
  /** Values in their order, the least first, where they have one. */
  values?: readonly string[];
  /** Values as they are said to people, where that is not what is kept. */
  say?: (value: string) => string;
}

/** One sort of what a register can show of an item. A further one is a file here and a line in `shows.ts`. */
export interface AnyShow {
  sort: string;
  /** What there is of it in a project; for the kinds that are shown, where only these are of interest. */
  offers: (scheme: Scheme) => Offer[];
  read: (ground: RegisterGround, node: number, of: string, use?: RowUse) => Value;
}

/** Milliseconds as a moment is said. */
export const sayMoment = (at: number): string => new Date(at).toISOString();
