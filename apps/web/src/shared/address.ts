import { useCallback, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { z } from 'zod';

/** Filters, sort, selection and tab live in the address: read through a schema with defaults, written back without them. */
export function useAddress<S extends z.ZodObject>(schema: S): [z.output<S>, (change: Partial<z.output<S>>, options?: { replace?: boolean }) => void] {
  const [params, setParams] = useSearchParams();
  const values = useMemo(() => {
    const parsed = schema.safeParse(Object.fromEntries(params));
    return parsed.success ? parsed.data : schema.parse({});
  }, [schema, params]);
  const set = useCallback(
    (change: Partial<z.output<S>>, options: { replace?: boolean } = {}) =>
      setParams(
        (before) => {
          const next = new URLSearchParams(before);
          for (const [key, value] of Object.entries(change)) {
            if (value === undefined || value === null || value === false || String(value) === '') next.delete(key);
            else next.set(key, String(value));
          }
          return next;
        },
        { replace: options.replace ?? true },
      ),
    [setParams],
  );
  return [values, set];
}

/**
 * A value of the address that keys change in quick succession: it holds at once, and the address follows. What comes from elsewhere (Back, a
 * link) is taken over; what comes late of one's own writing is not.
 */
export function useQuick(value: string, write: (value: string) => void): [string, (value: string) => void] {
  const [now, setNow] = useState(value);
  const written = useRef<string[]>([]);
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    const at = written.current.indexOf(value);
    if (at >= 0) written.current.splice(0, at + 1);
    else {
      written.current = [];
      setNow(value);
    }
  }
  const set = useCallback(
    (next: string) => {
      written.current.push(next);
      setNow(next);
      write(next);
    },
    [write],
  );
  return [now, set];
}
