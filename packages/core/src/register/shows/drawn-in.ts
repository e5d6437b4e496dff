import type { AnyShow } from './show.js';

/** Names of the drawings that show it. */
export const drawnIn: AnyShow = {
  sort: 'drawnIn',
  offers: () => [{ label: 'Drawn in', type: 'several' }],
  read: ({ drawnIn: find }, node) => {
    const names = find?.(node) ?? [];
    return names.length > 0 ? names : null;
  },
};
