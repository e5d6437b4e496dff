import { findKind, isAllowed } from '../../scheme/scheme.js';
import { type ConsistencyRule, forEachLiveLink, kindsWithRoles, type RuleFinding } from '../consistency-rule.js';

export const skipsALayer: ConsistencyRule = {
  id: 'skips-a-layer',
  label: 'Skips a layer',
  explains: 'It goes past a layer whose items could stand in between by links of the same kind: what lies there does not know of it.',
  weight: 'look',
  find: (ground) => {
    const { scheme, graph, items } = ground;
    const going = kindsWithRoles(ground, ['derives', 'refines', 'realises', 'satisfies']);
    const layerOf = new Map(scheme.kinds.map(({ id, layer }) => [id, scheme.layers.findIndex((one) => one.id === layer)]));
    const goingKinds = scheme.linkKinds.filter((_, kind) => going[kind]);
    const mayGo = (a: string, b: string) => goingKinds.some((kind) => isAllowed(kind, a, b));
    const known = new Map<string, number[]>();
    /** Layers of which an item could stand between the two. */
    const layersBetween = (a: string, b: string): number[] => {
      const key = `${a} ${b}`;
      let found = known.get(key);
      if (found) return found;
      const ends = [layerOf.get(a) ?? -1, layerOf.get(b) ?? -1];
      const steps = scheme.kinds.filter(({ id }) => mayGo(a, id) && mayGo(id, b)).map(({ id }) => layerOf.get(id)!);
      found = ends.includes(-1) ? [] : [...new Set(steps)].filter((layer) => layer > Math.min(...ends) && layer < Math.max(...ends));
      known.set(key, found);
      return found;
    };
    const present = new Set(items.flatMap(({ kind, withdrawn, heading }) => (withdrawn || heading ? [] : [layerOf.get(kind)!])));
    const found: RuleFinding[] = [];
    forEachLiveLink(ground, (link, from, to) => {
      const kind = graph.kind[link]!;
      if (!going[kind] || items[from]!.withdrawn || items[to]!.withdrawn) return;
      const skipped = layersBetween(items[from]!.kind, items[to]!.kind).filter((layer) => present.has(layer));
      if (skipped.length === 0) return;
      const names = skipped.map((layer) => `"${scheme.layers[layer]!.label}"`).join(' and ');
      const says = `${scheme.linkKinds[kind]!.phrase} ${items[to]!.reference} (${findKind(scheme, items[to]!.kind)?.label.toLowerCase()}) past ${names}`;
      found.push({ nodes: [from, to], links: [link], says, mendings: [] });
    });
    return found;
  },
  examples: {
    fires: [{ items: { 'NEED-1': 'need', 'SYS-1': 'requirement', 'MOD-1': 'component' }, links: [['MOD-1', 'satisfies', 'NEED-1']] }],
    silent: [
      { items: { 'NEED-1': 'need', 'SYS-1': 'requirement', 'MOD-1': 'component' }, links: [['MOD-1', 'satisfies', 'SYS-1']] },
      // Nothing lies in the layer between yet.
      { items: { 'NEED-1': 'need', 'MOD-1': 'component' }, links: [['MOD-1', 'satisfies', 'NEED-1']] },
      // Tests verify whatever they verify.
      { items: { 'NEED-1': 'need', 'SYS-1': 'requirement', 'TC-1': 'test' }, links: [['TC-1', 'verifies', 'NEED-1']] },
    ],
  },
};
