import { useMemo, useSyncExternalStore } from 'react';
import { z } from 'zod';
import { parseJson } from '../read-json';

const schema = z.object({ seq: z.number().int(), says: z.string() });

/** An earlier moment that a project is looked at as of: the change after which things stood so, and how that is called. */
export type Moment = z.infer<typeof schema>;

const keyOf = (project: string) => `coomb.moment.${project}`;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

function parse(text: string | null): Moment | undefined {
  const parsed = schema.safeParse(parseJson(text));
  return parsed.success ? parsed.data : undefined;
}

/** The moment that this window looks at; nothing is now. */
export const momentOf = (project: string): Moment | undefined => parse(sessionStorage.getItem(keyOf(project)));

export function useMoment(project: string): Moment | undefined {
  const text = useSyncExternalStore(subscribe, () => sessionStorage.getItem(keyOf(project)));
  return useMemo(() => parse(text), [text]);
}

/** It stays while the window does, over pages; nothing goes back to now. */
export function lookAsOf(project: string, moment: Moment | undefined): void {
  if (moment) sessionStorage.setItem(keyOf(project), JSON.stringify(moment));
  else sessionStorage.removeItem(keyOf(project));
  for (const listener of listeners) listener();
}
