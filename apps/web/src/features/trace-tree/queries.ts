import { addRelated, type BodyOf, createLinks, growTrace, type ReplyOf } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export type Trace = ReplyOf<typeof growTrace>;
type Wish = NonNullable<BodyOf<typeof growTrace>>;

export const useTrace = (project: string, wish: Wish) =>
  useQuery({
    queryKey: [...projectKey(project), 'trace tree', wish],
    queryFn: ({ signal }) => call(growTrace, { params: { project }, body: wish, signal }),
    placeholderData: keepPreviousData,
  });

/** Makes an item where its kind is at home, linked from the beginning; or links one that is there. */
export const useAddRelated = (project: string) =>
  useChange(
    project,
    async ({
      item,
      linkKind,
      reversed,
      ...wanted
    }: { item: string; linkKind: string; reversed: boolean } & ({ title: string; kind: string; collection?: string } | { to: string })) => {
      if ('title' in wanted) return call(addRelated, { params: { project, item }, body: { ...wanted, linkKind, reversed } });
      const [from, to] = reversed ? [wanted.to, item] : [item, wanted.to];
      return call(createLinks, { params: { project }, body: { links: [{ linkKind, from, to }] } });
    },
  );
