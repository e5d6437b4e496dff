import type { CoverageRule, ItemFilter } from './rule.js';
import type { Scheme } from './scheme.js';

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];

/** "a, b or c". */
export function joinChoices(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;
}

/** A number in words as far as one reads it so. */
export function sayNumber(number: number): string {
  return NUMBERS[number] ?? String(number);
}

/** Which items, as part of a sentence: "requirement or need whose standing is Agreed". */
export function sayFilter(scheme: Scheme, filter: ItemFilter): string {
  const kinds = joinChoices(filter.kinds.map((id) => withinSentence(scheme.kinds.find((kind) => kind.id === id)?.label ?? id)));
  const { field } = filter;
  if (!field) return kinds;
  const label = scheme.kinds.flatMap((kind) => kind.fields).find((one) => one.id === field.id)?.label ?? field.id;
  return `${kinds} whose ${withinSentence(label)} is ${joinChoices(field.oneOf)}`;
}

/** What a rule demands, in one sentence. */
export function sayRule(scheme: Scheme, rule: Omit<CoverageRule, 'id' | 'sentence'>): string {
  const phrases = rule.along.map(({ linkKind, direction }) => {
    const found = scheme.linkKinds.find((kind) => kind.id === linkKind);
    return found ? (direction === 'out' ? found.phrase : found.reverse) : linkKind;
  });
  const far = rule.steps > 1 ? `, directly or over up to ${sayNumber(rule.steps)} links` : '';
  const usages = rule.throughUsages ? ', in each of its usages' : '';
  return `Every ${sayFilter(scheme, rule.of)} ${joinChoices(phrases)} at least ${sayNumber(rule.atLeast)} ${sayFilter(scheme, rule.reach)}${far}${usages}.`;
}

/** A name as it stands within a sentence: small, unless it is all of capitals. */
export function withinSentence(label: string): string {
  return /^\p{Lu}(?!\p{Lu})/u.test(label) ? label[0]!.toLowerCase() + label.slice(1) : label;
}
