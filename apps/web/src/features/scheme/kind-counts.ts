import { useMemo } from 'react';
import { useOutline, useProject } from '../../shared/live/project-queries';

/** How many items of each kind the project has, sections aside. */
export function useKindCounts(): ReadonlyMap<string, number> {
  const { scheme } = useProject();
  const outline = useOutline().data;
  return useMemo(() => {
    const counts = new Map<string, number>();
    outline?.kind.forEach((kind, row) => {
      const id = scheme.kinds[kind]?.id;
      if (id !== undefined && !outline.heading[row]) counts.set(id, (counts.get(id) ?? 0) + 1);
    });
    return counts;
  }, [outline, scheme]);
}
