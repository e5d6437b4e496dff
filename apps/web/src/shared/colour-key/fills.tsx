import { readColours } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext, useMemo } from 'react';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { useKeyOn } from './key-on';

/** What the colour key that is on says; undefined where none is. */
export function useColours(project: string) {
  const key = useKeyOn(project);
  const query = useQuery({
    queryKey: [...projectKey(project), 'colours', key],
    queryFn: ({ signal }) => call(readColours, { params: { project, key: key! }, signal }),
    enabled: key !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  return key === undefined ? undefined : { key, data: query.data, error: query.error };
}

const Fills = createContext<ReadonlyMap<string, string> | undefined>(undefined);

/** Tells everything within which fill items have, by their references. */
export function FillItems({ project, children }: { project: string; children: ReactNode }) {
  const colours = useColours(project)?.data;
  const fills = useMemo(
    () => colours && new Map(colours.items.flatMap((references, entry) => references.map((reference) => [reference, colours.entries[entry]!.fill] as const))),
    [colours],
  );
  return <Fills value={fills}>{children}</Fills>;
}

/** Fills by reference; undefined where no key is on. */
export const useFills = (): ReadonlyMap<string, string> | undefined => useContext(Fills);
