import {
  type BodyOf,
  changeLinks,
  createLinks,
  getItem,
  listLinks,
  listUsages,
  listUsed,
  planLinks,
  refuseSuggestions,
  removeLinks,
  suggestLinks,
} from '@coomb/contract';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import type { HeldItem } from '../../shared/marks/at-hand';
import { useChange } from '../../shared/live/use-change';

export function useLinksBetween(project: string, left: string, right: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'links', left, right],
    queryFn: () => call(listLinks, { params: { project }, query: { left, right } }),
    placeholderData: keepPreviousData,
    enabled: left !== '' && right !== '',
  });
}

/** All links that items of a collection have. */
export function useLinksOfCollection(project: string, collection: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'links', collection, ''],
    queryFn: () => call(listLinks, { params: { project }, query: { left: collection } }),
    placeholderData: keepPreviousData,
  });
}

/** Items of which something holds in one use only, each with all its uses. */
export function useUsed(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'used'], queryFn: () => call(listUsed, { params: { project } }), placeholderData: keepPreviousData });
}

/** Every way in which an item is used; asked for once it is known which. */
export function useUsages(project: string, item: string | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'usages', item],
    queryFn: () => call(listUsages, { params: { project, item: item! } }),
    enabled: item !== undefined,
  }).data?.usages;
}

export function useSuggestions(project: string, item: string | undefined, collection: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'suggestions', item, collection],
    queryFn: ({ signal }) => call(suggestLinks, { params: { project, item: item! }, query: { collection }, signal }),
    enabled: item !== undefined && collection !== '',
  });
}

/** What linking some items with others would make. */
export function usePlannedLinks(project: string, left: readonly string[], right: readonly string[]) {
  return useQuery({
    queryKey: [...projectKey(project), 'planned links', left, right],
    queryFn: ({ signal }) => call(planLinks, { params: { project }, body: { left: [...left], right: [...right] }, signal }),
    retry: false,
  });
}

/** Makes all of them that may be made. */
export const useMakeMany = (project: string) =>
  useChange(project, (links: NonNullable<BodyOf<typeof createLinks>>['links']) =>
    call(createLinks, { params: { project }, body: { links, skipRefused: true } }),
  );
export const useRefuse = (project: string) =>
  useChange(project, (pair: { item: string; other: string }) => call(refuseSuggestions, { params: { project }, body: { pairs: [pair] } }));

/** Makes links; those that were suggested say so. */
export const useMakeLink = (project: string, origin: 'made' | 'suggested' = 'made') =>
  useChange(project, (links: NonNullable<BodyOf<typeof createLinks>>['links']) => call(createLinks, { params: { project }, body: { links, origin } }));
export const useUnlink = (project: string) => useChange(project, (links: string[]) => call(removeLinks, { params: { project }, body: { links } }));

/** Reads enough of an item, by its reference, to link it; nothing for sections, which are not linked. */
export function useFindHeld(project: string): (reference: string) => Promise<HeldItem | undefined> {
  const client = useQueryClient();
  return async (item) => {
    const { id, reference, title, kind, heading } = await client.fetchQuery({
      queryKey: [...projectKey(project), 'held', item],
      queryFn: () => call(getItem, { params: { project, item }, query: {} }),
      staleTime: 5000,
    });
    return heading ? undefined : { id, reference, title, kind };
  };
}

export const useChangeLinks = (project: string) => useChange(project, (body: BodyOf<typeof changeLinks>) => call(changeLinks, { params: { project }, body }));

/** What would become of a change, asked anew as it is composed. */
export function useTriedChange(project: string, body: NonNullable<BodyOf<typeof changeLinks>> | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'tried change', body],
    queryFn: ({ signal }) => call(changeLinks, { params: { project }, body: { ...body!, dryRun: true, skipRefused: true }, signal }),
    enabled: body !== undefined,
    retry: false,
  });
}
