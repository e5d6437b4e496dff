import { counted } from '@coomb/core';
import type { EffectFamily } from './effect.js';

/** Kept recipes that name what goes out of use: files read by them would give what new items cannot be. */
export const namingRecipes: EffectFamily = {
  id: 'naming-recipes',
  find: async (plan) => {
    const gone = plan.edits.filter(({ before, after }) => after.retired && before && !before.retired && ['kind', 'field', 'linkKind'].includes(after.sort));
    if (gone.length === 0) return [];
    const keys = new Set(gone.map(({ after }) => after.key));
    const naming = (await plan.recipes()).filter(({ body }) => names(body, keys));
    if (naming.length === 0) return [];
    return [
      {
        id: 'naming-recipes',
        says: `${counted(naming.length, 'recipe')} ${naming.length === 1 ? 'names' : 'name'} what goes out of use`,
        rows: naming.map(({ name }) => ({ node: null, note: name })),
        choices: [],
      },
    ];
  },
};

const NAMING = new Set(['kind', 'field', 'linkKind', 'numberField']);

function names(body: unknown, keys: ReadonlySet<string>): boolean {
  if (typeof body !== 'object' || body === null) return false;
  return Object.entries(body).some(([key, value]) => (NAMING.has(key) && typeof value === 'string' && keys.has(value)) || names(value, keys));
}
