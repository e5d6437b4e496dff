/** A key of letters and figures, made of a label, that is none of those taken. */
export function nameKey(label: string, taken: Iterable<string>, otherwise: string): string {
  const words = label
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .match(/[a-z0-9]+/g) ?? [otherwise];
  const base = words
    .map((word, index) => (index ? word[0]!.toUpperCase() + word.slice(1) : word))
    .join('')
    .slice(0, 40);
  const used = new Set(taken);
  for (let number = 1; ; number++) {
    const key = number === 1 && /^[a-z]/.test(base) ? base : `${base}${number}`.replace(/^(?=\d)/, otherwise[0]!);
    if (!used.has(key)) return key;
  }
}
