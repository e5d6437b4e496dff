import { counted, offeredKinds } from '@coomb/core';
import { CHANGE, type Effect, type EffectFamily, KEEP } from './effect.js';

/** Items of kinds that go out of use, and collections that make them. */
export const retiredKinds: EffectFamily = {
  id: 'retired-kind',
  find: (plan) => {
    const effects: Effect[] = [];
    for (const { before, after } of plan.editsOf('kind')) {
      if (!after.retired || !before || before.retired) continue;
      const { key } = after;
      const others = offeredKinds(plan.after);
      const near = [...others].sort((a, b) => Number(b.layer === before.body.layer) - Number(a.layer === before.body.layer));
      const nodes = plan.state.items.filter((item) => !item.withdrawn && item.kind === key).map(({ node }) => ({ node }));
      if (nodes.length > 0)
        effects.push({
          id: `retired-kind:${key}`,
          says: `${counted(nodes.length, 'item')} ${nodes.length === 1 ? 'is' : 'are'} of the kind "${before.body.label}"`,
          rows: nodes,
          choices: [
            { id: KEEP, label: 'Keep and list as findings' },
            ...near.map((kind) => ({ id: `${CHANGE}${kind.id}`, label: `Make them ${kind.plural.toLowerCase()}` })),
            { id: 'withdraw', label: 'Withdraw the items' },
          ],
          apply: (work, choice) => {
            for (const { node } of nodes)
              if (choice !== KEEP)
                work.changeItem(plan.state.items[node]!.id, (row) => {
                  if (choice === 'withdraw') row.withdrawn = true;
                  else row.kind = choice.slice(CHANGE.length);
                });
          },
        });
      const collections = plan.state.contents.liveCollections().filter((collection) => collection.kind === key);
      if (collections.length > 0 && near.length > 0)
        effects.push({
          id: `retired-kind-of-new:${key}`,
          says: `${counted(collections.length, 'collection')} ${collections.length === 1 ? 'makes' : 'make'} new items of the kind "${before.body.label}"`,
          rows: collections.map(({ name }) => ({ node: null, note: name })),
          choices: near.map((kind) => ({ id: `${CHANGE}${kind.id}`, label: `New items become ${kind.plural.toLowerCase()}` })),
          apply: (work, choice) => {
            for (const { id } of collections) work.changeCollection(id, choice.slice(CHANGE.length));
          },
        });
    }
    return effects;
  },
};
