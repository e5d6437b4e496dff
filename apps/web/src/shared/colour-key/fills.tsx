import { readColours, type ReplyOf } from '@coomb/contract';
import type { Coat } from '@coomb/core';
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

/** What a key says of links: by the nodes of their ends and the number of their kind; of any kind where none is said. */
export type LinkCoats = (from: number, to: number, kind?: number) => Coat | undefined;

const Fills = createContext<{ items?: ReadonlyMap<string, Coat>; links?: LinkCoats }>({});

/** Tells everything within how items and links look by the key that is on. */
export function FillItems({ project, children }: { project: string; children: ReactNode }) {
  const colours = useColours(project)?.data;
  const coats = useMemo(() => {
    if (!colours) return {};
    return colours.about === 'links' ? { links: coatsOfLinks(colours) } : { items: coatsOfItems(colours) };
  }, [colours]);
  return <Fills value={coats}>{children}</Fills>;
}

type Colours = ReplyOf<typeof readColours>;

const coatsOfItems = ({ items, entries }: Colours) =>
  new Map(items.flatMap((references, entry) => references.map((reference): [string, Coat] => [reference, entries[entry]!])));

/** More kinds than a scheme has. */
const KINDS = 1000;

export function coatsOfLinks({ links, entries }: Pick<Colours, 'links' | 'entries'>): LinkCoats {
  const nodes = links.to.reduce((most, one) => Math.max(most, one), 0) + 1;
  const byKind = new Map<number, number>();
  const byEnds = new Map<number, number>();
  links.from.forEach((from, at) => {
    const key = from * nodes + links.to[at]!;
    const entry = links.entry[at]!;
    byKind.set(key * KINDS + links.kind[at]!, entry);
    if (!byEnds.has(key)) byEnds.set(key, entry);
  });
  return (from, to, kind) => {
    if (to >= nodes) return undefined;
    const key = from * nodes + to;
    const entry = kind === undefined ? byEnds.get(key) : byKind.get(key * KINDS + kind);
    return entry === undefined ? undefined : entries[entry];
  };
}

/** How items look, by reference; undefined where no key of items is on. */
export const useFills = (): ReadonlyMap<string, Coat> | undefined => useContext(Fills).items;
/** How links look; undefined where no key of links is on. */
export const useLinkCoats = (): LinkCoats | undefined => useContext(Fills).links;
