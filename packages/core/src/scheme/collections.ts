import type { Kind } from './scheme.js';

/** What a collection of items of a kind holds: tests, a specification where they are asked for or explain, else a model. */
export function holdsOf(kind: Kind | undefined): 'specification' | 'model' | 'tests' {
  const roles = kind?.roles ?? [];
  if (roles.includes('test')) return 'tests';
  return roles.some((role) => role === 'requirement' || role === 'need' || role === 'information') ? 'specification' : 'model';
}

const SHORTEST = 4;

/** A prefix for references of a kind, or of anything that is called something: the initials of its name, or its first letters; REQ for a requirement. */
export function prefixOf(kind: Pick<Kind, 'label'> | undefined): string {
  const words = (kind?.label ?? '')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toUpperCase()
    .match(/[A-Z][A-Z0-9]*/g);
  if (!words) return 'ITEM';
  const [first] = words as [string];
  if (words.length > 1)
    return words
      .map((word) => word[0])
      .join('')
      .slice(0, 10);
  return first.length <= SHORTEST ? first : first.slice(0, 3);
}
