import { tableOf } from '@coomb/core';
/** How a file of separated values is written. */
export interface CsvDialect {
  separator: string;
  quote: string;
}

const SEPARATORS = [',', ';', '\t', '|'];
const LINES = 60;
const LOOKED_AT = 60_000;

export const separatorNames = tableOf<string>({ ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' });
export const quoteNames = tableOf<string>({ '"': 'double quotation marks', "'": 'single quotation marks' });

/**
 * Separator and quotation mark by the first lines: the separator that the first line has, and that parts most others into as many values;
 * single marks only where they wrap values and double ones do not.
 */
export function guessDialect(text: string): CsvDialect {
  const start = text.slice(0, LOOKED_AT);
  const quote = guessQuote(start);
  const lines = splitLines(start, quote, text.length > LOOKED_AT);
  let best = { separator: ',', score: -1 };
  for (const separator of SEPARATORS) {
    const widths = lines.map((line) => countValues(line, separator, quote));
    const first = widths[0] ?? 1;
    if (first < 2) continue;
    const alike = widths.filter((width) => width === first).length / widths.length;
    const score = alike + Math.min(first, 20) / 100;
    if (score > best.score) best = { separator, score };
  }
  // No separator in the first line: a line above the names may be a title.
  if (best.score < 0) {
    const counted = SEPARATORS.map((separator) => ({ separator, count: lines.filter((line) => countValues(line, separator, quote) > 1).length }));
    const most = counted.sort((a, b) => b.count - a.count)[0]!;
    if (most.count * 2 > lines.length) best = { separator: most.separator, score: 0 };
  }
  return { separator: best.separator, quote };
}

function guessQuote(start: string): string {
  const wraps = (quote: string) => start.match(new RegExp(`(?:^|[,;\\t|\\n])${quote}[^${quote}\\n]*${quote}(?=[,;\\t|\\r\\n]|$)`, 'gm'))?.length ?? 0;
  return wraps("'") > 1 && wraps('"') === 0 ? "'" : '"';
}

/** Lines with something in them; line ends within quotation marks part none. */
function splitLines(text: string, quote: string, isCut: boolean): string[] {
  const lines: string[] = [];
  let [from, inside] = [0, false];
  for (let at = 0; at < text.length && lines.length < LINES; at++) {
    const sign = text[at];
    if (sign === quote) inside = !inside;
    else if (!inside && (sign === '\n' || sign === '\r')) {
      if (text.slice(from, at).trim()) lines.push(text.slice(from, at));
      from = at + 1;
    }
  }
  if (lines.length < LINES && (!isCut || lines.length === 0) && text.slice(from).trim()) lines.push(text.slice(from));
  return lines;
}

function countValues(line: string, separator: string, quote: string): number {
  let [count, inside] = [1, false];
  for (const sign of line) {
    if (sign === quote) inside = !inside;
    else if (sign === separator && !inside) count++;
  }
  return count;
}
