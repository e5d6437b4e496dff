import type { FigureFamily } from './figure-family.js';

/** `layer:<layer>`: every item of a layer, as the section shows them. */
export const layerFigures = {
  id: 'layer',
  describe: (state, [id]) => {
    const layer = state.scheme.layers.find((one) => one.id === id);
    return layer && { label: layer.label, explains: 'Every item of the layer.' };
  },
  collect: (state, [id]) => {
    const kinds = new Set(state.scheme.kinds.filter((kind) => kind.layer === id).map((kind) => kind.id));
    const found: number[] = [];
    state.items.forEach((item, node) => {
      if (kinds.has(item.kind) && !item.withdrawn && !item.heading) found.push(node);
    });
    return found;
  },
} satisfies FigureFamily;
