import { useCallback, useMemo } from 'react';
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
            if (value === undefined || value === null || value === '' || value === false) next.delete(key);
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
