import { keepView, listSavedViews, renameView, type SavedView, savedViewSortOf, withdrawView } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { useChange } from '../live/use-change';

const key = (project: string) => [...projectKey(project), 'saved-views'];

/** Every kept view of the project, by name. */
export const useSavedViews = (project: string) => useQuery({ queryKey: key(project), queryFn: () => call(listSavedViews, { params: { project }, query: {} }) });

export const useKeepView = (project: string) =>
  useChange(
    project,
    (body: { sort: string; name: string; body: Record<string, unknown> }) => call(keepView, { params: { project }, body }),
    'Kept for everybody in the project.',
  );
export const useRenameView = (project: string) =>
  useChange(project, ({ view, name }: { view: string; name: string }) => call(renameView, { params: { project, view }, body: { name } }));
export const useWithdrawView = (project: string) =>
  useChange(project, (view: string) => call(withdrawView, { params: { project, view } }), 'Not kept any more. Undo brings it back.');

/** Where a kept view is shown, below the project; undefined for one that this page does not know. */
export function addressOfView({ id, sort, body }: Pick<SavedView, 'id' | 'sort' | 'body'>): string | undefined {
  const known = savedViewSortOf(sort);
  if (!known || body === null) return undefined;
  // A result that was kept is too long for an address: the view reads it by what it is kept as.
  const said = Object.entries({ ...body, ...(body.result ? { result: '', kept: id } : {}) }).filter(([, value]) => value !== '');
  return `${known.path}?${new URLSearchParams(said.map(([name, value]): [string, string] => [name, String(value)]))}`;
}
