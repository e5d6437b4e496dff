import { readImpact, type ReplyOf } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../api/client';
import { projectKey } from '../api/keys';

/** What a change of some items would touch. */
export function useImpact(project: string, items: readonly string[], kinds: readonly string[], most: number | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'impact', items, kinds, most],
    queryFn: ({ signal }) =>
      call(readImpact, { params: { project }, body: { items: [...items], ...(kinds.length > 0 && { kinds: [...kinds] }), ...(most && { most }) }, signal }),
    enabled: items.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** "4 links would become suspect, 1 verification state would be another". */
export function sayImpact({ suspect, already, stale }: Pick<ReplyOf<typeof readImpact>, 'suspect' | 'already' | 'stale'>): string {
  const links =
    suspect === 0 && already > 0
      ? `${counted(already, 'link')} ${already === 1 ? 'is' : 'are'} suspect already`
      : `${counted(suspect, 'link')} would become suspect${already > 0 ? ` beside ${figure(already)} that ${already === 1 ? 'is' : 'are'}` : ''}`;
  return `${links}, ${counted(stale.length, 'verification state')} would be ${stale.length === 1 ? 'another' : 'others'}`;
}
