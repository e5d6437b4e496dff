import type { AnyShow } from './show.js';

export const kind: AnyShow = {
  sort: 'kind',
  offers: ({ kinds }) => [{ label: 'Kind', type: 'choice', values: kinds.map(({ label }) => label) }],
  read: ({ items, scheme }, node) => scheme.kinds.find(({ id }) => id === items[node]!.kind)?.label ?? items[node]!.kind,
};

export const layer: AnyShow = {
  sort: 'layer',
  offers: ({ layers }) => [{ label: 'Layer', type: 'choice', values: layers.map(({ label }) => label) }],
  read: ({ items, scheme }, node) => {
    const own = scheme.kinds.find(({ id }) => id === items[node]!.kind)?.layer;
    return scheme.layers.find(({ id }) => id === own)?.label ?? null;
  },
};
