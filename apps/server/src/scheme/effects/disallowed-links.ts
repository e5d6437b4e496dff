import { addToGroup, counted, isAllowed, offeredLinkKinds } from '@coomb/core';
import { CHANGE, type Effect, type EffectFamily, KEEP, REMOVE } from './effect.js';

/** Links that the scheme allowed and would allow no more. */
export const disallowedLinks: EffectFamily = {
  id: 'disallowed-links',
  find: (plan) => {
    const { state, before, after } = plan;
    const { graph, items } = state;
    const found = new Map<number, number[]>();
    for (let link = 0; link < graph.links; link++) {
      if (!graph.isAlive(link)) continue;
      const [from, to, kind] = [graph.from[link]!, graph.to[link]!, graph.kind[link]!];
      const was = before.linkKinds[kind];
      if (!was || items[from]!.withdrawn || items[to]!.withdrawn) continue;
      if (isAllowed(was, items[from]!.kind, items[to]!.kind) && !isAllowed(after.linkKinds[kind]!, plan.kindAfter(from), plan.kindAfter(to)))
        addToGroup(found, kind, link);
    }
    return [...found].map(([kind, links]): Effect => {
      const { id, phrase } = before.linkKinds[kind]!;
      const others = offeredLinkKinds(after).flatMap((other) => {
        const able = links.filter((link) => isAllowed(other, plan.kindAfter(graph.from[link]!), plan.kindAfter(graph.to[link]!)));
        return able.length > 0 ? [{ other, able }] : [];
      });
      return {
        id: `disallowed-links:${id}`,
        says: `${counted(links.length, 'link')} "${phrase}" would no longer be allowed`,
        rows: links.map((link) => ({ node: graph.from[link]!, phrase, other: graph.to[link]! })),
        choices: [
          { id: KEEP, label: 'Keep and list as findings' },
          ...others.map(({ other, able }) => ({
            id: `${CHANGE}${other.id}`,
            label: `Make ${able.length === links.length ? 'them' : `${able.length} of them`} "${other.phrase}"`,
          })),
          { id: REMOVE, label: 'Remove the links' },
        ],
        apply: (work, choice) => {
          const chosen = others.find(({ other }) => choice === `${CHANGE}${other.id}`);
          if (choice === REMOVE) for (const link of links) work.changeLink(state.linkIds.at(link), { withdraw: true });
          for (const link of chosen?.able ?? []) work.changeLink(state.linkIds.at(link), { kind: chosen!.other.id });
        },
      };
    });
  },
};
