import { cleanAllTexts, isSame } from '@coomb/core';
import type { ReqifItem } from '@coomb/formats';
import { valuesOf } from '../items/item-values.js';
import type { ScenePart } from './export-scene.js';
import type { ExportRow } from './exports.repo.js';

/** Some hundred items on their way to the worker that writes them. */
export interface Slice {
  parts: ScenePart[];
  /** Their rows as the database wrote them: JSON of ExportRow[], in any order. */
  rows: string;
}

const NOTHING: ReadonlySet<string> = new Set();

/**
 * The items of a slice, whole. `gone` has the links that somebody removed, by the item they led from, where a partner's file is written:
 * then what differs from what was last exchanged is noted as well.
 */
export function readSlice({ parts, rows }: Slice, gone: ReadonlyMap<string, NonNullable<ReqifItem['gone']>> | undefined): ReqifItem[] {
  const rowOf = new Map((JSON.parse(rows) as ExportRow[]).map((row) => [row.id, row]));
  const items = parts.map((part): ReqifItem => {
    const { base, ...row } = rowOf.get(part.id)!;
    return { ...row, ...part, changed: gone ? findChanged(row, base) : NOTHING, ...(gone && { gone: gone.get(part.id) ?? [] }) };
  });
  // Texts that were stored before they were cleaned on the way in must break no file on the way out.
  cleanAllTexts(items, (property) => property === 'html');
  return items;
}

/** Values that differ from what was last exchanged. */
function findChanged(row: Omit<ExportRow, 'base'>, base: ExportRow['base']): Set<string> {
  // What the source says of the inside of an item is not changed here.
  const now = valuesOf({ ...row, details: [] });
  const { details: _, ...before } = base?.values ?? {};
  const names = new Set([...Object.keys(now), ...Object.keys(before)]);
  return new Set([...names].filter((name) => !isSame(now[name] ?? null, before[name] ?? null)));
}
