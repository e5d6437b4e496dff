import { type Field, findKind, type Scheme } from '../project/scheme.js';
import type { Meaning } from './document-recipe.js';
import { type Concept, findConcepts } from './header-words.js';

/** Names in forms that no list of words holds: "requirement text", "test case no". */
const SHAPES: [RegExp, Concept][] = [
  [/^((req(uirement)?|item|unique|spec(ification)?|test( case)?|case|object) ?)?(id|no|nr|number|ref(erence)?|ident(ifier)?|key|code)$/i, 'reference'],
  [/^(outline|section)( (no|number|level))$/i, 'number'],
];

/** Fields of the usual scheme that a concept fills, where the kind has them; a day goes to the first field of days. */
const FIELDS: Partial<Record<Concept, (field: Field) => boolean>> = {
  priority: (field) => field.id === 'priority',
  rationale: (field) => field.id === 'rationale',
  owner: (field) => field.id === 'owner' || field.type === 'person',
  state: (field) => field.id === 'standing',
  method: (field) => field.id === 'method',
  date: (field) => field.type === 'date',
};

/** Meaning of a concept for items of a kind; undefined where the kind has no place for it. */
function meaningOf(scheme: Scheme, kind: string, concept: Concept): Meaning | undefined {
  if (concept === 'links' || concept === 'verifies') {
    const linkKind = concept === 'links' ? 'derives' : 'verifies';
    return mayStart(scheme, linkKind, kind) ? { as: 'link', linkKind, reversed: false } : undefined;
  }
  const isField = FIELDS[concept];
  if (!isField) return { as: concept as 'reference' };
  const field = findKind(scheme, kind)?.fields.find(isField);
  return field && { as: 'field', field: field.id };
}

/** What a column or label most likely means: a known word, else a field of the kind with that label, else nothing. */
export function proposeMeaning(scheme: Scheme, kind: string, name: string): Meaning {
  const clean = name
    .trim()
    .replace(/[:*]+$/, '')
    .replace(/\.(?=\s|$)/g, '');
  for (const link of scheme.linkKinds) {
    if (link.phrase === clean.toLowerCase() && link.fromKinds.includes(kind)) return { as: 'link', linkKind: link.id, reversed: false };
    if (link.reverse === clean.toLowerCase() && link.toKinds.includes(kind)) return { as: 'link', linkKind: link.id, reversed: true };
  }
  const field = findKind(scheme, kind)?.fields.find((one) => one.label.toLowerCase() === clean.toLowerCase() || one.id === clean.toLowerCase());
  if (field) return { as: 'field', field: field.id };
  const similar = findKind(scheme, kind)?.fields.find((one) => clean.length > 3 && one.label.toLowerCase().startsWith(clean.toLowerCase()));
  if (similar) return { as: 'field', field: similar.id };
  const concepts = findConcepts(clean);
  // A test's column "Requirement" names what it verifies, not its text.
  const order = mayStart(scheme, 'verifies', kind) && concepts.includes('verifies') ? ['verifies' as const, ...concepts] : concepts;
  for (const concept of order.length > 0 ? order : SHAPES.flatMap(([shape, one]) => (shape.test(clean) ? [one] : []))) {
    const meaning = meaningOf(scheme, kind, concept);
    if (meaning) return meaning;
  }
  return { as: 'ignore' };
}

function mayStart(scheme: Scheme, linkKind: string, kind: string): boolean {
  return scheme.linkKinds.some((one) => one.id === linkKind && one.fromKinds.includes(kind));
}
