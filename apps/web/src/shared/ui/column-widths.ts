interface Cell {
  text: string;
  span: number;
}

/** Texts of so many characters and more ask for no more room. */
const LONGEST = 120;
/** Room for a letter of a word that should not be broken; longer words are. */
const A_LETTER = 0.5;
const LONGEST_WORD = 13;
/** What every column needs beside its text. */
const EDGES = 1.2;

/** Widths of the columns of a table as shares of the whole, in percent, by how much text most of their cells hold: a text four times as long is given twice the room. */
export function findColumnWidths(rows: readonly (readonly Cell[])[]): number[] {
  const lengths: number[][] = [];
  const words: number[] = [];
  for (const row of rows) {
    let column = 0;
    for (const { text, span } of row) {
      // A cell over several columns says nothing of one of them.
      if (span === 1) {
        (lengths[column] ??= []).push(text.length);
        words[column] = Math.max(words[column] ?? 0, longestWord(text));
      }
      column += span;
      while (lengths.length < column) lengths.push([]);
    }
  }
  const weights = Array.from(lengths, (own, column) => {
    const sorted = (own ?? []).toSorted((a, b) => a - b);
    return EDGES + Math.max(Math.sqrt(Math.min(LONGEST, sorted[Math.floor(sorted.length * 0.8)] ?? 0)), (words[column] ?? 0) * A_LETTER);
  });
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  return weights.map((weight) => (100 * weight) / all);
}

function longestWord(text: string): number {
  return Math.min(LONGEST_WORD, Math.max(...text.split(/[\s/-]+/).map((word) => word.length)));
}
