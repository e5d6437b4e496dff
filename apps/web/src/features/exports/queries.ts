import { type ExportFormat, exportItems, getItemsRecipe, listSources, tryExport } from '@coomb/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call, fetchFile } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { saveFile } from '../../shared/save-file';
import { notifyError } from '../../shared/ui/notices';

/** A whole collection, or chosen items. */
export type Saved = { collection: string } | { items: readonly string[] };

const MODELS = ['xmi', 'bpmn', 'dmn', 'ssp', 'ecore'];

/** The newest model file that a collection came from, if it came from one. */
export function useModelSource(project: string, collection: string): { name: string; format: string } | undefined {
  const sources = useQuery({ queryKey: [...projectKey(project), 'sources'], queryFn: () => call(listSources, { params: { project } }) });
  return sources.data?.filter((source) => source.collection === collection && MODELS.includes(source.format)).at(-1);
}

/** What of an export comes back when it is read by its recipe. */
export function useReadBack(project: string, saved: Saved, format: ExportFormat, enabled: boolean) {
  return useQuery({
    queryKey: [...projectKey(project), 'read back', format, saved],
    queryFn: ({ signal }) => call(tryExport, { params: { project, format }, body: 'items' in saved ? { items: [...saved.items] } : saved, signal }),
    enabled,
    retry: false,
  });
}

/** Saves chosen items, or the recipe that reads them back. */
export function useSaveChosen(project: string, items: readonly string[]) {
  return useMutation({
    mutationFn: async ({ format, recipe }: { format: ExportFormat; recipe: boolean }) => {
      const { name, blob } = await fetchFile(recipe ? getItemsRecipe : exportItems, { params: { project, format }, body: { items: [...items] } });
      saveFile(recipe ? `${format}.recipe.json` : name, blob);
    },
    onError: notifyError,
  });
}
