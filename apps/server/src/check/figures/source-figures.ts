import { findBinding } from '@coomb/core';
import type { FigureFamily } from './figure-family.js';

/** `source:<source>`: the items that came from a source. */
export const sourceFigures = {
  id: 'source',
  describe: (_, [id]) => (id ? { label: 'Items of the source', explains: 'Everything that came from this file and is not withdrawn.' } : undefined),
  collect: (state, [id]) => {
    const found: number[] = [];
    state.items.forEach((item, node) => {
      if (id !== undefined && findBinding(item.bindings, id) && !item.withdrawn && !item.heading) found.push(node);
    });
    return found;
  },
} satisfies FigureFamily;
