import type { SavedView } from '@coomb/contract';
import { z } from 'zod';
import { parseJson } from '../../shared/read-json';
import type { Structure } from './things';

const schema = z.object({ groups: z.array(z.array(z.string())) });

export interface KeptGroups {
  groupOf: ReadonlyMap<string, number>;
  /** Things that were grouped then and are not shown now. */
  missing: (structure: Structure) => number;
}

/** Groups as they were kept; nothing where none were. */
export function readKept(view: Pick<SavedView, 'sort' | 'body'> | undefined): KeptGroups | undefined {
  const parsed = view?.sort === 'structure' ? schema.safeParse(parseJson(String(view.body?.result ?? ''))) : undefined;
  if (!parsed?.success) return undefined;
  const groupOf = new Map(parsed.data.groups.flatMap((ids, group) => ids.map((id) => [id, group] as const)));
  return {
    groupOf,
    missing: ({ things }) => {
      const shown = new Set(things.map(({ id }) => id));
      return [...groupOf.keys()].filter((id) => !shown.has(id)).length;
    },
  };
}

/** Groups of the things that are shown; what was in none then is in none of them now. */
export function groupsKept({ groupOf }: KeptGroups, { things }: Structure): Int32Array {
  let next = Math.max(-1, ...groupOf.values());
  return Int32Array.from(things, ({ id }) => groupOf.get(id) ?? ++next);
}
