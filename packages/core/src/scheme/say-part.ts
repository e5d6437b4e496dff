import { fieldTypeOf } from '../fields/field-types.js';
import { fieldRoles } from '../fields/field-roles.js';
import { kindRoles, linkRoles } from './role-names.js';
import { joinChoices, sayFilter, sayRule } from './say-rule.js';
import type { Scheme } from './scheme.js';
import type { SchemePart, SchemeSort } from './scheme-part.js';

/** One thing that a part says, in words: "May begin at: test case". */
export interface PartFact {
  name: string;
  says: string;
}

/** What people call the sorts of parts. */
export const sortWords: Readonly<Record<SchemeSort, { one: string; many: string }>> = {
  layer: { one: 'layer', many: 'layers' },
  kind: { one: 'kind', many: 'kinds' },
  field: { one: 'field', many: 'fields' },
  linkKind: { one: 'link', many: 'links' },
  rule: { one: 'rule', many: 'rules' },
  verification: { one: 'verification', many: 'verification' },
};

/** Everything that a part says, in words that a scheme gives the keys it names; what is unsaid is left out. */
export function sayPart(scheme: Scheme, part: SchemePart): PartFact[] {
  const kinds = (keys: readonly string[]) => keys.map((key) => scheme.kinds.find((kind) => kind.id === key)?.label ?? key).join(', ');
  const link = (key: string) => scheme.linkKinds.find((one) => one.id === key)?.phrase ?? key;
  const facts: PartFact[] = [];
  const say = (name: string, says: string | undefined) => {
    if (says) facts.push({ name, says });
  };
  switch (part.sort) {
    case 'layer':
      say('Name', part.body.label);
      break;
    case 'kind': {
      const { label, plural, layer, informative, roles } = part.body;
      say('Name', label);
      say('Of several', plural);
      say('Layer', scheme.layers.find((one) => one.id === layer)?.label ?? layer);
      say('Needs coverage', informative ? 'no' : 'yes');
      say('Taken for', roles?.map((role) => kindRoles[role].label.toLowerCase()).join(', '));
      break;
    }
    case 'field': {
      const { label, type, options, unit, required, meaning, role, kinds: own, linkKinds } = part.body;
      say('Name', label);
      say('Type', fieldTypeOf(type).label);
      say('Choices', options?.join(', '));
      say('Unit', unit);
      say('Required', required ? 'yes' : '');
      say('Bears meaning', meaning ? 'yes' : '');
      say('Default', part.body.default === undefined || part.body.default === null ? '' : String(part.body.default));
      say('Taken for', role && fieldRoles[role].label.toLowerCase());
      say('Of', kinds(own));
      say('Of links', linkKinds.map(link).join(', '));
      break;
    }
    case 'linkKind': {
      const { phrase, reverse, fromKinds, toKinds, upstream, role } = part.body;
      say('Phrase', phrase);
      say('Read back', reverse);
      say('May begin at', kinds(fromKinds));
      say('May end at', kinds(toKinds));
      say('Depends on', upstream === 'to' ? 'its end' : 'its beginning');
      say('Taken for', role && linkRoles[role].label);
      break;
    }
    case 'rule':
      say('Name', part.body.label);
      say('Says', sayRule(scheme, part.body));
      break;
    case 'verification': {
      const { of, verifies, derives, waivedBy } = part.body;
      say('Asked of', sayFilter(scheme, of));
      say('Evidence comes along', verifies && link(verifies));
      say('Counts what tests of items give that come along', derives === null ? '' : link(derives));
      say('Waived with', scheme.rules.find((rule) => rule.id === waivedBy)?.label ?? waivedBy);
      break;
    }
  }
  return facts;
}

/** What differs between two states of a part, in words; `before` null where the part is new. */
export function sayDifference(
  before: { scheme: Scheme; part: SchemePart } | null,
  after: { scheme: Scheme; part: SchemePart },
): { name: string; before: string; after: string }[] {
  const was = new Map((before ? sayPart(before.scheme, before.part) : []).map((fact) => [fact.name, fact.says]));
  const is = new Map(sayPart(after.scheme, after.part).map((fact) => [fact.name, fact.says]));
  const differences = [...new Set([...was.keys(), ...is.keys()])].map((name) => ({ name, before: was.get(name) ?? '', after: is.get(name) ?? '' }));
  if (before && before.part.retired !== after.part.retired)
    differences.push({ name: 'In use', before: before.part.retired ? 'no' : 'yes', after: after.part.retired ? 'no' : 'yes' });
  return differences.filter((one) => one.before !== one.after);
}

/** The change of some parts as the history and undo show it: "Rename the kind Test case to Test". */
export function sayEdits(edits: readonly { before: SchemePart | null; after: SchemePart; label: string; wasCalled: string }[]): string {
  if (edits.length !== 1) {
    const sorts = [...new Set(edits.map((edit) => edit.after.sort))];
    return sorts.length === 1
      ? `Change ${edits.length} ${sortWords[sorts[0]!].many} of the scheme`
      : `Change ${joinAnd(sorts.map((sort) => sortWords[sort].many))} of the scheme`;
  }
  const [{ before, after, label, wasCalled }] = edits as [(typeof edits)[number]];
  const word = sortWords[after.sort].one;
  if (after.sort === 'verification') return 'Change what verifies';
  if (!before) return `Add the ${word} "${label}"`;
  if (before.retired !== after.retired) return after.retired ? `Retire the ${word} "${label}"` : `Take the ${word} "${label}" back in use`;
  if (wasCalled !== label) return `Rename the ${word} "${wasCalled}" to "${label}"`;
  return `Change the ${word} "${label}"`;
}

function joinAnd(words: readonly string[]): string {
  return joinChoices(words).replace(/ or (?=[^,]*$)/, ' and ');
}
