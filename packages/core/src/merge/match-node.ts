/** What tells one version of an item from another. */
export interface MatchNode {
  /** Identity in the source: external id or the recipe's key. Null when it has none. */
  key: string | null;
  /** What people call it here; asked when no key fits. */
  alias?: string | null;
  heading: boolean;
  title: string;
  /** Plain words of title and text. */
  words: string;
  /** Index of the parent in its own list, or -1; always smaller than its own. */
  parent: number;
}

/** Words in common, as a share of both sets together (Dice). */
export function shareOf(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size + b.size === 0) return 0;
  let common = 0;
  for (const word of a) if (b.has(word)) common++;
  return (2 * common) / (a.size + b.size);
}
