import { listWholes } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/client';
import { projectKey } from '../api/keys';

/** Components that are made of parts, those first that nothing else is made of. */
export const useWholes = (project: string) =>
  useQuery({ queryKey: [...projectKey(project), 'composition'], queryFn: () => call(listWholes, { params: { project } }) });
