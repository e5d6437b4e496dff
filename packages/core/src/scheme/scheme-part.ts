import type { CoverageRule } from './rule.js';
import { sayRule } from './say-rule.js';
import type { Field } from '../fields/field.js';
import type { Kind, Layer, LinkKind, Scheme, VerificationRule } from './scheme.js';

/** What a scheme is made of. */
export const schemeSorts = ['layer', 'kind', 'field', 'linkKind', 'rule', 'verification'] as const;
export type SchemeSort = (typeof schemeSorts)[number];

/** What each part says, apart from its key, its place among its like and whether it is retired. */
export interface SchemeBodies {
  layer: Omit<Layer, 'id'>;
  kind: Omit<Kind, 'id' | 'fields' | 'retired'>;
  /** Of which kinds of items and of links it is a field. */
  field: Omit<Field, 'id'> & { kinds: string[]; linkKinds: string[] };
  linkKind: Omit<LinkKind, 'id' | 'fields' | 'retired'>;
  rule: Omit<CoverageRule, 'id' | 'sentence'>;
  verification: VerificationRule;
}

/** One part of a scheme: what people change, one at a time. Its key is what items, links, recipes and other parts name; it never changes. */
export type SchemePart = {
  [S in SchemeSort]: { sort: S; key: string; rank: number; retired: boolean; body: SchemeBodies[S] };
}[SchemeSort];
export type PartOf<S extends SchemeSort> = Extract<SchemePart, { sort: S }>;

/** Key of the one part that says what verifies. */
export const VERIFICATION = 'verification';

export function partsOfSort<S extends SchemeSort>(parts: readonly SchemePart[], sort: S): PartOf<S>[] {
  return parts.filter((part): part is PartOf<S> => part.sort === sort);
}

const byRank = (a: SchemePart, b: SchemePart) => a.rank - b.rank || (a.key < b.key ? -1 : 1);

/**
 * The scheme that parts make. Link kinds stand in the order of the parts, which is the order in which they were made; all else by rank.
 * Parts that name what is not there are kept out of nothing: checkScheme tells of them.
 */
export function assembleScheme(parts: readonly SchemePart[]): Scheme {
  const live = <S extends SchemeSort>(sort: S) =>
    partsOfSort(parts, sort)
      .filter((part) => !part.retired)
      .sort(byRank);
  const layers: Layer[] = live('layer').map(({ key, body }) => ({ id: key, ...body }));
  const place = new Map(layers.map((layer, index) => [layer.id, index]));
  const fields = live('field');
  const fieldsOf = (end: 'kinds' | 'linkKinds', key: string): Field[] =>
    fields.flatMap(({ key: id, body: { kinds, linkKinds, ...field } }) => ((end === 'kinds' ? kinds : linkKinds).includes(key) ? [{ id, ...field }] : []));
  const kinds: Kind[] = partsOfSort(parts, 'kind')
    .sort((a, b) => (place.get(a.body.layer) ?? layers.length) - (place.get(b.body.layer) ?? layers.length) || byRank(a, b))
    .map(({ key, retired, body }) => ({ id: key, ...body, fields: fieldsOf('kinds', key), ...(retired && { retired }) }));
  const linkKinds: LinkKind[] = partsOfSort(parts, 'linkKind').map(({ key, retired, body }) => {
    const own = fieldsOf('linkKinds', key);
    return { id: key, ...body, ...(own.length > 0 && { fields: own }), ...(retired && { retired }) };
  });
  const [verification] = partsOfSort(parts, 'verification');
  const scheme: Scheme = {
    layers,
    kinds,
    linkKinds,
    rules: [],
    verification: verification?.body ?? { of: { kinds: [] }, verifies: '', derives: null, waivedBy: '' },
  };
  scheme.rules = live('rule').map(({ key, body }) => ({ id: key, ...body, sentence: sayRule(scheme, body) }));
  return scheme;
}

/** The parts that make a scheme, each ranked by its place. A field that several kinds share is one part. */
export function takeApart(scheme: Scheme): SchemePart[] {
  const parts: SchemePart[] = [];
  const push = <S extends SchemeSort>(sort: S, key: string, body: SchemeBodies[S], retired = false) =>
    parts.push({ sort, key, rank: parts.filter((part) => part.sort === sort).length, retired, body } as SchemePart);
  for (const { id, ...body } of scheme.layers) push('layer', id, body);
  const fields = new Map<string, SchemeBodies['field']>();
  const collect = (own: readonly Field[], end: 'kinds' | 'linkKinds', key: string) => {
    for (const { id, ...field } of own) {
      const known = fields.get(id) ?? { ...field, kinds: [], linkKinds: [] };
      known[end].push(key);
      fields.set(id, known);
    }
  };
  for (const { id, fields: own, retired, ...body } of scheme.kinds) {
    push('kind', id, body, retired);
    collect(own, 'kinds', id);
  }
  for (const { id, fields: own, retired, ...body } of scheme.linkKinds) {
    push('linkKind', id, body, retired);
    collect(own ?? [], 'linkKinds', id);
  }
  for (const [key, body] of fields) push('field', key, body);
  for (const { id, sentence: _, ...body } of scheme.rules) push('rule', id, body);
  push('verification', VERIFICATION, scheme.verification);
  return parts;
}

/** A scheme whose rules say their sentences. */
export function withSentences(scheme: Omit<Scheme, 'rules'> & { rules: Omit<CoverageRule, 'sentence'>[] }): Scheme {
  const whole: Scheme = { ...scheme, rules: [] };
  return { ...whole, rules: scheme.rules.map((rule) => ({ ...rule, sentence: sayRule(whole, rule) })) };
}
