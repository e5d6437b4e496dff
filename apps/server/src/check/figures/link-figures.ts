import type { FigureFamily } from './figure-family.js';

/** `links:suspect`: items at the ends of suspect links; `links:none`: items that no link reaches; `links:open`: both. */
export const linkFigures = {
  id: 'links',
  describe: (_, [which]) =>
    which === 'suspect'
      ? { label: 'Items with suspect links', explains: 'An end of the link changed its meaning since the link was last confirmed.' }
      : which === 'none'
        ? { label: 'Items without any link', explains: 'Neither upstream nor downstream is anything linked to them.' }
        : which === 'open'
          ? { label: 'Items to link or confirm', explains: 'No link reaches them, or one of their links is suspect.' }
          : undefined,
  collect: (state, [which]) => {
    const { linked, suspect } = state.linkMarks();
    const informative = new Set(state.scheme.kinds.filter((kind) => kind.informative).map((kind) => kind.id));
    const found: number[] = [];
    state.items.forEach((item, node) => {
      if (item.withdrawn || item.heading || informative.has(item.kind)) return;
      if ((which !== 'suspect' && !linked[node]) || (which !== 'none' && suspect[node])) found.push(node);
    });
    return found;
  },
} satisfies FigureFamily;
