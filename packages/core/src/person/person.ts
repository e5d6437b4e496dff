/** Colours that tell people apart, by the palette's own names. */
export const personColours = ['moss', 'slate', 'heather', 'ochre', 'brick', 'teal', 'plum', 'sand'] as const;

/** At most two letters that a name is known by: the first of its first and last word. */
export function buildInitials(name: string): string {
  const words = name
    .trim()
    .split(/[\s-]+/u)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));
  const letters = words.length > 1 ? [words[0]!, words.at(-1)!] : words;
  return letters
    .map((word) => [...word].find((letter) => /[\p{L}\p{N}]/u.test(letter))!)
    .join('')
    .toUpperCase();
}
