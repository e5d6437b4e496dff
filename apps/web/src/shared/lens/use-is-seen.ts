import { useMemo } from 'react';
import { useOutline } from '../live/project-queries';
import { useLens } from './use-lens';

/** Whether an item is seen through the lens that is on, and what becomes of those that are not; undefined where one looks at everything. */
export function useIsSeen(): { mode: 'only' | 'lit'; name: string; isSeen: (item: string) => boolean } | undefined {
  const lens = useLens();
  const { data } = useOutline();
  const [nodes, mode, name] = [lens?.nodes, lens?.mode, lens?.seen?.name];
  return useMemo(() => {
    if (!nodes || !mode || !data) return undefined;
    const ids = new Set(data.id.filter((_, row) => nodes.has(data.node[row]!)));
    return { mode, name: name ?? 'the lens', isSeen: (item: string) => ids.has(item) };
  }, [nodes, mode, name, data]);
}
