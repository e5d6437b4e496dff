import type { IdentifierMatch } from './document-recipe.js';

/** A text without the reference that it begins with, and the reference; null where it begins with none. */
export function splitIdentifier(
  text: string,
  identifier: ((text: string) => IdentifierMatch | undefined) | undefined,
): { reference: string | null; rest: string } {
  const match = identifier?.(text);
  if (!match) return { reference: null, rest: text.trim() };
  return {
    reference: match.reference,
    rest: text
      .slice(match.length)
      .replace(/^\s*(?:[:.]+|[–—-](?=\s))?\s*/, '')
      .trim(),
  };
}
