import type { Binding } from '../merge/binding.js';
/** One case of a result file, as the file names it. */
export interface ReportedCase {
  suite: string;
  name: string;
  /** Identifiers given by properties of the case, when the file has them. */
  properties: readonly string[];
}

export interface KnownTest {
  id: string;
  reference: string;
  /** What partners call it. */
  bindings: readonly Pick<Binding, 'externalId'>[];
  title: string;
}

export type MatchReason = 'property' | 'reference' | 'title';

export interface CaseMatch {
  test: string | null;
  reason: MatchReason | null;
  /** More than one test would fit by the same reason: none is taken. */
  ambiguous: boolean;
}

/**
 * The visible rule by which reported cases meet test cases; the first that fits one test decides:
 * 1. a property of the case holds the test's reference or external id; 2. its name, or its suite's, holds the reference as a word;
 * 3. its name equals the title, letter case and spaces aside.
 */
export function matchResults(cases: readonly ReportedCase[], tests: readonly KnownTest[]): CaseMatch[] {
  const byKey = new Map<string, Set<string>>();
  const byTitle = new Map<string, Set<string>>();
  const put = (map: Map<string, Set<string>>, key: string, id: string) => {
    const set = map.get(key);
    if (set) set.add(id);
    else map.set(key, new Set([id]));
  };
  for (const test of tests) {
    put(byKey, test.reference.toLowerCase(), test.id);
    for (const { externalId } of test.bindings) if (externalId) put(byKey, externalId.toLowerCase(), test.id);
    put(byTitle, fold(test.title), test.id);
  }
  const decide = (found: Set<string>, reason: MatchReason): CaseMatch =>
    found.size === 1 ? { test: [...found][0]!, reason, ambiguous: false } : { test: null, reason: null, ambiguous: true };
  return cases.map((one) => {
    const byProperty = union(one.properties.map((value) => byKey.get(value.trim().toLowerCase())));
    if (byProperty.size) return decide(byProperty, 'property');
    for (const text of [one.name, one.suite]) {
      const byReference = union(findKeys(text).map((key) => byKey.get(key)));
      if (byReference.size) return decide(byReference, 'reference');
    }
    const titled = byTitle.get(fold(one.name));
    if (titled) return decide(titled, 'title');
    return { test: null, reason: null, ambiguous: false };
  });
}

/** Words of a name that could be references; `TC_012_opens` gives tc-012 among them, for code allows no hyphen. */
function findKeys(text: string): string[] {
  const found = text.match(/[A-Za-z][A-Za-z0-9]*[-_ ]?\d+(?:\.\d+)*/g) ?? [];
  return found.flatMap((key) => {
    const parts = /^(.*?)[-_ ]?(\d+(?:\.\d+)*)$/.exec(key)!;
    return [key.toLowerCase(), `${parts[1]}-${parts[2]}`.toLowerCase()];
  });
}

function fold(text: string): string {
  return text.toLowerCase().replace(/\s+/g, ' ').trim();
}

function union(sets: (Set<string> | undefined)[]): Set<string> {
  return new Set(sets.flatMap((set) => (set ? [...set] : [])));
}
