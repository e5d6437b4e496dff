import { useSyncExternalStore } from 'react';

const keyOf = (project: string) => `coomb.colours.${project}`;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** The kept colour key that is on in this window; nothing colours by state. */
export const useKeyOn = (project: string): string | undefined => useSyncExternalStore(subscribe, () => sessionStorage.getItem(keyOf(project))) ?? undefined;

export function colourBy(project: string, key: string | undefined): void {
  if (key) sessionStorage.setItem(keyOf(project), key);
  else sessionStorage.removeItem(keyOf(project));
  for (const listener of listeners) listener();
}
