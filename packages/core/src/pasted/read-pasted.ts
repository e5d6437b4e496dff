/** One link that pasted cells ask for. Places count from 1, as a spreadsheet does. */
export interface PastedLink {
  line: number;
  column: number;
  left: string;
  right: string;
  /** Words for the kind of link, where the cells say any; empty where they only mark. */
  kind: string;
}

export interface PastedLinks {
  /** Two columns of ends, perhaps with a kind; or heads with marks between them. */
  shape: 'pairs' | 'matrix';
  links: PastedLink[];
  /** Lines that say nothing that could be a link, with why. */
  left: { line: number; says: string }[];
}

export interface PastedGround {
  /** Whether a text names an item. */
  isKnown: (text: string) => boolean;
  /** Whether a text is how a kind of link reads, either way. */
  isPhrase: (text: string) => boolean;
}

const MARK = /^(?:[x✓✔•●*+1]|yes|ja|oui)$/i;
const NONE = /^(?:|[-–—0.]|no|n\/?a)$/i;

/** Reads cells as they come from a spreadsheet: references in two columns, or a matrix with marks. A cell may name several. */
export function readPastedLinks(rows: readonly (readonly string[])[], ground: PastedGround): PastedLinks {
  const cells = rows.map((row) => row.map((cell) => cell.trim()));
  return isMatrix(cells, ground) ? readMatrix(cells, ground) : readPairs(cells, ground);
}

/** A matrix has ends in its first line behind an empty or foreign corner, and ends in its first column. */
function isMatrix(rows: readonly (readonly string[])[], { isKnown, isPhrase }: PastedGround): boolean {
  const [heads = [], ...lines] = rows;
  if (lines.length === 0 || heads.length < 2 || (heads[0] && isKnown(heads[0]))) return false;
  const named = heads.slice(1).filter((head) => isKnown(head)).length;
  const below = lines.filter((line) => line[0] && isKnown(line[0])).length;
  const marks = lines.flatMap((line) => line.slice(1)).filter((cell) => cell !== '');
  return named * 2 > heads.slice(1).filter(Boolean).length && below > 0 && marks.every((cell) => MARK.test(cell) || NONE.test(cell) || isPhrase(cell));
}

function readMatrix(rows: readonly (readonly string[])[], { isPhrase }: PastedGround): PastedLinks {
  const [heads = [], ...lines] = rows;
  const found: PastedLinks = { shape: 'matrix', links: [], left: [] };
  lines.forEach((line, index) => {
    const [own = ''] = line;
    line.forEach((cell, column) => {
      if (column === 0 || NONE.test(cell)) return;
      const head = heads[column] ?? '';
      if (!own || !head) found.left.push({ line: index + 2, says: `the mark in column ${column + 1} has no ${own ? 'head' : 'reference before it'}` });
      else found.links.push({ line: index + 2, column: column + 1, left: own, right: head, kind: isPhrase(cell) ? cell : '' });
    });
  });
  return found;
}

function readPairs(rows: readonly (readonly string[])[], ground: PastedGround): PastedLinks {
  const found: PastedLinks = { shape: 'pairs', links: [], left: [] };
  const phraseAt = findPhraseColumn(rows, ground);
  const [a, b] = phraseAt === 0 ? [1, 2] : phraseAt === 1 ? [0, 2] : [0, 1];
  const isHeading = (row: readonly string[]) => ![row[a], row[b]].some((cell) => cell && namesIn(cell, ground).some(ground.isKnown));
  rows.forEach((row, index) => {
    const line = index + 1;
    if (row.every((cell) => cell === '')) return;
    // Names of columns stand above the first line.
    if (index === 0 && rows.length > 1 && isHeading(row) && !rows.slice(1).every(isHeading)) return;
    const [left, right] = [row[a] ?? '', row[b] ?? ''];
    if (!left || !right) {
      found.left.push({ line, says: left || right ? `“${left || right}” has nothing at its other end` : 'it names no ends' });
      return;
    }
    const kind = phraseAt === undefined ? '' : (row[phraseAt] ?? '');
    for (const one of namesIn(left, ground))
      for (const other of namesIn(right, ground)) found.links.push({ line, column: b + 1, left: one, right: other, kind });
  });
  return found;
}

/** The column, of the first three, in which most cells are words for kinds of links. */
function findPhraseColumn(rows: readonly (readonly string[])[], { isPhrase }: PastedGround): number | undefined {
  return [2, 1, 0].find((column) => {
    const cells = rows.flatMap((row) => (row.length > 2 && row[column] ? [row[column]] : []));
    return cells.length > 0 && cells.filter(isPhrase).length * 2 > cells.length;
  });
}

/** Items that a cell names: itself, or several that are parted by commas, semicolons, line ends or blanks. */
function namesIn(cell: string, { isKnown }: Pick<PastedGround, 'isKnown'>): string[] {
  if (isKnown(cell)) return [cell];
  const parts = cell.split(/[,;\r\n]+/).flatMap((part) => part.trim() || []);
  if (parts.length > 1) return [...new Set(parts.flatMap((part) => namesIn(part, { isKnown })))];
  const words = cell.split(/\s+/);
  return words.length > 1 && words.some(isKnown) ? [...new Set(words)] : [cell];
}
