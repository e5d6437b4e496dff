import { findKind } from '@coomb/core';
import { hasLink } from '../waiting.js';
import type { FigureFamily } from './figure-family.js';

/** `links:suspect`: items at the ends of suspect links; `links:none`: items that no link reaches. */
export const linkFigures = {
  id: 'links',
  describe: (_, [which]) =>
    which === 'suspect'
      ? { label: 'Items with suspect links', explains: 'An end of the link changed its meaning since the link was last confirmed.' }
      : which === 'none'
        ? { label: 'Items without any link', explains: 'Neither upstream nor downstream is anything linked to them.' }
        : undefined,
  collect: (state, [which]) => {
    const nodes = [...state.items.keys()].filter(
      (node) => state.isPresent(node) && !state.items[node]!.heading && !findKind(state.scheme, state.items[node]!.kind)?.informative,
    );
    if (which === 'none') return nodes.filter((node) => !hasLink(state, node));
    return nodes.filter((node) => [...state.graph.findLinks(node, 'out'), ...state.graph.findLinks(node, 'in')].some((link) => state.graph.isSuspect(link)));
  },
} satisfies FigureFamily;
