import { keepPreviousData, type QueryKey, useQueries } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';

interface Wish<Row, Reply extends { total: number }> {
  key: QueryKey;
  read: (offset: number, limit: number, signal: AbortSignal) => Promise<Reply>;
  rowsOf: (reply: Reply) => readonly Row[];
  size?: number;
}

/**
 * A list that is too long to be sent whole: what lies in sight is asked for, window by window. `head` is the newest reply of the first window that
 * is known; `rowAt` gives undefined for rows that are still on their way.
 */
export function useWindows<Row, Reply extends { total: number }>({ key, read, rowsOf, size = 100 }: Wish<Row, Reply>) {
  const [sight, setSight] = useState({ first: 0, last: 0 });
  const from = Math.floor(sight.first / size);
  const to = Math.floor(sight.last / size);
  const pages = useMemo(() => [...new Set([0, ...Array.from({ length: to - from + 1 }, (_, at) => from + at)])], [from, to]);
  const windows = useQueries({
    queries: pages.map((page) => ({
      queryKey: [...key, page],
      queryFn: ({ signal }: { signal: AbortSignal }) => read(page * size, size, signal),
      placeholderData: keepPreviousData as (previous: Reply | undefined) => Reply | undefined,
    })),
  });
  const onSight = useCallback(
    // Within the same windows nothing new is asked for: whoever shows the list is not drawn anew for every row that comes into sight.
    (first: number, last: number) => {
      const next = { first: first - (first % size), last: last - (last % size) };
      setSight((before) => (before.first === next.first && before.last === next.last ? before : next));
    },
    [size],
  );
  const head = windows[0];
  const rowAt = (index: number): Row | undefined => {
    const at = pages.indexOf(Math.floor(index / size));
    const reply = windows[at];
    // What stands in for a window that is on its way belongs to another place of the list.
    if (!reply?.data || (reply.isPlaceholderData && at > 0)) return undefined;
    return rowsOf(reply.data)[index % size];
  };
  return { head: head?.data, error: head?.error ?? null, total: head?.data?.total ?? 0, rowAt, onSight };
}
