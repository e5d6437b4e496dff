import { type LiveEvent, sayWhere } from '@coomb/contract';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { call } from '../api/client';
import { readPerson } from '../api/person';

export type Here = Extract<LiveEvent, { type: 'people' }>['people'][number];

/** What this window calls itself towards the server, for as long as it is open. */
export const windowName = crypto.randomUUID();

let people: readonly Here[] = [];
/** Grows with every line that was opened: whoever listens anew says again where this window is. */
let lines = 0;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};
const listen = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export function setPeople(now: readonly Here[]): void {
  people = now;
  tell();
}

export function lineOpened(): void {
  lines++;
  tell();
}

/** Others who look at an item now, and whether they write in it. */
/** Others who look at each item now: one list for views that show many. */
export function useOthersByItem(): ReadonlyMap<string, readonly string[]> {
  const all = useSyncExternalStore(listen, () => people);
  const me = readPerson();
  return useMemo(() => {
    const found = new Map<string, string[]>();
    for (const { name, items } of all) if (name !== me) for (const item of items) found.set(item, [...(found.get(item) ?? []), name]);
    return found;
  }, [all, me]);
}

export function useOthersAt(item: string): { name: string; writes: boolean }[] {
  const all = useSyncExternalStore(listen, () => people);
  const me = readPerson();
  return all.filter(({ name, items }) => name !== me && items.includes(item)).map(({ name, writing }) => ({ name, writes: writing.includes(item) }));
}

/** Says which item this window shows, for as long as it does; a line that breaks is told again when it is back. */
export function useSayWhere(project: string, item: string, writing: boolean): void {
  const line = useSyncExternalStore(listen, () => lines);
  useEffect(() => {
    if (line === 0) return;
    const say = (at: string | null) =>
      call(sayWhere, { params: { project }, body: { window: windowName, item: at, writing: at !== null && writing } }).catch(() => {
        // Where somebody looks is worth no message when the line is down.
      });
    void say(item);
    return () => void say(null);
  }, [project, item, writing, line]);
}
