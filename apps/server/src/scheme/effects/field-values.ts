import { convertValue, counted, type Field, type FieldValue, fitsField, readFieldValue, type SchemePart } from '@coomb/core';
import type { SchemePlan } from '../scheme-plan.js';
import { CHANGE, type Effect, type EffectFamily, KEEP, REMOVE } from './effect.js';
import { nodeOf } from './renamed-options.js';

type FieldPart = Extract<SchemePart, { sort: 'field' }>;
const toField = ({ key, body: { kinds: _, linkKinds: __, ...body } }: FieldPart): Field => ({ id: key, ...body });
const say = (value: FieldValue) => (Array.isArray(value) ? value.join(', ') : String(value));

/** Values of items that are of a kind, as they will be called. */
async function valuesWithin(plan: SchemePlan, field: string, kinds: readonly string[]): Promise<[id: string, value: FieldValue][]> {
  const found: [string, FieldValue][] = [];
  for (const [id, value] of await plan.valuesOf(field)) {
    const node = plan.state.nodeOf.get(id);
    if (node !== undefined && kinds.includes(plan.kindAfter(node))) found.push([id, plan.renamed(field, value)]);
  }
  return found;
}

/** Values that a field no longer takes: of another type, or a choice that is offered no more. */
export const unfitValues: EffectFamily = {
  id: 'unfit-values',
  find: async (plan) => {
    const effects: Effect[] = [];
    for (const { before, after } of plan.editsOf('field')) {
      if (!before || before.retired || after.retired) continue;
      const [was, will] = [toField(before), toField(after)];
      if (was.type === will.type && JSON.stringify(was.options) === JSON.stringify(will.options)) continue;
      const kept = before.body.kinds.filter((kind) => after.body.kinds.includes(kind));
      const renamed = { ...was, options: was.options?.map((option) => say(plan.renamed(was.id, option))) };
      const values = (await valuesWithin(plan, after.key, kept)).filter(([, value]) => !fitsField(will, value) && fitsField(renamed as Field, value));
      if (values.length === 0) continue;
      const converted = new Map(values.map(([id, value]) => [id, convertValue(value, will, readFieldValue)]));
      const able = [...converted.values()].filter((value) => value !== undefined).length;
      const options = will.type === 'choice' ? (will.options ?? []) : [];
      effects.push({
        id: `unfit-values:${after.key}`,
        says: `${counted(values.length, 'item')} ${values.length === 1 ? 'has' : 'have'} a value of "${will.label}" that it no longer takes`,
        rows: values.flatMap(([id, value]) => nodeOf(plan.state, id).map((row) => ({ ...row, note: say(value) }))),
        choices: [
          { id: KEEP, label: 'Keep and list as findings' },
          ...(able > 0 ? [{ id: 'convert', label: `Read anew: ${able} of ${values.length} can be` }] : []),
          ...options.map((option) => ({ id: `${CHANGE}${option}`, label: `Make it "${option}"` })),
          { id: REMOVE, label: 'Empty the field' },
        ],
        apply: (work, choice) => {
          for (const [id] of values) {
            const to = choice === REMOVE ? null : choice.startsWith(CHANGE) ? choice.slice(CHANGE.length) : converted.get(id);
            if (choice !== KEEP && to !== undefined) work.setField(id, after.key, to);
          }
        },
      });
    }
    return effects;
  },
};

/** Values of a field that its items no longer have. */
export const hiddenValues: EffectFamily = {
  id: 'hidden-values',
  find: async (plan) => {
    const effects: Effect[] = [];
    for (const { before, after } of plan.editsOf('field')) {
      if (!before || before.retired) continue;
      const gone = after.retired ? before.body.kinds : before.body.kinds.filter((kind) => !after.body.kinds.includes(kind));
      const values = gone.length > 0 ? await valuesWithin(plan, after.key, gone) : [];
      if (values.length === 0) continue;
      effects.push({
        id: `hidden-values:${after.key}`,
        says: `${counted(values.length, 'item')} ${values.length === 1 ? 'has' : 'have'} a value of "${before.body.label}" that nobody will see`,
        rows: values.flatMap(([id, value]) => nodeOf(plan.state, id).map((row) => ({ ...row, note: say(value) }))),
        choices: [
          { id: KEEP, label: 'Keep out of sight: it comes back with the field' },
          { id: REMOVE, label: 'Take the values away' },
        ],
        apply: (work, choice) => {
          if (choice === REMOVE) for (const [id] of values) work.setField(id, after.key, null);
        },
      });
    }
    return effects;
  },
};

/** Items without a value that they now must have. */
export const emptyRequired: EffectFamily = {
  id: 'empty-required',
  find: async (plan) => {
    const effects: Effect[] = [];
    for (const { before, after } of plan.editsOf('field')) {
      if (after.retired || !after.body.required) continue;
      const known = before && !before.retired && before.body.required ? before.body.kinds : [];
      const kinds = after.body.kinds.filter((kind) => !known.includes(kind));
      const values = await plan.valuesOf(after.key);
      const empty = plan.state.items.filter(
        (item) => !item.withdrawn && !item.heading && kinds.includes(plan.kindAfter(item.node)) && values.get(item.id) === undefined,
      );
      if (empty.length === 0) continue;
      const usual = after.body.default ?? null;
      effects.push({
        id: `empty-required:${after.key}`,
        says: `${counted(empty.length, 'item')} ${empty.length === 1 ? 'has' : 'have'} no "${after.body.label}"`,
        rows: empty.map(({ node }) => ({ node })),
        choices: [{ id: KEEP, label: 'List as findings' }, ...(usual === null ? [] : [{ id: 'fill', label: `Fill in the default, "${say(usual)}"` }])],
        apply: (work, choice) => {
          if (choice === 'fill') for (const { id } of empty) work.setField(id, after.key, usual);
        },
      });
    }
    return effects;
  },
};
