import { type BodyOf, queryRegister, type RegisterAsked, saveRegister, writeCells } from '@coomb/contract';
import { call, fetchFile } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';
import { useWindows } from '../../shared/live/use-windows';

export const fetchRegister = (project: string, asked: RegisterAsked, offset: number, limit: number, signal?: AbortSignal) =>
  call(queryRegister, { params: { project }, body: { ...asked, offset, limit }, ...(signal && { signal }) });

export function useRegister(project: string, asked: RegisterAsked) {
  return useWindows({
    key: [...projectKey(project), 'register', asked],
    read: (offset, limit, signal) => fetchRegister(project, asked, offset, limit, signal),
    rowsOf: ({ rows }) => rows,
  });
}

export type Writing = NonNullable<BodyOf<typeof writeCells>>;
/** Refusals are told in the cells. */
export const useWriteCells = (project: string) =>
  useChange(project, (body: Writing) => call(writeCells, { params: { project }, body: { ...body, skipRefused: true } }));

export const saveAs = (project: string, format: 'xlsx' | 'csv', body: RegisterAsked & { name: string }) =>
  fetchFile(saveRegister, { params: { project, format }, body });
