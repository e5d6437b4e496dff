import type { ErrandSort, RecipeBody, ReportBody } from '@coomb/contract';
import type { Binding, DrawnBody, FieldValue, ItemDetail, Issue, LastContact, MergeChoice, SchemePart, SchemeSort } from '@coomb/core';

/** What every value of the ledger says: which it is, whose, how often it changed, whether it is withdrawn. Times are ISO 8601. */
interface Tracked {
  id: string;
  projectId: string;
  revision: number;
  withdrawn: boolean;
}

export interface ProjectValue extends Omit<Tracked, 'projectId'> {
  name: string;
  /** Set aside: it can be read, not changed. */
  archived: boolean;
  /** Number of the last change. */
  seq: number;
  createdAt: string;
}

export interface CollectionValue extends Tracked {
  name: string;
  holds: 'specification' | 'model' | 'tests';
  prefix: string;
  /** Kind of new items. */
  kind: string;
  rank: number;
  setId: string | null;
}

/** Collections that belong together. */
export interface SetValue extends Tracked {
  name: string;
  rank: number;
}

export interface SchemePartValue extends Tracked {
  sort: SchemeSort;
  key: string;
  rank: number;
  number: number;
  body: SchemePart['body'];
}

export interface ItemValue extends Tracked {
  collectionId: string;
  kind: string;
  reference: string;
  title: string;
  html: string;
  fields: Record<string, FieldValue>;
  heading: boolean;
  details: ItemDetail[];
  parentId: string | null;
  rank: number;
  /** Its number in the trace graph, given once. */
  node: number;
  /** Number of the change in which its present meaning came to be. */
  meaningSeq: number;
  origin: string;
  bindings: Binding[];
  /** What was last exchanged with each partner. */
  exchanged: Record<string, LastContact>;
  createdAt: string;
  changedAt: string;
  changedBy: string;
}

export interface LinkValue extends Tracked {
  kind: string;
  fromId: string;
  toId: string;
  fromUsage: string | null;
  toUsage: string | null;
  fields: Record<string, FieldValue>;
  origin: string;
  /** Meaning of each end at which it was last confirmed. */
  fromSeq: number;
  toSeq: number;
  confirmedBy: string;
  confirmedAt: string;
}

/** The path of parts that leads down to an item. */
export interface UsageValue extends Tracked {
  itemId: string;
  path: string[];
  /** What the fields of the item say in this use and in no other. */
  fields: Record<string, FieldValue>;
  /** Number of the change in which what bears meaning came to say so here; 0 where nothing ever did. */
  meaningSeq: number;
}

/** An end of an item's link that lies in a file which may come later. */
export interface WaitingEndValue extends Tracked {
  itemId: string;
  /** Kinds of link that it may be, the likeliest first. */
  linkKinds: string[];
  reversed: boolean;
  target: string;
  partner: string;
}

export interface SourceValue extends Tracked {
  name: string;
  format: string;
  mediaType: string;
  size: number;
  importedAt: string;
  importedBy: string;
  /** The recipe that it was read by, in whatever form it had then. */
  recipe: unknown;
  issues: Issue[];
  lineageId: string | null;
  collectionId: string | null;
  choices: Record<string, MergeChoice> | null;
  recipeId: string | null;
}

export interface DrawingValue extends Tracked {
  collectionId: string;
  itemId: string | null;
  name: string;
  externalId: string;
  body: DrawnBody;
}

export interface RunValue extends Tracked {
  name: string;
  at: string;
  seq: number;
  sourceId: string | null;
}

export interface WaiverValue extends Tracked {
  itemId: string;
  rule: string;
  person: string;
  reason: string;
  /** The last day on which it holds. */
  until: string | null;
  /** Of a waiver of a finding: what the finding is known by; null for a gap of a coverage rule. */
  finding: string | null;
  /** Who agreed to it, where that is somebody else. */
  approver: string | null;
}

/** What somebody took on, or was handed: something to be done at an item, or at a link of it. */
export interface ErrandValue extends Tracked {
  itemId: string;
  linkId: string | null;
  sort: ErrandSort;
  finding: string | null;
  note: string;
  owner: string;
  giver: string;
  at: string;
  done: boolean;
}

/** That two items are not to be linked: what both meant when somebody said so. */
export interface RefusalValue extends Tracked {
  itemId: string;
  otherId: string;
  itemSeq: number;
  otherSeq: number;
  person: string;
  at: string;
}

export interface RecipeValue extends Tracked {
  name: string;
  reads: RecipeBody['reads'];
  body: RecipeBody;
  changedAt: string;
  changedBy: string;
}

/** A passage of a source that became an item, or a field of one. */
export interface ClippingValue extends Tracked {
  sourceId: string;
  itemId: string;
  field: string;
  block: number;
  start: number;
  end: number;
  quote: string;
}

export interface ReportValue extends Tracked {
  number: number;
  title: string;
  at: string;
  person: string;
  seq: number;
  body: ReportBody;
}

export interface BaselineValue extends Tracked {
  name: string;
  note: string;
  seq: number;
  person: string;
  at: string;
}

/** How a view was set, kept under a name. */
export interface SavedViewValue extends Tracked {
  sort: string;
  name: string;
  /** Form of what is kept. */
  version: number;
  body: Record<string, unknown>;
  person: string;
  at: string;
}

/** Everything that the ledger keeps, by what it is. A further sort is a line here, and its table and keys in `entities.ts`. */
export interface Entities {
  project: ProjectValue;
  collection: CollectionValue;
  source: SourceValue;
  item: ItemValue;
  link: LinkValue;
  drawing: DrawingValue;
  run: RunValue;
  waiver: WaiverValue;
  errand: ErrandValue;
  refusal: RefusalValue;
  recipe: RecipeValue;
  clipping: ClippingValue;
  schemePart: SchemePartValue;
  set: SetValue;
  usage: UsageValue;
  waitingEnd: WaitingEndValue;
  report: ReportValue;
  baseline: BaselineValue;
  savedView: SavedViewValue;
}
export type Entity = keyof Entities;
