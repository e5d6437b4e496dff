import { findInconsistencies, phraseAt, type RuleFinding, sharePercent } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';
import type { FindingGround } from './finding-ground.js';
import type { FindingSource, Found } from './finding-source.js';

/** Suspect links, and whatever rules of consistency find. */
export const linkFindings: FindingSource = {
  find: (state, ground) => [
    {
      id: 'suspect',
      label: 'Suspect links',
      explains: 'An end of the link came to say something else since somebody last confirmed the link.',
      group: 'links',
      weight: 'wrong',
      found: findSuspect(state),
    },
    {
      id: 'little-speaks-for',
      label: 'Likely wrong',
      explains: 'Far less speaks for the link than for others of its kind: words, places and the links around both ends.',
      group: 'links',
      weight: 'look',
      found: findDoubtful(state, ground),
    },
    ...findInconsistencies(ground).map(({ rule: { id, label, explains, weight }, findings }) => ({
      ...{ id, label, explains, weight, group: 'links' as const },
      found: findings.map((one): Found => {
        const { nodes, links, says, mendings } = one;
        return { key: `${id}:${nameOf(state, one)}`, node: nodes[0]!, other: nodes[1] ?? -1, links, says, mendings };
      }),
    })),
  ],
};

/** What a finding is known by beside its rule: the links that it is about, else what waits, else its items. */
function nameOf(state: ProjectState, { links, waiting, nodes, about }: RuleFinding): string {
  const ids = links.map((link) => state.linkIds.at(link)).toSorted();
  if (ids.length > 0) return ids.length <= 2 ? ids.join('+') : `${ids[0]}+${ids.length - 1}`;
  return waiting ?? [...nodes.map((node) => state.items[node]!.id), about ?? ''].join('+');
}

function findDoubtful(state: ProjectState, { doubts }: FindingGround): Found[] {
  const { graph, scheme, linkIds } = state;
  return doubts.flatMap(({ link, end, standing, usual }): Found[] => {
    const [node, other] = end === 'from' ? [graph.from[link]!, graph.to[link]!] : [graph.to[link]!, graph.from[link]!];
    if (!graph.isAlive(link) || !state.isPresent(node) || !state.isPresent(other)) return [];
    const phrase = phraseAt(scheme.linkKinds[graph.kind[link]!]!, end);
    const there = state.contents.collections.find(({ id }) => id === state.items[other]!.collectionId)?.name ?? 'its collection';
    const says = `${phrase} ${state.items[other]!.reference}, though more speaks for ${sharePercent(1 - standing, 1)} of “${there}”; nine of ten such links stand above ${sharePercent(usual, 1)} of it`;
    return [{ key: `little-speaks-for:${linkIds.at(link)}`, node, other, links: [link], says, mendings: [{ sort: 'removeLink', link }] }];
  });
}

function findSuspect(state: ProjectState): Found[] {
  const { graph, scheme } = state;
  const found: Found[] = [];
  for (let link = 0; link < graph.links; link++) {
    if (!graph.isAlive(link) || !graph.isSuspect(link)) continue;
    const [from, to] = [graph.from[link]!, graph.to[link]!];
    if (!state.isPresent(from) || !state.isPresent(to)) continue;
    const ends = state.outdatedEnds(link);
    const at = (ends.to?.now ?? -1) > (ends.from?.now ?? -1) ? 'to' : 'from';
    const [node, other] = at === 'from' ? [from, to] : [to, from];
    const says = `changed since it was confirmed that it ${phraseAt(scheme.linkKinds[graph.kind[link]!]!, at)} ${state.items[other]!.reference}`;
    found.push({ key: `suspect:${state.linkIds.at(link)}`, node, other, links: [link], says, mendings: [{ sort: 'confirmLink', link }] });
  }
  return found;
}
