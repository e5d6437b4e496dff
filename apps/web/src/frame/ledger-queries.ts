import { cancelJob, getUndo, getUpkeep, listJobs, redo, undo } from '@coomb/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../shared/api/client';
import { projectKey } from '../shared/api/keys';
import { notify, notifyError } from '../shared/ui/notices';

export function useUndoState(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'undo'], queryFn: () => call(getUndo, { params: { project } }) });
}

export function useJobs(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'jobs'], queryFn: () => call(listJobs, { params: { project } }) });
}

/** Copies of the data and room on the disk, looked at now and then. */
export function useUpkeep() {
  return useQuery({ queryKey: ['upkeep'], queryFn: () => call(getUpkeep), refetchInterval: 5 * 60_000, retry: false });
}

export function useTakeBack(project: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (which: 'undo' | 'redo') => call(which === 'undo' ? undo : redo, { params: { project } }),
    onSuccess: ({ action }, which) => {
      notify(`${which === 'undo' ? 'Undone' : 'Done again'}: ${action}`);
      void client.invalidateQueries({ queryKey: projectKey(project) });
    },
    onError: notifyError,
  });
}

export function useCancelJob(project: string) {
  return useMutation({ mutationFn: (job: string) => call(cancelJob, { params: { project, job } }), onError: notifyError });
}
