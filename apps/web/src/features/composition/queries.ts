import { listUses, type Use } from '@coomb/contract';
import { useQueries } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export type { Use };

/** Uses directly below each of several, by their paths. */
export const useUses = (project: string, paths: readonly string[]) =>
  useQueries({
    queries: paths.map((path) => ({
      queryKey: [...projectKey(project), 'composition', path],
      queryFn: () => call(listUses, { params: { project }, query: { path } }),
    })),
  });
