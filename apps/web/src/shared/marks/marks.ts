import { useMemo, useSyncExternalStore } from 'react';
import { z } from 'zod';
import { parseJson } from '../read-json';
import type { HeldItem } from './at-hand';

const held = z.array(z.object({ id: z.string(), reference: z.string(), title: z.string(), kind: z.string() }));
const schema = z.object({ first: held, second: held });

/** Items that were marked to be joined, on either side. They stay while the window does, over pages. */
export interface Marks {
  first: readonly HeldItem[];
  second: readonly HeldItem[];
}
export type MarkSide = keyof Marks;

const NONE: Marks = { first: [], second: [] };
const keyOf = (project: string) => `coomb.marks.${project}`;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

function parse(text: string | null): Marks {
  const parsed = schema.safeParse(parseJson(text));
  return parsed.success ? parsed.data : NONE;
}

export const readMarks = (project: string): Marks => parse(sessionStorage.getItem(keyOf(project)));

export function useMarks(project: string): Marks {
  const text = useSyncExternalStore(subscribe, () => sessionStorage.getItem(keyOf(project)));
  return useMemo(() => parse(text), [text]);
}

export function writeMarks(project: string, marks: Marks): void {
  if (marks.first.length + marks.second.length === 0) sessionStorage.removeItem(keyOf(project));
  else sessionStorage.setItem(keyOf(project), JSON.stringify(marks));
  for (const listener of listeners) listener();
}

/** Marks items on a side, or takes their marks away where all of them have one. An item stands on one side. */
export function toggleMarks(marks: Marks, side: MarkSide, items: readonly HeldItem[]): Marks {
  const ids = new Set(items.map(({ id }) => id));
  const without = (list: readonly HeldItem[]) => list.filter(({ id }) => !ids.has(id));
  const rest = { first: without(marks.first), second: without(marks.second) };
  const isMarked = items.every(({ id }) => marks[side].some((one) => one.id === id));
  return isMarked ? rest : { ...rest, [side]: [...rest[side], ...items] };
}
