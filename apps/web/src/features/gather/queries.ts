import {
  type BodyOf,
  checkFile,
  dropTrayEntry,
  getTrayEntry,
  importFile,
  type Job,
  listRunResults,
  listRuns,
  listSources,
  listTray,
  readTrayAs,
  getJob,
} from '@coomb/contract';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { call, upload } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { notifyError } from '../../shared/ui/notices';
import { forgetDraft } from './recipe-forms/recipe-draft';

export function useSources(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'sources'], queryFn: () => call(listSources, { params: { project } }) });
}

export function useRuns(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'runs'], queryFn: () => call(listRuns, { params: { project } }) });
}

export function useRunResults(project: string, run: string) {
  return useQuery({ queryKey: [...projectKey(project), 'run', run], queryFn: () => call(listRunResults, { params: { project, run } }) });
}

export function useTrayEntry(project: string, tray: string) {
  return useQuery({ queryKey: ['tray', project, tray], queryFn: () => call(getTrayEntry, { params: { project, tray } }), staleTime: Number.POSITIVE_INFINITY });
}

/** Reads a file of separated values by another separator or mark; what was proposed or changed for it is proposed anew. */
export function useReadAs(project: string, tray: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (dialect: BodyOf<typeof readTrayAs>) => call(readTrayAs, { params: { project, tray }, body: dialect }),
    onSuccess: (entry) => {
      forgetDraft(tray);
      client.setQueryData(['tray', project, tray], entry);
    },
    onError: notifyError,
  });
}

export function useTray(project: string) {
  return useQuery({ queryKey: ['tray', project], queryFn: () => call(listTray, { params: { project } }), staleTime: 0 });
}

export function useDropTrayEntry(project: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (tray: string) => call(dropTrayEntry, { params: { project, tray } }),
    onSuccess: (_, tray) => {
      forgetDraft(tray);
      return client.invalidateQueries({ queryKey: ['tray', project], exact: true });
    },
  });
}

/** Hands files in, one after the other; what can be read of them lies in the tray even where another is refused. */
export function useUpload(project: string, onRead: (trays: string[]) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (files: readonly File[]) => {
      const read: string[] = [];
      const refused: Error[] = [];
      for (const file of files)
        await upload(project, file).then(
          (entry) => {
            client.setQueryData(['tray', project, entry.id], entry);
            read.push(entry.id);
          },
          (error: Error) => refused.push(error),
        );
      await client.invalidateQueries({ queryKey: ['tray', project], exact: true });
      if (refused.length) throw new Error(refused.map((error) => error.message).join('\n'));
      return read;
    },
    onSuccess: onRead,
  });
}

/** What an import by these recipes (as JSON) would find in the project. Any change of the project asks anew. */
/** Files that are on their way into the project: nothing is asked of them any more, for soon they wait no longer. */
const leaving = new Set<string>();
export const isWaiting = (tray: string) => !leaving.has(tray);

export function useImportCheck(project: string, tray: string, wish: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'check', tray, wish],
    enabled: () => isWaiting(tray),
    queryFn: () => call(checkFile, { params: { project, tray }, body: JSON.parse(wish) }),
    placeholderData: keepPreviousData,
  });
}

/** Starts the import and waits until its job has ended. */
export function useImport(project: string, tray: string) {
  const client = useQueryClient();
  useEffect(() => () => void leaving.delete(tray), [tray]);
  return useMutation({
    mutationFn: async (wish: BodyOf<typeof importFile>): Promise<Job> => {
      leaving.add(tray);
      const { job } = await call(importFile, { params: { project, tray }, body: wish });
      for (;;) {
        const now = await call(getJob, { params: { project, job } });
        if (now.state !== 'running') return now;
        await new Promise((resolve) => setTimeout(resolve, 150));
      }
    },
    onSuccess: (job) => {
      if (job.state === 'done') forgetDraft(tray);
      else leaving.delete(tray);
      return client.invalidateQueries({ queryKey: projectKey(project) });
    },
    onError: () => {
      leaving.delete(tray);
      return client.invalidateQueries({ queryKey: projectKey(project) });
    },
  });
}
