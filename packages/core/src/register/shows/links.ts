import type { AnyShow } from './show.js';

/** How many links of a kind it has, at one end; `of` is "from satisfies" or "to satisfies". */
export const links: AnyShow = {
  sort: 'links',
  offers: ({ linkKinds }) => [
    { label: 'Links', type: 'number' },
    ...linkKinds.flatMap(({ id, phrase, reverse }) => [
      { of: `from ${id}`, label: `Links: ${phrase}`, type: 'number' as const },
      { of: `to ${id}`, label: `Links: ${reverse}`, type: 'number' as const },
    ]),
  ],
  read: ({ graph, items, scheme, uses }, node, of, use) => {
    const [end, id] = of ? [of.slice(0, of.indexOf(' ')), of.slice(of.indexOf(' ') + 1)] : [undefined, undefined];
    const kind = id === undefined ? -1 : scheme.linkKinds.findIndex((one) => one.id === id);
    let count = 0;
    for (const direction of ['out', 'in'] as const) {
      if (end !== undefined && (end === 'from') !== (direction === 'out')) continue;
      graph.forEachLink(node, direction, (link, other) => {
        if (items[other]!.withdrawn || (kind < 0 ? id !== undefined : graph.kind[link] !== kind)) return;
        if (!use || !uses || uses.holds(link, direction === 'out' ? 'from' : 'to', use)) count++;
      });
    }
    return count;
  },
};

export const suspect: AnyShow = {
  sort: 'suspect',
  offers: () => [{ label: 'Suspect links', type: 'number' }],
  read: ({ graph, items, uses }, node, _, use) => {
    let count = 0;
    for (const direction of ['out', 'in'] as const)
      graph.forEachLink(node, direction, (link, other) => {
        if (items[other]!.withdrawn || !graph.isSuspect(link)) return;
        if (!use || !uses || uses.holds(link, direction === 'out' ? 'from' : 'to', use)) count++;
      });
    return count;
  },
};
