import { useMemo, useSyncExternalStore } from 'react';
import { z } from 'zod';
import { parseJson } from '../read-json';

const schema = z.object({ lens: z.string(), mode: z.enum(['only', 'lit']) });

/** The lens that a project is looked at through in this window, and whether what it does not show is left out or faint. */
export type Through = z.infer<typeof schema>;

const keyOf = (project: string) => `coomb.through.${project}`;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

function parse(text: string | null): Through | undefined {
  const parsed = schema.safeParse(parseJson(text));
  return parsed.success ? parsed.data : undefined;
}

export function useThrough(project: string): Through | undefined {
  const text = useSyncExternalStore(subscribe, () => sessionStorage.getItem(keyOf(project)));
  return useMemo(() => parse(text), [text]);
}

/** It stays while the window does, over pages; nothing looks at everything. */
export function lookThrough(project: string, through: Through | undefined): void {
  if (through) sessionStorage.setItem(keyOf(project), JSON.stringify(through));
  else sessionStorage.removeItem(keyOf(project));
  for (const listener of listeners) listener();
}

/** The lens after or before the one that is on, through none between the last and the first. */
export function nextLens(lenses: readonly string[], now: string | undefined, by: 1 | -1): string | undefined {
  const places = [undefined, ...lenses];
  const at = Math.max(0, places.indexOf(now));
  return places[(at + by + places.length) % places.length];
}
