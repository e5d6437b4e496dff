import { fieldRoles, type FieldRole } from '../fields/field-roles.js';
import type { LinkRole } from '../scheme/role-names.js';
import { findFieldOfRole, linkKindsOfRole } from '../scheme/roles.js';
import type { Field } from '../fields/field.js';
import { findKind, type Kind, type LinkKind, offeredLinkKinds, type Scheme } from '../scheme/scheme.js';
import type { Meaning } from './document-recipe.js';
import { type Concept, findConcepts, fold } from './header-words.js';

/** Names in forms that no list of words holds: "requirement text", "test case no". */
const SHAPES: [RegExp, Concept][] = [
  [/^((req(uirement)?|item|unique|spec(ification)?|test( case)?|case|object) ?)?(id|no|nr|number|ref(erence)?|ident(ifier)?|key|code)$/i, 'reference'],
  [/^(outline|section)( (no|number|level))$/i, 'number'],
];

/** Parts of fields that a concept fills, where the kind has one that plays it. */
const FIELDS: Partial<Record<Concept, FieldRole>> = { priority: 'priority', rationale: 'rationale', owner: 'owner', state: 'state', method: 'method' };
/** Types of fields that take a concept where no field plays its part: the first such field. */
const TYPES: Partial<Record<Concept, Field['type']>> = { owner: 'person', date: 'date' };
/** Parts of link kinds that a concept names. */
const LINKS: Partial<Record<Concept, LinkRole>> = { links: 'derives', verifies: 'verifies' };

/** Meaning of a concept for items of a kind; undefined where the kind has no place for it. */
function meaningOf(scheme: Scheme, kind: string, concept: Concept): Meaning | undefined {
  const link = LINKS[concept];
  if (link) {
    const linkKind = findStarting(scheme, link, kind);
    return linkKind && { as: 'link', linkKind: linkKind.id, reversed: false };
  }
  const role = FIELDS[concept];
  const type = TYPES[concept];
  if (!role && !type) return { as: concept as 'reference' };
  const own = findKind(scheme, kind);
  const field = (role && findFieldOfRole(own, role)) ?? own?.fields.find((one) => one.type === type);
  return field && { as: 'field', field: field.id };
}

/** What a column or label most likely means: a known word, else a field of the kind with that label, else nothing. */
export function proposeMeaning(scheme: Scheme, kind: string, name: string): Meaning {
  const clean = name
    .trim()
    .replace(/[:*]+$/, '')
    .replace(/\.(?=\s|$)/g, '');
  for (const link of offeredLinkKinds(scheme)) {
    if (link.phrase.toLowerCase() === clean.toLowerCase() && link.fromKinds.includes(kind)) return { as: 'link', linkKind: link.id, reversed: false };
    if (link.reverse.toLowerCase() === clean.toLowerCase() && link.toKinds.includes(kind)) return { as: 'link', linkKind: link.id, reversed: true };
  }
  const field = findKind(scheme, kind)?.fields.find((one) => one.label.toLowerCase() === clean.toLowerCase() || one.id === clean.toLowerCase());
  if (field) return { as: 'field', field: field.id };
  const named = findByRoleName(findKind(scheme, kind), clean);
  if (named) return { as: 'field', field: named.id };
  const similar = findKind(scheme, kind)?.fields.find((one) => clean.length > 3 && one.label.toLowerCase().startsWith(clean.toLowerCase()));
  if (similar) return { as: 'field', field: similar.id };
  const concepts = findConcepts(clean);
  // A test's column "Requirement" names what it verifies, not its text.
  const order = findStarting(scheme, 'verifies', kind) && concepts.includes('verifies') ? ['verifies' as const, ...concepts] : concepts;
  for (const concept of order.length > 0 ? order : SHAPES.flatMap(([shape, one]) => (shape.test(clean) ? [one] : []))) {
    const meaning = meaningOf(scheme, kind, concept);
    if (meaning) return meaning;
  }
  return { as: 'ignore' };
}

/** The field whose part is called so, whatever the field itself is called in the project. */
function findByRoleName(kind: Kind | undefined, name: string): Field | undefined {
  const word = fold(name);
  return kind?.fields.find((field) => field.role && [fieldRoles[field.role].label, ...fieldRoles[field.role].words].some((one) => fold(one) === word));
}

/** The first link kind of a part that may begin at items of a kind. */
function findStarting(scheme: Scheme, role: LinkRole, kind: string): LinkKind | undefined {
  return linkKindsOfRole(scheme, role).find((one) => one.fromKinds.includes(kind));
}
