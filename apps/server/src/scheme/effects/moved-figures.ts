import { buildQuestion, type CoverageItems, counted, findKind, LiveCoverage, sayRule, type Scheme } from '@coomb/core';
import { ProjectVerification } from '../../project-state/project-verification.js';
import type { SchemePlan } from '../scheme-plan.js';
import type { Effect, EffectFamily, EffectRow } from './effect.js';

/** What rules need to know of items, by the kinds that they will have. */
async function itemsAfter(plan: SchemePlan, scheme: Scheme): Promise<CoverageItems> {
  const { state } = plan;
  const fields = new Set(scheme.rules.flatMap((rule) => [rule.of.field?.id, rule.reach.field?.id]).filter((field) => field !== undefined));
  const values = new Map<string, ReadonlyMap<string, unknown>>();
  for (const field of fields) values.set(field, await plan.valuesOf(field));
  const present = state.coverageItems();
  return {
    ...present,
    kindOf: (node) => plan.kindAfter(node),
    isHeading: (node) => state.items[node]!.heading || findKind(scheme, plan.kindAfter(node))?.informative === true,
    // A renamed value is a value of the field.
    fieldOf: (node, field) => plan.renamed(field, (values.get(field)?.get(state.items[node]!.id) ?? null) as never),
  };
}

/** Rules whose figures would move. */
export const movedRules: EffectFamily = {
  id: 'moved-rule',
  find: async (plan) => {
    const effects: Effect[] = [];
    const items = await itemsAfter(plan, plan.after);
    for (const rule of plan.after.rules) {
      const was = plan.before.rules.find((one) => one.id === rule.id);
      const coverage = new LiveCoverage(plan.state.graph, buildQuestion(plan.after, rule, items));
      const before = was && plan.state.coverage(was);
      const rows: EffectRow[] = [];
      let [openBefore, openAfter] = [0, 0];
      for (let node = 0; node < items.count; node++) {
        const [is, will] = [before?.stateOf(node) ?? 'notApplicable', coverage.stateOf(node)];
        if (is === 'notMet') openBefore++;
        if (will === 'notMet') openAfter++;
        if (is !== will) rows.push({ node, note: `${STATES[is]} → ${STATES[will]}` });
      }
      if (rows.length === 0) continue;
      effects.push({
        id: `moved-rule:${rule.id}`,
        says: was
          ? `"${rule.label}": ${counted(openBefore, 'item')} open now, ${openAfter} then`
          : `"${rule.label}" applies to ${counted(rows.length, 'item')}, ${openAfter} of them open: ${sayRule(plan.after, rule)}`,
        rows,
        choices: [],
      });
    }
    for (const rule of plan.before.rules) {
      if (plan.after.rules.some((one) => one.id === rule.id)) continue;
      const waived = [...plan.state.waivers.values()].filter((waiver) => waiver.rule === rule.id && plan.state.waivers.isActive(waiver));
      if (waived.length > 0)
        effects.push({
          id: `idle-waivers:${rule.id}`,
          says: `${counted(waived.length, 'waiver')} of "${rule.label}" will wait until the rule is back`,
          rows: waived.flatMap(({ itemId, reason }) => {
            const node = plan.state.nodeOf.get(itemId);
            return node === undefined ? [] : [{ node, note: reason }];
          }),
          choices: [],
        });
    }
    return effects;
  },
};

const STATES = { met: 'met', suspect: 'met by suspect links', waived: 'waived', notMet: 'not met', notApplicable: 'not asked' } as const;

/** Items whose verification state would be another. */
export const movedStates: EffectFamily = {
  id: 'moved-states',
  find: (plan) => {
    const { state } = plan;
    const facts = ({ verification, kinds, linkKinds }: Scheme) =>
      JSON.stringify([
        verification,
        kinds.filter((kind) => kind.roles?.includes('test')).map((kind) => kind.id),
        linkKinds.map((kind) => kind.retired ?? false),
      ]);
    const moves = state.items.some((item) => !item.withdrawn && plan.kindAfter(item.node) !== item.kind);
    if (!moves && facts(plan.before) === facts(plan.after)) return [];
    const items = moves ? state.items.map((item) => ({ ...item, kind: plan.kindAfter(item.node) })) : state.items;
    const then = new ProjectVerification({
      scheme: () => plan.after,
      graph: state.graph,
      items,
      latest: (item) => state.latest.get(item),
      waived: (rule) => state.waivers.itemsWaived(rule),
    }).states();
    const now = state.allStates();
    const rows = now.flatMap((is, node) => (is === then[node] ? [] : [{ node, note: `${is} → ${then[node]}` }]));
    return rows.length === 0 ? [] : [{ id: 'moved-states', says: `${counted(rows.length, 'item')} would have another verification state`, rows, choices: [] }];
  },
};
