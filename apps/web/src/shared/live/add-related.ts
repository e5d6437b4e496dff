import { addRelated, createLinks } from '@coomb/contract';
import { call } from '../api/client';
import { useChange } from './use-change';

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
