import { tableOf } from '@coomb/core';
const RAISED = tableOf<string>({
  '0': '⁰',
  '1': '¹',
  '2': '²',
  '3': '³',
  '4': '⁴',
  '5': '⁵',
  '6': '⁶',
  '7': '⁷',
  '8': '⁸',
  '9': '⁹',
  '+': '⁺',
  '-': '⁻',
  '−': '⁻',
  '=': '⁼',
  '(': '⁽',
  ')': '⁾',
  n: 'ⁿ',
  i: 'ⁱ',
});
const LOWERED = tableOf<string>({
  '0': '₀',
  '1': '₁',
  '2': '₂',
  '3': '₃',
  '4': '₄',
  '5': '₅',
  '6': '₆',
  '7': '₇',
  '8': '₈',
  '9': '₉',
  '+': '₊',
  '-': '₋',
  '−': '₋',
  '=': '₌',
  '(': '₍',
  ')': '₎',
  a: 'ₐ',
  e: 'ₑ',
  h: 'ₕ',
  i: 'ᵢ',
  j: 'ⱼ',
  k: 'ₖ',
  l: 'ₗ',
  m: 'ₘ',
  n: 'ₙ',
  o: 'ₒ',
  p: 'ₚ',
  r: 'ᵣ',
  s: 'ₛ',
  t: 'ₜ',
  u: 'ᵤ',
  v: 'ᵥ',
  x: 'ₓ',
});

export type Index = 'sup' | 'sub';

/** An index in signs of plain text (Unicode, "Superscripts and Subscripts"): m² is not m2. Undefined where some character has no such sign. */
export function writeIndex(text: string, index: Index): string | undefined {
  const signs = index === 'sup' ? RAISED : LOWERED;
  const written = Array.from(text, (character) => (/\s/.test(character) ? character : signs[character]));
  return written.includes(undefined) ? undefined : written.join('');
}

/** Markup whose indices are signs of plain text, where there are such signs. */
export function flattenIndices(html: string): string {
  if (!/<su[bp]>/.test(html)) return html;
  return html.replace(/<(sup|sub)>([^<]*)<\/\1>/g, (whole, index: Index, text: string) => writeIndex(text, index) ?? whole);
}
