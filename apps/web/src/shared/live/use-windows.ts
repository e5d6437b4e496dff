import { keepPreviousData, type QueryKey, useQueries } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';

interface Wish<Row, Reply extends { total: number }> {
  key: QueryKey;
  read: (offset: number, limit: number, signal: AbortSignal) => Promise<Reply>;
  rowsOf: (reply: Reply) => readonly Row[];
  size?: number;
}

/** Windows that are asked for ahead of where one scrolls to, so that rows are there when they come into sight. */
const AHEAD = 2;

/**
 * A list that is too long to be sent whole: what lies in sight is asked for, window by window. `head` is the newest reply of the first window that
 * is known; `rowAt` gives undefined for rows that are still on their way.
 */
export function useWindows<Row, Reply extends { total: number }>({ key, read, rowsOf, size = 100 }: Wish<Row, Reply>) {
  const [{ from, to, ahead }, setSight] = useState({ from: 0, to: 0, ahead: 0 });
  const [most, setMost] = useState(0);
  const pages = useMemo(() => {
    const inSight = Array.from({ length: to - from + 1 }, (_, at) => from + at);
    const next = ahead === 0 ? [] : Array.from({ length: AHEAD }, (_, at) => (ahead > 0 ? to + 1 + at : from - 1 - at));
    return [...new Set([0, ...inSight, ...next.filter((page) => page >= 0 && page <= most)])];
  }, [from, to, ahead, most]);
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
      const [from, to] = [Math.floor(first / size), Math.floor(last / size)];
      setSight((before) => (before.from === from && before.to === to ? before : { from, to, ahead: Math.sign(from + to - before.from - before.to) }));
    },
    [size],
  );
  const head = windows[0];
  const lastPage = Math.max(0, Math.ceil((head?.data?.total ?? 0) / size) - 1);
  if (lastPage !== most) setMost(lastPage);
  const rowAt = (index: number): Row | undefined => {
    const at = pages.indexOf(Math.floor(index / size));
    const reply = windows[at];
    // What stands in for a window that is on its way belongs to another place of the list.
    if (!reply?.data || (reply.isPlaceholderData && at > 0)) return undefined;
    return rowsOf(reply.data)[index % size];
  };
  return { head: head?.data, error: head?.error ?? null, total: head?.data?.total ?? 0, rowAt, onSight };
}
