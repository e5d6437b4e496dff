import { type BodyOf, clipPassage, keepSource, readSource, removeClipping, type ReplyOf } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export type SourceReading = ReplyOf<typeof readSource>;

export function useSource(project: string, source: string, as: 'tree' | 'text') {
  return useQuery({
    queryKey: [...projectKey(project), 'source', source, as],
    queryFn: () => call(readSource, { params: { project, source }, query: { as } }),
  });
}

export const useClip = (project: string, source: string) =>
  useChange(project, (body: BodyOf<typeof clipPassage>) => call(clipPassage, { params: { project, source }, body }));

export const useRemoveClipping = (project: string) =>
  useChange(project, (clipping: string) => call(removeClipping, { params: { project, clipping } }), 'Let go. The item stays; undo brings the mark back.');

export const useKeepSource = (project: string) =>
  useChange(project, ({ tray, again }: { tray: string; again?: string }) => call(keepSource, { params: { project, tray }, body: again ? { again } : {} }));
