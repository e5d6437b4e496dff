import { counted } from '@coomb/core';
import type { Effect, EffectFamily } from './effect.js';

/** Choices that get another name: on the items too. */
export const renamedOptions: EffectFamily = {
  id: 'renamed-option',
  find: async (plan) => {
    const effects: Effect[] = [];
    for (const { field, from, to } of plan.wish.renames) {
      const values = [...(await plan.valuesOf(field))].filter(([, value]) => (Array.isArray(value) ? value.includes(from) : value === from));
      const rows = values.flatMap(([id]) => nodeOf(plan.state, id));
      if (rows.length === 0) continue;
      effects.push({
        id: `renamed-option:${field}:${from}`,
        says: `${counted(rows.length, 'item')} will say "${to}" where ${rows.length === 1 ? 'it says' : 'they say'} "${from}"`,
        rows,
        choices: [],
        apply: (work) => {
          for (const [id, value] of values) work.setField(id, field, plan.renamed(field, value));
        },
      });
    }
    return effects;
  },
};

/** The row of an item, where the project has it. */
export function nodeOf(state: { nodeOf: ReadonlyMap<string, number> }, id: string): { node: number }[] {
  const node = state.nodeOf.get(id);
  return node === undefined ? [] : [{ node }];
}
