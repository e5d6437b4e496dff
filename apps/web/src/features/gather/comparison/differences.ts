import type { ComparedEntry } from '@coomb/contract';
import { partsOf } from './choices';

/** What a filter by difference asks: entries that differ in a part, or in nothing else. */
export interface PartWish {
  part: string;
  only: boolean;
}

/** Parts that a newer version has otherwise, by their labels: fields, place, links. */
export function differencesOf(entry: ComparedEntry): string[] {
  const labels = new Map([...entry.fields.map(({ field, label }) => [field, label] as const), ['place', 'Place'], ['links', 'Links']]);
  return partsOf(entry).flatMap((part) => labels.get(part) ?? []);
}

/** How many entries differ in each part, and how many in that part alone; the most frequent first. */
export function countDifferences(entries: readonly ComparedEntry[]): { part: string; count: number; alone: number }[] {
  const counts = new Map<string, { part: string; count: number; alone: number }>();
  for (const entry of entries) {
    const parts = differencesOf(entry);
    for (const part of parts) {
      const count = counts.get(part) ?? { part, count: 0, alone: 0 };
      count.count++;
      if (parts.length === 1) count.alone++;
      counts.set(part, count);
    }
  }
  return [...counts.values()].toSorted((a, b) => b.count - a.count);
}

export function differsIn(entry: ComparedEntry, { part, only }: PartWish): boolean {
  const parts = differencesOf(entry);
  return parts.includes(part) && (!only || parts.length === 1);
}

/** A wish as it stands in the address: `Text`, or `Clause alone`. */
export function readPartWish(text: string): PartWish {
  return text.endsWith(ALONE) ? { part: text.slice(0, -ALONE.length), only: true } : { part: text, only: false };
}

export function writePartWish({ part, only }: PartWish): string {
  return only ? part + ALONE : part;
}

const ALONE = ' alone';
