import type { linkGroups } from '@coomb/contract';
import { useMemo } from 'react';
import { useProject } from '../../shared/live/project-queries';

const origins: Record<string, string> = {
  made: 'made here',
  imported: 'imported',
  suggested: 'suggested and accepted',
  clipped: 'clipped',
  received: 'received',
};

/** How kinds, layers and origins are called on screen. */
export function useNames() {
  const { scheme } = useProject();
  return useMemo(() => {
    const phrases = new Map(scheme.linkKinds.map(({ id, phrase }) => [id, phrase]));
    const layers = new Map(scheme.layers.map(({ id, label }) => [id, label]));
    const layerPair = (pair: string) =>
      pair
        .split('>')
        .map((layer) => layers.get(layer) ?? layer)
        .join(' → ');
    // Kinds may have a field in common.
    const fields = new Map(scheme.kinds.flatMap((kind) => kind.fields.map(({ id, label }) => [id, { id, label }] as const)));
    return {
      fields: [...fields.values()].sort((a, b) => a.label.localeCompare(b.label)),
      phrase: (kind: string) => phrases.get(kind) ?? kind,
      origin: (origin: string) => origins[origin] ?? origin,
      layers: layerPair,
      group: (sort: (typeof linkGroups)[number], id: string) =>
        sort === 'kind' ? (phrases.get(id) ?? id) : sort === 'layers' ? layerPair(id) : sort === 'origin' ? (origins[id] ?? id) : id || 'not said',
    };
  }, [scheme]);
}
export type Names = ReturnType<typeof useNames>;
