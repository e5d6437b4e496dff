import { changeScheme, compareScheme, getScheme, getSchemeFile, openSchemeEffect, previewScheme, type ReplyOf, type SchemeWish } from '@coomb/contract';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { notifyError } from '../../shared/ui/notices';
import { useChange } from '../../shared/live/use-change';

export type SchemeReply = ReplyOf<typeof getScheme>;
export type Preview = ReplyOf<typeof previewScheme>;
export type Comparison = ReplyOf<typeof compareScheme>;
export type SchemeFile = ReplyOf<typeof getSchemeFile>;

export function useScheme(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'scheme'], queryFn: () => call(getScheme, { params: { project } }) });
}

/** What a change would do; asked again when the wish or the project is another. */
export function usePreview(project: string, wish: SchemeWish) {
  return useQuery({
    queryKey: [...projectKey(project), 'scheme preview', wish],
    queryFn: () => call(previewScheme, { params: { project }, body: wish }),
    enabled: wish.edits.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export function useEffectRows(project: string, effect: string, wish: SchemeWish, limit: number) {
  return useQuery({
    queryKey: [...projectKey(project), 'scheme effect', effect, limit, wish],
    queryFn: () => call(openSchemeEffect, { params: { project, effect }, query: { limit }, body: wish }),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export const useChangeScheme = (project: string) =>
  useChange(project, (body: SchemeWish) => call(changeScheme, { params: { project }, body }), 'The scheme is changed. Undo takes it back.');

export function useCompareScheme(project: string) {
  return useMutation({ mutationFn: (file: SchemeFile) => call(compareScheme, { params: { project }, body: { file } }), onError: notifyError });
}

export function loadSchemeFile(project: string): Promise<SchemeFile> {
  return call(getSchemeFile, { params: { project } });
}
