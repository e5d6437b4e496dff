import { counted } from '@coomb/core';
import type { SuggestionReason } from '@coomb/contract';

const MOST_WORDS = 3;
/** From here on a candidate is told "likely". */
const LIKELY = 0.7;

/** Why two items may belong together, the weightiest first, in words; `most` of them. */
export function sayReasons(reasons: readonly SuggestionReason[], most = 2): string {
  return reasons.slice(0, most).map(sayReason).join('; ');
}

function sayReason(reason: SuggestionReason): string {
  switch (reason.sort) {
    case 'words':
      return reason.words.slice(0, MOST_WORDS).join(', ');
    case 'title':
      return `names it: ${reason.words.slice(0, MOST_WORDS).join(' ')}`;
    case 'alike':
      return `as ${reason.like.reference}`;
    case 'beside':
      return `${counted(reason.count, 'link')} beside it`;
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
