import { createProject, listProjects } from '@coomb/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { notifyError } from '../../shared/ui/notices';

export function useProjects() {
  return useQuery({ queryKey: ['projects'], queryFn: () => call(listProjects) });
}

export function useCreateProject(onMade: (id: string) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (name: string) => call(createProject, { body: { name } }),
    onSuccess: ({ id }) => {
      void client.invalidateQueries({ queryKey: ['projects'] });
      onMade(id);
    },
    onError: notifyError,
  });
}
