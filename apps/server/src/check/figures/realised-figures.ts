import { type RealisedBy, readRealised, realisingLayers } from '../realisation.js';
import type { FigureFamily } from './figure-family.js';

const words: Record<RealisedBy, string> = {
  next: 'realised by the next layer',
  below: 'realised further below only',
  none: 'not realised yet',
};

/** `realised:<layer>:<next|below|none>`: items of a layer by what makes them real. */
export const realisedFigures = {
  id: 'realised',
  describe: (state, [id, by]) => {
    const layer = realisingLayers(state.scheme).find((one) => one.id === id);
    if (!layer || !by || !(by in words)) return undefined;
    return { label: `${layer.label}: ${words[by as RealisedBy]}`, explains: 'By links that lead down from an item to one of a lower layer.' };
  },
  collect: (state, [id, wanted]) => [...readRealised(state, id!).by].flatMap(([node, by]) => (by === wanted ? [node] : [])).sort((a, b) => a - b),
} satisfies FigureFamily;
