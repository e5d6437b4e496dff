import { addFields, type BodyOf, checkFile, getTrayEntry, importFile, type Job, listRunResults, listRuns, listSources, getJob } from '@coomb/contract';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, upload } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { projectQuery } from '../../shared/live/project-queries';

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

export function useUpload(project: string, onRead: (tray: string) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => upload(project, file),
    onSuccess: (entry) => {
      client.setQueryData(['tray', project, entry.id], entry);
      onRead(entry.id);
    },
  });
}

/** What an import by these recipes (as JSON) would find in the project. Any change of the project asks anew. */
export function useImportCheck(project: string, tray: string, wish: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'check', tray, wish],
    queryFn: () => call(checkFile, { params: { project, tray }, body: JSON.parse(wish) }),
    placeholderData: keepPreviousData,
  });
}

/** Starts the import and waits until its job has ended. */
export function useImport(project: string, tray: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (wish: BodyOf<typeof importFile>): Promise<Job> => {
      const { job } = await call(importFile, { params: { project, tray }, body: wish });
      for (;;) {
        const now = await call(getJob, { params: { project, job } });
        if (now.state !== 'running') return now;
        await new Promise((resolve) => setTimeout(resolve, 150));
      }
    },
    onSuccess: () => client.invalidateQueries({ queryKey: projectKey(project) }),
  });
}

/** Adds fields to kinds; done once the project is known with them. */
export function useAddFields(project: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (fields: NonNullable<BodyOf<typeof addFields>>['fields']) => (await call(addFields, { params: { project }, body: { fields } })).fields,
    onSuccess: () => client.invalidateQueries({ queryKey: projectQuery(project).queryKey }),
  });
}
