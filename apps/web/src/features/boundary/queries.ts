import { addMember, type BodyOf, getBoundary, makeContext, type ReplyOf } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export type Boundary = ReplyOf<typeof getBoundary>;

export const useBoundary = (project: string, about: string) =>
  useQuery({
    queryKey: [...projectKey(project), 'boundary', about],
    queryFn: () => call(getBoundary, { params: { project }, query: about ? { about } : {} }),
    placeholderData: keepPreviousData,
  });

export const useMakeContext = (project: string) => useChange(project, (body: BodyOf<typeof makeContext>) => call(makeContext, { params: { project }, body }));
export const useAddMember = (project: string) =>
  useChange(project, ({ context, ...body }: { context: string } & ({ system: string } | { title: string })) =>
    call(addMember, { params: { project, context }, body: body as BodyOf<typeof addMember> }),
  );
