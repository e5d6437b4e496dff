/** One step of a way: along links of a kind, from the end where one stands to the other; to items of some kinds only, where these are named. */
export interface WayStep {
  linkKind: string;
  /** The end that one stands at: read from there, the link says its phrase of that end. */
  end: 'from' | 'to';
  kinds?: string[] | undefined;
}

/** What is shown of an item, by the name of its sort; and of which field, rule or link kind, where there are several. */
export interface Shown {
  sort: string;
  of?: string | undefined;
}

/** How the values of several items, at the end of a way, are one. */
export const gatherings = ['list', 'count', 'least', 'most', 'worst'] as const;
export type Gathering = (typeof gatherings)[number];

/** What a column says of many rows at once: of a group, or of all. */
export const tallySorts = ['given', 'missing', 'different', 'total', 'mean', 'least', 'most', 'share'] as const;
export interface Tally {
  as: (typeof tallySorts)[number];
  /** The value that a share is of. */
  of?: string | undefined;
}

/** A column: what is shown of the item itself, or of those that a way leads to. */
export interface Column {
  id: string;
  way: WayStep[];
  shown: Shown;
  as: Gathering;
  /** What it is called; what it shows, in words, where nothing else is said. */
  label?: string | undefined;
  /** Pixels; what its sort is given where nobody chose. */
  width?: number | undefined;
  /** Kept in the definition, to sort and group by, and not drawn. */
  hidden?: boolean | undefined;
  tally?: Tally | undefined;
}

/** What a value is asked for. `values` are words as they are shown, numbers, or days such as 2026-11-28. */
export const tests = ['is', 'isNot', 'says', 'saysNot', 'atLeast', 'atMost', 'above', 'given', 'missing'] as const;
export type TestSort = (typeof tests)[number];

/** Which of the items that a way leads to must pass. */
export const quantities = ['some', 'every', 'no'] as const;
export type Quantity = (typeof quantities)[number];

export interface Condition {
  way: WayStep[];
  of: Quantity;
  shown: Shown;
  test: TestSort;
  values: string[];
}

/** What a register shows, apart from where: one definition serves many scopes. */
export interface RegisterWhat {
  /** Kinds of its rows; all of them where none is named. */
  kinds: string[];
  columns: Column[];
  conditions: Condition[];
  /** Whether all conditions must hold, or any. */
  match: 'all' | 'any';
  sort: { column: string; descending: boolean }[];
  group: string[];
  shape: 'list' | 'outline';
  /** Whether each item is a row, or each way in which it is used: a path of parts down to it. */
  rows?: 'items' | 'usages' | undefined;
  /** Drawn columns at the left that stay in sight; reference and title where nobody chose. */
  frozen?: number | undefined;
}

/** Where a register looks: collections, what stands below some items; everything where nothing is named. */
export interface RegisterWhere {
  collections: string[];
  /** Ids of sections or items. */
  below: string[];
  /** Ids of systems: only what is used in one of them, and only those uses. */
  usedIn?: string[] | undefined;
  /** A kept lens that everything is looked at through, whichever else one looks through. */
  lens?: string | undefined;
}
