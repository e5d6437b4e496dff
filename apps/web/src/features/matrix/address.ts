import { matrixMarksSchema } from '@coomb/contract';
import type { Shown, WayStep } from '@coomb/core';
import { z } from 'zod';
import { parseJson } from '../../shared/read-json';

/** What a matrix shows, as its address and kept ones say it; lists are parted by commas. */
export const matrixAddress = z.object({
  rows: z.string().default(''),
  columns: z.string().default(''),
  rowKinds: z.string().default(''),
  columnKinds: z.string().default(''),
  rowBelow: z.string().default(''),
  columnBelow: z.string().default(''),
  rowsBy: z.string().default(''),
  columnsBy: z.string().default(''),
  marks: z.string().default(''),
  show: z.enum(['all', 'rowGaps', 'columnGaps', 'linked']).default('all'),
  order: z.enum(['outline', 'number', 'diagonal']).default('outline'),
  level: z.enum(['', '1', '2', '3']).default(''),
  uses: z.enum(['lines', 'together']).default('lines'),
  /** The change that it is compared with; nothing where it is not. */
  since: z.coerce.number().int().min(0).default(0).catch(0),
  differences: z.enum(['all', 'only']).default('all'),
});
export type MatrixAddress = z.output<typeof matrixAddress>;

export const listOf = (text: string): string[] => text.split(',').filter(Boolean);

/** Ways that are marked; none where every kind of link is. */
export function readMarks(text: string): WayStep[][] {
  const parsed = matrixMarksSchema.safeParse(parseJson(text));
  return parsed.success ? parsed.data : [];
}

export const writeMarks = (marks: readonly WayStep[][]): string => (marks.length > 0 ? JSON.stringify(marks) : '');

/** What a side is grouped by, as its address says it: a sort, and of which field. */
export function readShown(text: string): Shown | undefined {
  if (!text) return undefined;
  const at = text.indexOf(':');
  return at < 0 ? { sort: text } : { sort: text.slice(0, at), of: text.slice(at + 1) };
}

/** The same matrix turned round. Marks are read from the other end. */
export function swapSides(now: MatrixAddress): MatrixAddress {
  const marks = readMarks(now.marks).map((way) => way.toReversed().map(({ linkKind, end }): WayStep => ({ linkKind, end: end === 'from' ? 'to' : 'from' })));
  return {
    ...now,
    ...{ rows: now.columns, columns: now.rows, rowKinds: now.columnKinds, columnKinds: now.rowKinds, rowBelow: now.columnBelow, columnBelow: now.rowBelow },
    ...{ rowsBy: now.columnsBy, columnsBy: now.rowsBy, marks: writeMarks(marks) },
    show: now.show === 'rowGaps' ? 'columnGaps' : now.show === 'columnGaps' ? 'rowGaps' : now.show,
  };
}
