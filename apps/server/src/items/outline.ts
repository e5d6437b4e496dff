import type { OutlineReply } from '@coomb/contract';
import { verificationStates } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';

/** The outline of a project in columns, with what each cell of the section needs to know. */
export function buildOutlineReply(state: ProjectState): OutlineReply {
  const { nodes, parent } = state.outline();
  const collections = new Map(state.contents.liveCollections().map((collection, index) => [collection.id, index]));
  const kinds = new Map(state.scheme.kinds.map((kind, index) => [kind.id, index]));
  const stateCodes = new Map(verificationStates.map((name, index) => [name, index]));
  const states = state.allStates();
  const links = countLinks(state);
  const gaps = countGaps(state);
  const column = <T>(read: (node: number) => T): T[] => Array.from(nodes, read);
  return {
    seq: state.seq,
    life: state.life,
    day: state.day,
    id: column((node) => state.items[node]!.id),
    node: Array.from(nodes),
    reference: column((node) => state.items[node]!.reference),
    title: column((node) => state.items[node]!.title),
    clause: state.hasClauses ? column((node) => state.clauseOf(node)) : [],
    kinds: [...kinds.keys()],
    collections: [...collections.keys()],
    kind: column((node) => kinds.get(state.items[node]!.kind) ?? -1),
    collection: column((node) => collections.get(state.items[node]!.collectionId) ?? -1),
    parent: Array.from(parent),
    heading: column((node) => (state.items[node]!.heading ? 1 : 0)),
    state: column((node) => stateCodes.get(states[node]!)!),
    up: column((node) => links.up[node]!),
    down: column((node) => links.down[node]!),
    suspect: column((node) => links.suspect[node]!),
    gaps: column((node) => gaps[node]!),
  };
}

/** Live links up and down of every node, and how many of them are suspect, in one pass over the links. */
export function countLinks(state: ProjectState): { up: Uint32Array; down: Uint32Array; suspect: Uint32Array } {
  const { graph } = state;
  const up = new Uint32Array(graph.nodes);
  const down = new Uint32Array(graph.nodes);
  const suspect = new Uint32Array(graph.nodes);
  const upstreamIsTo = state.scheme.linkKinds.map((kind) => kind.upstream === 'to');
  const present = new Uint8Array(graph.nodes);
  for (let node = 0; node < present.length; node++) present[node] = state.items[node]!.withdrawn ? 0 : 1;
  for (let link = 0; link < graph.links; link++) {
    const from = graph.from[link]!;
    const to = graph.to[link]!;
    if (!present[from] || !present[to] || !graph.isAlive(link)) continue;
    const toIsUp = upstreamIsTo[graph.kind[link]!];
    up[toIsUp ? from : to]!++;
    down[toIsUp ? to : from]!++;
    if (!graph.isSuspect(link)) continue;
    suspect[from]!++;
    suspect[to]!++;
  }
  return { up, down, suspect };
}

export function countGaps(state: ProjectState): Uint8Array {
  const gaps = new Uint8Array(state.items.length);
  for (const rule of state.scheme.rules) {
    const { subject } = state.question(rule);
    const coverage = state.coverage(rule);
    for (let node = 0; node < subject.length; node++) if (subject[node] && coverage.stateOf(node) === 'notMet') gaps[node]!++;
  }
  return gaps;
}
