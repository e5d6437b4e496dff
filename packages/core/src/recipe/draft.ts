import type { FieldValue } from '../fields/field-value.js';
import type { Issue } from '../source/issue.js';
import type { SourcePlace } from '../source/document.js';
import type { LinkMeaning } from './document-recipe.js';
import { splitReferences } from './field-value.js';
import type { ItemDetail } from './say-detail.js';

/** An item as it would be imported. `key` is its number among the drafts of one outcome. */
export interface Draft {
  key: number;
  /** Key of the parent, or -1 at the top. Always smaller than `key`. */
  parent: number;
  role: 'section' | 'item';
  kind: string;
  reference: string | null;
  externalId: string | null;
  title: string;
  html: string;
  fields: Record<string, FieldValue>;
  /** What its source says of its inside that is no item itself. */
  details?: ItemDetail[];
  place: SourcePlace;
}

/** A link as it would be made: from a draft to an item known by reference, or to another draft by external id. */
export interface DraftLink {
  draft: number;
  linkKind: string;
  /** True when the draft stands at the `to` end. */
  reversed: boolean;
  /** Reference or external id of the other end. */
  target: string;
  /** How the text names the other end, and where it may stand; see LinkMeaning. */
  by?: 'reference' | 'source' | 'title' | undefined;
  within?: string[] | undefined;
  /** What a model calls it: "«Trace» Abstraction". */
  sort?: string;
  /** Names of items from a root down to either end: the link holds in that use only. */
  ownUse?: string[];
  otherUse?: string[];
  /** The other end lies in a file that may come later. Kinds of link that it may be; the first that may join the ends is taken. */
  awaits?: string[];
  place: SourcePlace;
}

/** Links to each of the ends that a text names. */
export function buildDraftLinks(draft: number, { linkKind, reversed, by, within }: LinkMeaning, text: string, place: SourcePlace): DraftLink[] {
  const targets = by === 'title' ? text.split(/[;\n]/).map((one) => one.trim()) : splitReferences(text);
  return targets.filter(Boolean).map((target) => ({ draft, linkKind, reversed, target, ...(by && { by }), ...(within?.length && { within }), place }));
}

/** What became of every row: the drafts, their links, and a line for all that was doubtful or skipped. */
export interface RecipeOutcome {
  drafts: Draft[];
  links: DraftLink[];
  issues: Issue[];
}
