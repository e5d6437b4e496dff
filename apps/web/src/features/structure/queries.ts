import { type BodyOf, makeGroups, orderStructure, proposeStructure, readLinkNumbers } from '@coomb/contract';
import { counted, type Dependencies } from '@coomb/core';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';
import { notify } from '../../shared/ui/notices';

const bodyOf = ({ nodes, from, to, weight }: Dependencies) => ({ nodes, from: [...from], to: [...to], weight: [...weight] });
const common = { staleTime: Number.POSITIVE_INFINITY, retry: false, refetchOnWindowFocus: false } as const;

/** The order with the least feedback. What it is asked of is its key: what else changes in the project does not order the same things again. */
export function useOrder(project: string, edges: Dependencies | undefined, seconds: number, seed: number, enabled: boolean) {
  const client = useQueryClient();
  const body = edges && bodyOf(edges);
  const queryKey = ['structure order', project, body, seconds, seed];
  const query = useQuery({
    ...{ queryKey, enabled: enabled && edges !== undefined, ...common },
    queryFn: ({ signal }) => call(orderStructure, { params: { project }, body: { ...body!, seconds, seed }, signal }),
  });
  return { ...query, cancel: () => void client.cancelQueries({ queryKey }) };
}

export function useProposal(project: string, edges: Dependencies | undefined, seed: number, enabled: boolean) {
  const client = useQueryClient();
  const body = edges && bodyOf(edges);
  const queryKey = ['structure groups', project, body, seed];
  const query = useQuery({
    ...{ queryKey, enabled: enabled && edges !== undefined, ...common },
    queryFn: ({ signal }) => call(proposeStructure, { params: { project }, body: { ...body!, seed }, signal }),
  });
  return { ...query, cancel: () => void client.cancelQueries({ queryKey }) };
}

/** What links say in a field, where dependencies are weighed by one. */
export const useLinkNumbers = (project: string, field: string | undefined) =>
  useQuery({
    queryKey: [...projectKey(project), 'link numbers', field],
    queryFn: ({ signal }) => call(readLinkNumbers, { params: { project, field: field! }, signal }),
    enabled: field !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });

export const useMakeGroups = (project: string) =>
  useChange(project, async (body: BodyOf<typeof makeGroups>) => {
    const told = await call(makeGroups, { params: { project }, body });
    notify(
      `${told.items
        .map(({ reference }) => reference)
        .slice(0, 3)
        .join(', ')}${told.items.length > 3 ? ' …' : ''} made, with ${counted(told.links, 'link')}. Undo takes all of it back.`,
    );
    return told;
  });
