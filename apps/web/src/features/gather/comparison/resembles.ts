/** Whether a file looks like a newer version of a source: the same format, and the same name but for numbers, dates and words such as "rev" or "v". */
export function resembles(source: { name: string; format: string }, entry: { name: string; format: string }): boolean {
  return source.format === entry.format && stemOf(source.name) === stemOf(entry.name);
}

function stemOf(name: string): string {
  return name
    .toLowerCase()
    .replace(/\.[^.]*$/, '')
    .replace(/[_(),;-]+/g, ' ')
    .replace(/\b(rev(ision)?|version|v|issue|draft|final|copy|new)\b\.?/g, ' ')
    .replace(/\bv(?=\d)/g, ' ')
    .replace(/[\d.]+/g, ' ')
    .replace(/\s[a-z]$/, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}
