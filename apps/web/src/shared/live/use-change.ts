import { useMutation, useQueryClient } from '@tanstack/react-query';
import { projectKey } from '../api/keys';
import { notify, notifyError } from '../ui/notices';

/** A changing call that refreshes everything of the project when done. */
export function useChange<Input, Result>(project: string, change: (input: Input) => Promise<Result>, done?: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => {
      if (done) notify(done);
      return client.invalidateQueries({ queryKey: projectKey(project) });
    },
    onError: notifyError,
  });
}
