import { type BodyOf, createItem, createLinks, growTrace, type ReplyOf } from '@coomb/contract';
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

/** Makes an item where its kind is at home, and links it; or links one that is there. */
export const useAddRelated = (project: string) =>
  useChange(
    project,
    async ({
      item,
      title,
      kind,
      linkKind,
      reversed,
      to,
    }: {
      item: string;
      title?: string;
      kind?: string;
      linkKind: string;
      reversed: boolean;
      to?: string;
    }) => {
      const other = to ?? (await call(createItem, { params: { project }, body: { title: title!, kind: kind! } as BodyOf<typeof createItem> })).id;
      return call(createLinks, {
        params: { project },
        body: { links: [reversed ? { linkKind, from: other, to: item } : { linkKind, from: item, to: other }] },
      });
    },
  );
