import type { KindRole, LinkRole } from '../scheme/role-names.js';
import type { Scheme } from '../scheme/scheme.js';
import type { TraceGraph } from '../trace/graph.js';

/** A use that a link holds in only, at one of its ends: who says so is the caller's knowledge. */
export interface LinkUses {
  from: string | null;
  to: string | null;
}

/** An end that waits for an item which may come. */
export interface WaitingEnd {
  id: string;
  node: number;
  /** How it reads from the item: "satisfies". */
  phrase: string;
  /** What it waits for, as its file calls it. */
  target: string;
}

/** What rules read: a project's links and what they join. Links and items are indexes; live links only are looked at. */
export interface ConsistencyGround {
  scheme: Scheme;
  graph: TraceGraph;
  items: readonly {
    kind: string;
    heading: boolean;
    withdrawn: boolean;
    reference: string;
    collection: string;
    /** What it stands below, or what tells it from others at the top. */
    parent: string;
  }[];
  usesOf: (link: number) => LinkUses | undefined;
  /** Whether the path of a use leads to its item no more. */
  isGone: (use: string) => boolean;
  sayUse: (use: string) => string;
  waiting: readonly WaitingEnd[];
  /** Of an end of a link: the collection that the item stood in when the link was last confirmed, where that was another one. */
  movedFrom: (link: number, end: 'from' | 'to') => string | undefined;
  nameOfCollection: (collection: string) => string;
}

/** What may be done about a finding in one step. What is said of the step is `mendings`. */
export type Mending =
  | { sort: 'removeLink'; link: number }
  | { sort: 'confirmLink'; link: number }
  | { sort: 'holdEverywhere'; link: number }
  | { sort: 'changeKind'; link: number; linkKind: string }
  | { sort: 'restoreItem'; node: number }
  | { sort: 'letGo'; waiting: string };
export type MendingSort = Mending['sort'];

export const mendings = {
  removeLink: { label: 'Remove the link' },
  confirmLink: { label: 'The link still holds' },
  holdEverywhere: { label: 'Let it hold in every use' },
  changeKind: { label: 'Give it the kind that fits' },
  restoreItem: { label: 'Restore the item' },
  letGo: { label: 'Wait for it no more' },
} as const satisfies Record<MendingSort, { label: string }>;

export interface RuleFinding {
  /** Items and links that it is about; the first item is where one goes. */
  nodes: readonly number[];
  links: readonly number[];
  /** The waiting end that it is about. */
  waiting?: string;
  /** What tells it from others of its rule at the same items, where neither links nor a waiting end do. */
  about?: string;
  /** What is wrong, in words, without the item that it is shown with. */
  says: string;
  mendings: readonly Mending[];
}

/** A small project in which a rule must, or must not, find something. */
export interface Example {
  /** By reference: the role of its kind, and what else there is to it. */
  items: Readonly<Record<string, KindRole | { role: KindRole; withdrawn?: true; heading?: true; collection?: string; parent?: string }>>;
  links: readonly (readonly [from: string, role: LinkRole, to: string, more?: { use?: string; movedFrom?: string }])[];
  goneUses?: readonly string[];
  waiting?: readonly { item: string; target: string }[];
}

/** One way in which links may be wrong. A rule is a file here and a line in `consistency-rules.ts`. */
export interface ConsistencyRule {
  id: string;
  label: string;
  /** Why it matters, in a sentence. */
  explains: string;
  /** `wrong` is to be mended; `look` may be meant so. */
  weight: 'wrong' | 'look';
  find: (ground: ConsistencyGround) => RuleFinding[];
  examples: { fires: readonly Example[]; silent: readonly Example[] };
}

/** Calls back with each live link. */
export function forEachLiveLink({ graph }: Pick<ConsistencyGround, 'graph'>, visit: (link: number, from: number, to: number) => void): void {
  for (let link = 0; link < graph.links; link++) if (graph.isAlive(link)) visit(link, graph.from[link]!, graph.to[link]!);
}

/** For each kind of link by index, whether it has one of some roles. */
export function kindsWithRoles({ scheme }: Pick<ConsistencyGround, 'scheme'>, roles: readonly LinkRole[]): Uint8Array {
  return Uint8Array.from(scheme.linkKinds, ({ role }) => Number(role !== undefined && roles.includes(role)));
}

/** Reads a link in words: "SYS-1 is derived from NEED-2". */
export function sayLink({ graph, scheme, items }: Pick<ConsistencyGround, 'graph' | 'scheme' | 'items'>, link: number): string {
  const [from, to] = [items[graph.from[link]!]!, items[graph.to[link]!]!];
  return `${from.reference} ${scheme.linkKinds[graph.kind[link]!]?.phrase ?? 'is linked with'} ${to.reference}`;
}
