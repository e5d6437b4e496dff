import { localName, walkXml } from '../xml/walk-xml.js';

interface Level {
  format: string;
  /** Pattern of the number, such as "%1.%2". */
  text: string;
  start: number;
}

/** How paragraphs are numbered (ECMA-376, part 1, 17.9): levels of each list, and lists by the id that paragraphs name. */
export interface Numbering {
  lists: Map<string, Level[]>;
  listOf: Map<string, string>;
  /** Where a list starts anew, by its id and level. */
  restarts: Map<string, Map<number, number>>;
  /** Level that belongs to a paragraph style. */
  ofStyle: Map<string, number>;
}

const DEEPEST = 9;

export async function readNumbering(chunks: AsyncIterable<Uint8Array>): Promise<Numbering> {
  const numbering: Numbering = { lists: new Map(), listOf: new Map(), restarts: new Map(), ofStyle: new Map() };
  /** Lists that a list style defines, and those that only name it. */
  const defined = new Map<string, Level[]>();
  const naming: { id: string; style: string }[] = [];
  let listId = '';
  let list: Level[] | undefined;
  let level: Level | undefined;
  let at = 0;
  let id = '';
  await walkXml(chunks, {
    open(name, attributes) {
      const value = attributes['w:val'] ?? '';
      switch (localName(name)) {
        case 'abstractNum':
          listId = attributes['w:abstractNumId'] ?? '';
          numbering.lists.set(listId, (list = []));
          break;
        case 'styleLink':
          if (list) defined.set(value, list);
          break;
        case 'numStyleLink':
          naming.push({ id: listId, style: value });
          break;
        case 'num':
          list = undefined;
          id = attributes['w:numId'] ?? '';
          break;
        case 'abstractNumId':
          numbering.listOf.set(id, value);
          break;
        case 'lvlOverride':
          at = Number(attributes['w:ilvl']) || 0;
          break;
        case 'startOverride':
          numbering.restarts.set(id, (numbering.restarts.get(id) ?? new Map<number, number>()).set(at, Number(value) || 0));
          break;
        case 'lvl':
          at = Number(attributes['w:ilvl']) || 0;
          level = { format: 'decimal', text: `%${at + 1}`, start: 1 };
          if (list && at < DEEPEST) list[at] = level;
          break;
        case 'start':
          if (level) level.start = Number(value) || 0;
          break;
        case 'numFmt':
          if (level) level.format = value;
          break;
        case 'lvlText':
          if (level) level.text = value;
          break;
        case 'pStyle':
          if (level) numbering.ofStyle.set(value, at);
      }
    },
    close(name) {
      if (localName(name) === 'lvl') level = undefined;
    },
  });
  for (const { id, style } of naming) if (defined.has(style)) numbering.lists.set(id, defined.get(style)!);
  return numbering;
}

/** Counts numbered paragraphs in reading order. */
export class NumberCounter {
  private readonly counts = new Map<string, (number | undefined)[]>();
  private readonly begun = new Set<string>();

  constructor(private readonly numbering: Numbering | undefined) {}

  /** Whether the level counts (1, a, iv) rather than marks (•). */
  isCounted(id: string, level: number): boolean {
    const format = this.levelsOf(id)?.[level]?.format;
    return format !== undefined && format !== 'bullet' && format !== 'none';
  }

  /** Number of the next paragraph at this level, such as `4.2.1`; undefined where a mark stands instead. */
  next(id: string, level: number): string | undefined {
    const levels = this.levelsOf(id);
    const own = levels?.[level];
    if (!levels || !own) return undefined;
    const counts = this.countsOf(id, level);
    counts[level] = (counts[level] ?? own.start - 1) + 1;
    counts.length = level + 1;
    if (!this.isCounted(id, level)) return undefined;
    const text = own.text.replace(/%([1-9])/g, (_, digit: string) => {
      const at = Number(digit) - 1;
      const count = counts[at] ?? levels[at]?.start ?? 1;
      return formatCount(count, levels[at]?.format ?? 'decimal');
    });
    return text.trim().replace(/\.$/, '') || undefined;
  }

  private levelsOf(id: string): Level[] | undefined {
    return this.numbering?.lists.get(this.numbering.listOf.get(id) ?? '');
  }

  private countsOf(id: string, level: number): (number | undefined)[] {
    const list = this.numbering!.listOf.get(id)!;
    let counts = this.counts.get(list);
    if (!counts) this.counts.set(list, (counts = []));
    const restart = this.numbering!.restarts.get(id)?.get(level);
    if (restart !== undefined && !this.begun.has(`${id} ${level}`)) {
      this.begun.add(`${id} ${level}`);
      counts[level] = restart - 1;
    }
    return counts;
  }
}

function formatCount(count: number, format: string): string {
  switch (format) {
    case 'lowerLetter':
      return letters(count);
    case 'upperLetter':
      return letters(count).toUpperCase();
    case 'lowerRoman':
      return roman(count);
    case 'upperRoman':
      return roman(count).toUpperCase();
    case 'decimalZero':
      return String(count).padStart(2, '0');
    default:
      return String(count);
  }
}

/** 1 gives a, 26 z, 27 aa: the letter is repeated, as the standard says. */
function letters(count: number): string {
  if (count < 1) return String(count);
  return String.fromCharCode(97 + ((count - 1) % 26)).repeat(Math.min(20, Math.floor((count - 1) / 26) + 1));
}

const ROMAN: [number, string][] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
];

function roman(count: number): string {
  if (count < 1 || count > 4999) return String(count);
  let left = count;
  let text = '';
  for (const [value, sign] of ROMAN)
    while (left >= value) {
      text += sign;
      left -= value;
    }
  return text;
}
