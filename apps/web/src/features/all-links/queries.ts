import { type BodyOf, findLinkIds, type LinkFilter, type linkGroups, type linkSorts, pasteLinks, queryLinks, removeLinks } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';
import { useWindows } from '../../shared/live/use-windows';

export interface ListWish {
  filter: LinkFilter;
  sort: (typeof linkSorts)[number];
  descending: 'yes' | 'no';
  group: (typeof linkGroups)[number];
}

/** A filter as the address of a call says it. */
export const asQuery = ({ kind, left, right, origin, ...rest }: LinkFilter) => ({
  ...rest,
  ...{ kind: kind.join(), left: left.join(), right: right.join(), origin: origin.join() },
});

export const fetchLinks = (project: string, { filter, ...wish }: ListWish, offset: number, limit: number, signal?: AbortSignal) =>
  call(queryLinks, { params: { project }, query: { ...asQuery(filter), ...wish, offset, limit }, ...(signal && { signal }) });

export function useLinkList(project: string, wish: ListWish) {
  return useWindows({
    key: [...projectKey(project), 'link list', wish],
    read: (offset, limit, signal) => fetchLinks(project, wish, offset, limit, signal),
    rowsOf: ({ rows }) => rows,
  });
}

/** Ids of all of them, in the order of the list. */
export const fetchLinkIds = (project: string, { filter, ...wish }: ListWish) =>
  call(findLinkIds, { params: { project }, query: { ...asQuery(filter), ...wish } });

export const useRemove = (project: string) => useChange(project, (links: string[]) => call(removeLinks, { params: { project }, body: { links } }));

type Pasted = NonNullable<BodyOf<typeof pasteLinks>>;

/** What would become of pasted cells, asked anew as they and the choices beside them change. */
export function useTriedPaste(project: string, body: Pasted | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'tried paste', body],
    queryFn: ({ signal }) => call(pasteLinks, { params: { project }, body: { ...body!, dryRun: true }, signal }),
    enabled: body !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
export const usePasteLinks = (project: string) => useChange(project, (body: Pasted) => call(pasteLinks, { params: { project }, body }));
