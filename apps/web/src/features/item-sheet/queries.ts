import { useChange } from '../../shared/live/use-change';
import {
  type BodyOf,
  confirmLinks,
  createItem,
  createWaiver,
  editItem,
  editLink,
  endWaiting,
  explainCoverage,
  getHistory,
  getItem,
  getLinkDifference,
  joinItems,
  joinWaitingEnd,
  listUsages,
  moveItem,
  removeLinks,
  type ReplyOf,
  setInUsage,
  setKinds,
  splitItem,
  withdrawItems,
  restoreItems,
  withdrawWaiver,
} from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { counted } from '@coomb/core';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { notify } from '../../shared/ui/notices';
import type { Split } from './ItemEditor';

export type Sheet = ReplyOf<typeof getItem>;

/** In a use, coverage is told as it stands there. */
export function useSheet(project: string, item: string, use?: readonly string[]) {
  return useQuery({
    queryKey: [...projectKey(project), 'item', item, ...(use ? [use.join()] : [])],
    queryFn: () => call(getItem, { params: { project, item }, query: use ? { use: use.join() } : {} }),
    placeholderData: keepPreviousData,
  });
}

export function useUsages(project: string, item: string, enabled: boolean) {
  return useQuery({ queryKey: [...projectKey(project), 'usages', item], queryFn: () => call(listUsages, { params: { project, item } }), enabled });
}

export function useHistory(project: string, item: string) {
  return useQuery({ queryKey: [...projectKey(project), 'history', item], queryFn: () => call(getHistory, { params: { project, item } }) });
}

export function useExplanation(project: string, rule: string, item: string, enabled: boolean) {
  return useQuery({
    queryKey: [...projectKey(project), 'why', rule, item],
    queryFn: () => call(explainCoverage, { params: { project, rule, item } }),
    enabled,
  });
}

export function useLinkDifference(project: string, link: string) {
  return useQuery({ queryKey: [...projectKey(project), 'difference', link], queryFn: () => call(getLinkDifference, { params: { project, link } }) });
}

/** The editor tells below the text why it was not stored. */
const toldByEditor = () => {};
export const useEditItem = (project: string) =>
  useChange(
    project,
    ({ id, ...body }: BodyOf<typeof editItem> & { id: string }) => call(editItem, { params: { project, item: id }, body }),
    undefined,
    toldByEditor,
  );
export const useAddItem = (project: string) =>
  useChange(project, (body: BodyOf<typeof createItem>) => call(createItem, { params: { project }, body }), undefined, toldByEditor);
/** Makes two items of one. Fields that were written as well are stored first. */
export const useSplitItem = (project: string) =>
  useChange(project, async ({ id, written, revision, before, behind }: Split & { id: string }) => {
    const params = { project, item: id };
    const base = written.fields ? (await call(editItem, { params, body: { revision, fields: written.fields } })).revision : revision;
    const told = await call(splitItem, {
      params,
      body: { revision: base, html: before, rest: { html: behind }, ...(written.title && { title: written.title }) },
    });
    notify(
      `${told.item.reference} was split off.${told.links > 0 ? ` ${counted(told.links, 'link')} ${told.links === 1 ? 'was' : 'were'} copied to it, suspect: look whether ${told.links === 1 ? 'it holds' : 'they hold'}.` : ''}`,
    );
    return told;
  });

/** Takes an item into another one, as both are now. */
export const useJoinItems = (project: string) =>
  useChange(project, async ({ item, other }: { item: string; other: string }) => {
    const [one, two] = await Promise.all([call(getItem, { params: { project, item } }), call(getItem, { params: { project, item: other } })]);
    const told = await call(joinItems, { params: { project, item: one.id }, body: { revision: one.revision, other: two.id, otherRevision: two.revision } });
    const said = [
      told.links > 0 && `${counted(told.links, 'link')} came along`,
      told.already > 0 && `${counted(told.already, 'link')} stood already or joined the two`,
      told.children > 0 && `${counted(told.children, 'item')} below it came along`,
      ...told.fields.map(({ label, value }) => `its ${label.toLowerCase()} “${value}” gave way`),
    ].filter(Boolean);
    notify(`${two.reference} is part of ${one.reference} now${said.length > 0 ? `: ${said.join(', ')}` : ''}. Undo parts them again.`);
    return told;
  });

/** Makes items of another kind and tells what that breaks. */
export const useSetKinds = (project: string) =>
  useChange(project, async (body: BodyOf<typeof setKinds>) => {
    const told = await call(setKinds, { params: { project }, body });
    notify(
      `${counted(told.changed, 'item')} changed.${told.disallowed > 0 ? ` ${counted(told.disallowed, 'link')} ${told.disallowed === 1 ? 'is' : 'are'} not allowed for this kind: readiness lists the items.` : ''}`,
    );
    return told;
  });

export const useMoveItem = (project: string) =>
  useChange(project, ({ id, ...body }: BodyOf<typeof moveItem> & { id: string }) => call(moveItem, { params: { project, item: id }, body }));
export const useWithdraw = (project: string) =>
  useChange(project, (items: string[]) => call(withdrawItems, { params: { project }, body: { items } }), 'Withdrawn. Undo brings it back.');
export const useRestore = (project: string) =>
  useChange(project, (items: string[]) => call(restoreItems, { params: { project }, body: { items } }), 'Restored');
export const useRemoveLinks = (project: string) =>
  useChange(project, (links: string[]) => call(removeLinks, { params: { project }, body: { links } }), 'Link removed. Undo brings it back.');
export const useSetInUsage = (project: string) => useChange(project, (body: BodyOf<typeof setInUsage>) => call(setInUsage, { params: { project }, body }));
export const useJoinWaiting = (project: string) =>
  useChange(project, ({ end, item }: { end: string; item: string }) => call(joinWaitingEnd, { params: { project, end }, body: { item } }), 'Linked.');
export const useLetGo = (project: string) =>
  useChange(project, (end: string) => call(endWaiting, { params: { project, end } }), 'It waits no more. Undo brings it back.');
export const useEditLink = (project: string) =>
  useChange(project, ({ link, ...body }: BodyOf<typeof editLink> & { link: string }) => call(editLink, { params: { project, link }, body }));
export const useConfirmLinks = (project: string) =>
  useChange(project, (links: string[]) => call(confirmLinks, { params: { project }, body: { links } }), 'Confirmed');
export const useWaive = (project: string) =>
  useChange(project, (body: BodyOf<typeof createWaiver>) => call(createWaiver, { params: { project }, body }), 'Gap accepted by a waiver. Undo takes it back.');
export const useWithdrawWaiver = (project: string) =>
  useChange(project, (waiver: string) => call(withdrawWaiver, { params: { project, waiver } }), 'Waiver taken back');
