import { format, getFormatFromId, getFormatInfo } from 'numfmt';
import { localName, walkXml } from '../xml/walk-xml.js';

/** How cells of one style show their numbers, and whether their text is struck through. */
export interface CellStyle {
  /** Undefined where numbers show as they are. */
  show: ((value: number) => string) | undefined;
  struck: boolean;
}

/** Formats are no longer than this in any program that writes them. */
const LONGEST_PATTERN = 255;
/** Days between the two calendars that workbooks count by, 1900 and 1904. */
const DAYS_1904 = 1462;

/** Cell styles in order (ECMA-376, part 1, 18.8). `from1904`: the workbook counts days from 1904. */
export async function readCellStyles(chunks: AsyncIterable<Uint8Array>, from1904: boolean): Promise<CellStyle[]> {
  const own = new Map<number, string>();
  const struckFonts: boolean[] = [];
  const styles: CellStyle[] = [];
  const shows = new Map<number, CellStyle['show']>();
  let list = '';
  await walkXml(chunks, {
    open(name, attributes) {
      const local = localName(name);
      if (local === 'numFmt') own.set(Number(attributes.numFmtId), attributes.formatCode ?? '');
      else if (local === 'fonts' || local === 'cellXfs') list = local;
      else if (local === 'font' && list === 'fonts') struckFonts.push(false);
      else if (local === 'strike' && list === 'fonts' && struckFonts.length)
        struckFonts[struckFonts.length - 1] = !['0', 'false'].includes(attributes.val ?? '1');
      else if (local === 'xf' && list === 'cellXfs') {
        const id = Number(attributes.numFmtId ?? 0);
        if (!shows.has(id)) shows.set(id, buildShow(own.get(id) ?? builtIn(id), from1904));
        styles.push({ show: shows.get(id), struck: struckFonts[Number(attributes.fontId ?? 0)] ?? false });
      }
    },
    close(name) {
      if (localName(name) === list) list = '';
    },
  });
  return styles;
}

function builtIn(id: number): string {
  return id > 0 && id < 60 ? (getFormatFromId(id) ?? '') : '';
}

/** Shows numbers of a format as people see them, but never with fewer digits than they have; days and times always in one way. */
function buildShow(pattern: string, from1904: boolean): CellStyle['show'] {
  if (!pattern || pattern.length > LONGEST_PATTERN) return undefined;
  const type = typeOf(pattern);
  if (type === 'date' || type === 'datetime' || type === 'time') {
    if (/\[[hms]+\]/i.test(pattern)) return (value) => tryFormat(pattern, value) ?? String(value);
    return (value) => asTime(value + (from1904 ? DAYS_1904 : 0), type) ?? String(value);
  }
  if (type === 'percent')
    return (value) => {
      const shown = tryFormat(pattern, value);
      const percent = asNumber(value * 100);
      return shown !== undefined && isEqual(shown, Number(percent)) ? ungroup(shown) : `${percent}%`;
    };
  if (type !== 'number' && type !== 'grouped' && type !== 'currency') return undefined;
  return (value) => {
    const shown = tryFormat(pattern, value);
    return shown !== undefined && isEqual(shown, value) ? ungroup(shown) : asNumber(value);
  };
}

function typeOf(pattern: string): string {
  try {
    return getFormatInfo(pattern).type;
  } catch {
    return 'general';
  }
}

function tryFormat(pattern: string, value: number): string | undefined {
  try {
    return String(format(pattern, value)).trim();
  } catch {
    return undefined;
  }
}

const ungroup = (text: string) => text.replace(/(?<=\d),(?=\d{3})/g, '');

/** Whether the one number that a text shows is this one. */
function isEqual(text: string, value: number): boolean {
  const found = ungroup(text).match(/-?\d+(?:\.\d+)?/g);
  return found?.length === 1 && Number(found[0]) === value;
}

/** A number without the noise that binary fractions leave: fifteen digits are all that a workbook knows. */
export function asNumber(value: number): string {
  return String(Number(value.toPrecision(15)));
}

/** Serial day number of the 1900 system as `2026-03-14`, `2026-03-14 10:30` or `10:30`; undefined where no calendar reaches. */
function asTime(serial: number, type: 'date' | 'datetime' | 'time'): string | undefined {
  const date = new Date(Math.round((serial - 25_569) * 86_400) * 1000);
  if (Number.isNaN(date.getTime()) || date.getUTCFullYear() > 9999) return undefined;
  const [day, time] = date.toISOString().split('T') as [string, string];
  const clock = time.slice(0, time.slice(6, 8) === '00' ? 5 : 8);
  if (type === 'time') return serial < 1 ? clock : `${day} ${clock}`;
  return type === 'date' ? day : `${day} ${clock}`;
}
