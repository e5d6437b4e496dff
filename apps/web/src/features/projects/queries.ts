import { type BodyOf, createProject, listProjects, setStanding } from '@coomb/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { notifyError } from '../../shared/ui/notices';

export function useProjects() {
  return useQuery({ queryKey: ['projects'], queryFn: () => call(listProjects) });
}

export function useCreateProject(onMade: (id: string) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: BodyOf<typeof createProject>) => call(createProject, { body }),
    onSuccess: ({ id }) => {
      void client.invalidateQueries({ queryKey: ['projects'] });
      onMade(id);
    },
    onError: notifyError,
  });
}

/** Sets a project aside, or puts it back. */
export function useSetStanding() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ project, standing }: { project: string } & BodyOf<typeof setStanding>) => call(setStanding, { params: { project }, body: { standing } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['projects'] }),
    onError: notifyError,
  });
}
