import { counted } from '@coomb/core';
import type { SuggestionReason } from '@coomb/contract';

const MOST_WORDS = 3;
/** From here on a candidate is told "likely". */
const LIKELY = 0.7;

/** Why two items may belong together, the weightiest first, in words; `most` of them. */
export function sayReasons(reasons: readonly SuggestionReason[], most = 2): string {
  const said = new Set<string>();
  const told: string[] = [];
  for (const reason of reasons) {
    if (told.length === most) break;
    const words = 'words' in reason ? reason.words.filter((word) => !said.has(word)) : undefined;
    if (words?.length === 0) continue;
    for (const word of words ?? []) said.add(word);
    told.push(sayReason(words && 'words' in reason ? { ...reason, words } : reason));
  }
  return told.join('; ');
}

function sayReason(reason: SuggestionReason): string {
  switch (reason.sort) {
    case 'words':
      return reason.words.slice(0, MOST_WORDS).join(', ');
    case 'title':
      return `names it: ${reason.words.slice(0, MOST_WORDS).join(' ')}`;
    case 'alike':
      return `like ${reason.like.reference}`;
    case 'beside':
      return `linked beside it: ${reason.count}`;
    case 'reverse':
      return 'linked the other way round';
    case 'common':
      return `${counted(reason.count, 'neighbour')} in common`;
    case 'often':
      return `linked ${reason.count} times`;
  }
}

/** How likely it is, in words and by how many of a hundred such were right; nothing where too few links tell. */
export function sayLikelihood(likelihood: number | null): string {
  if (likelihood === null || likelihood < 0.05) return '';
  return `${likelihood >= LIKELY ? 'likely, ' : ''}${Math.round(likelihood * 100)} %`;
}
