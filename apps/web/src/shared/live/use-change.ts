import { useMutation, useQueryClient } from '@tanstack/react-query';
import { projectKey } from '../api/keys';
import { notify, notifyError } from '../ui/notices';

/** A changing call that refreshes everything of the project when done. Failures are told as a notice, unless whoever asks tells them where they belong. */
export function useChange<Input, Result>(
  project: string,
  change: (input: Input) => Promise<Result>,
  done?: string,
  tell: (error: unknown) => void = notifyError,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => {
      if (done) notify(done);
      return client.invalidateQueries({ queryKey: projectKey(project) });
    },
    onError: tell,
  });
}
