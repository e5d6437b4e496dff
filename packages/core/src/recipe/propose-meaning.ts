import { findKind, type Scheme } from '../project/scheme.js';
import type { Meaning } from './document-recipe.js';

const WORDS: [RegExp, Meaning][] = [
  [
    /^((req(uirement)?|item|unique|spec(ification)?|test( case)?|case|object) ?)?(id|no|nr|number|ref(erence)?|ident(ifier)?|key|code)$|^uid$|^(#|kennung|anforderungs-?id)$/i,
    { as: 'reference' },
  ],
  [/^(title|name|short (name|text)|heading|summary|titel|kurztext)$/i, { as: 'title' }],
  [/^(text|requirements?|description|statement|requirement (text|statement)|shall statement|wording|anforderung|beschreibung)$/i, { as: 'text' }],
  [/^(parent|part of|belongs to|child of)$/i, { as: 'parent' }],
  [/^(kind|type|object type|item type)$/i, { as: 'kind' }],
  [/^(outline( (no|number|level))?|section( (no|number))?|level|hierarchy|numbering)$/i, { as: 'number' }],
  [/^(source|traces? to|derived? from|derives from|origin|upstream|needs?|satisfies need)$/i, { as: 'link', linkKind: 'derives', reversed: false }],
  [/^(verifies|tests|covers|requirements?( ids?)?|verified requirements?)$/i, { as: 'link', linkKind: 'verifies', reversed: false }],
];

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
  for (const [pattern, meaning] of WORDS) {
    if (!pattern.test(clean)) continue;
    if (meaning.as === 'link' && !mayStart(scheme, meaning.linkKind, kind)) continue;
    return meaning;
  }
  return { as: 'ignore' };
}

function mayStart(scheme: Scheme, linkKind: string, kind: string): boolean {
  return scheme.linkKinds.some((one) => one.id === linkKind && one.fromKinds.includes(kind));
}
