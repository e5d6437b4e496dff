import type { Field } from '../fields/field.js';
import type { CoverageRule, ItemFilter } from './rule.js';
import type { KindRole, LinkRole } from './role-names.js';

export interface Layer {
  id: string;
  label: string;
}

export interface Kind {
  id: string;
  label: string;
  plural: string;
  layer: string;
  fields: Field[];
  /** Items of this kind need no coverage: headings, notes, packages. */
  informative?: boolean;
  /** What code may take it for, whatever it is called. */
  roles?: KindRole[];
  /** Collection where an item of it lands that is made in passing. */
  home?: string;
  /** In use no more: items that have it keep it, new ones cannot. */
  retired?: boolean;
}

/** `from` is the end that depends, `to` the end that is depended on, unless `upstream` says otherwise. */
export interface LinkKind {
  id: string;
  /** Read from `from` to `to`: "satisfies". */
  phrase: string;
  /** Read from `to` to `from`: "is satisfied by". */
  reverse: string;
  fromKinds: string[];
  toKinds: string[];
  upstream: 'from' | 'to';
  role?: LinkRole;
  fields?: Field[];
  /** In use no more: links that have it keep it, new ones cannot. */
  retired?: boolean;
}

/** The vocabulary of one project: its ordered layers, kinds, link kinds and coverage rules. */
export interface Scheme {
  layers: Layer[];
  /** By layer, retired ones among them. */
  kinds: Kind[];
  /** Retired ones among them. The place of each in the list is its number in the trace graph and stays for ever. */
  linkKinds: LinkKind[];
  rules: CoverageRule[];
  verification: VerificationRule;
}

/** Which items need evidence, by which link tests give it, and whether tests of what derives from an item count too. */
export interface VerificationRule {
  of: ItemFilter;
  verifies: string;
  derives: string | null;
  /** Rule whose waiver also waives verification. */
  waivedBy: string;
}

export function findKind(scheme: Scheme, id: string): Kind | undefined {
  return scheme.kinds.find((kind) => kind.id === id);
}

export function getKind(scheme: Scheme, id: string): Kind {
  const kind = findKind(scheme, id);
  if (!kind) throw new Error(`No kind "${id}" in the project`);
  return kind;
}

export function findLinkKind(scheme: Scheme, id: string): LinkKind | undefined {
  return scheme.linkKinds.find((kind) => kind.id === id);
}

export interface AllowedLink {
  linkKind: LinkKind;
  /** True when the first kind asked about stands at the `to` end. */
  reversed: boolean;
}

/** Kinds that new items may have. */
export function offeredKinds(scheme: Scheme): Kind[] {
  return scheme.kinds.filter((kind) => !kind.retired);
}

/** Link kinds that new links may have. */
export function offeredLinkKinds(scheme: Scheme): LinkKind[] {
  return scheme.linkKinds.filter((kind) => !kind.retired);
}

/** Whether the scheme lets a link kind join items of two kinds, from the first to the second. */
export function isAllowed(linkKind: LinkKind, fromKind: string, toKind: string): boolean {
  return !linkKind.retired && linkKind.fromKinds.includes(fromKind) && linkKind.toKinds.includes(toKind);
}

/** Link kinds that may join an item of kind `a` with one of kind `b`, in either direction. */
export function findAllowedLinks(scheme: Scheme, a: string, b: string): AllowedLink[] {
  const allowed: AllowedLink[] = [];
  for (const linkKind of scheme.linkKinds) {
    if (isAllowed(linkKind, a, b)) allowed.push({ linkKind, reversed: false });
    if (isAllowed(linkKind, b, a)) allowed.push({ linkKind, reversed: true });
  }
  return allowed;
}

/** How a link reads when one stands at the given end. */
export function phraseAt(linkKind: LinkKind, end: 'from' | 'to'): string {
  return end === 'from' ? linkKind.phrase : linkKind.reverse;
}
