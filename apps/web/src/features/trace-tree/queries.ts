import { type BodyOf, growTrace, type ReplyOf } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export type Trace = ReplyOf<typeof growTrace>;
type Wish = NonNullable<BodyOf<typeof growTrace>>;

export const useTrace = (project: string, wish: Wish) =>
  useQuery({
    queryKey: [...projectKey(project), 'trace tree', wish],
    queryFn: ({ signal }) => call(growTrace, { params: { project }, body: wish, signal }),
    placeholderData: keepPreviousData,
  });
