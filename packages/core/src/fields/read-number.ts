import type { FieldValue } from './field-value.js';

const NUMBER = /^([<>≤≥=~≈±]{0,2})\s*([+\-−]?)\s*(\d[\d.,'’\u00a0\u202f ]*\d|\d)(?:[eE]([+-]?\d{1,3}))?\s*(.*)$/su;

/**
 * Reads one number with or without its unit. Commas and points are told apart by where they stand; what could be read in two ways is read and told.
 * Ranges, sums and lists are no numbers. `unit` is that of the field: another one in the text is told.
 */
export function readNumber(text: string, unit = ''): { value: FieldValue; problem?: string } {
  const [, sign, minus, digits, exponent, rest] = NUMBER.exec(text) ?? [];
  const number = digits === undefined ? undefined : readDigits(digits);
  if (!number || /\d/.test(withoutPowers(rest!))) return { value: null, problem: `"${text}" is not a number; the field stays empty` };
  const value = Number(`${minus ? (minus === '+' ? '' : '-') : ''}${number.digits}${exponent ? `e${exponent}` : ''}`);
  const problems = [
    ...(number.unsure ? [`"${text}" could be read in two ways; it was read as ${value}`] : []),
    ...(sign ? [`"${text}" says ${sign}, which a number cannot hold; it was read as ${value}`] : []),
    ...(rest && unit && rest.trim() !== unit ? [`"${text}" does not say the unit of the field, ${unit}; it was read as ${value} ${unit}`] : []),
  ];
  return problems.length ? { value, problem: problems.join('; ') } : { value };
}

/** Units hold digits in their powers: m3, s-2, 10^3. */
function withoutPowers(unit: string): string {
  return unit.replace(/(?<=\p{L})[-−]?\d\b|\^[-−]?\d/gu, '');
}

function readDigits(text: string): { digits: string; unsure: boolean } | undefined {
  const plain = text.replace(/['’\u00a0\u202f ](?=\d{3}(?!\d))/g, '');
  if (/[^\d.,]/.test(plain)) return undefined;
  const [commas, points] = [plain.split(',').length - 1, plain.split('.').length - 1];
  if (commas + points === 0) return { digits: plain, unsure: false };
  if (commas && points) {
    const decimal = plain.lastIndexOf(',') > plain.lastIndexOf('.') ? ',' : '.';
    const group = decimal === ',' ? '.' : ',';
    const [whole, part, more] = plain.split(decimal);
    return more === undefined && isGrouped(whole!, group) ? { digits: `${whole!.replaceAll(group, '')}.${part}`, unsure: false } : undefined;
  }
  const mark = commas ? ',' : '.';
  if (commas + points > 1) return isGrouped(plain, mark) ? { digits: plain.replaceAll(mark, ''), unsure: false } : undefined;
  // 1,250 is more often a thousand and more; 0,250 and 1.250 never are.
  const isThousand = mark === ',' && /^[1-9]\d{0,2},\d{3}$/.test(plain);
  return { digits: isThousand ? plain.replace(',', '') : plain.replace(',', '.'), unsure: isThousand };
}

function isGrouped(text: string, mark: string): boolean {
  const [first, ...others] = text.split(mark);
  return first!.length > 0 && first!.length <= 3 && others.every((one) => one.length === 3);
}
