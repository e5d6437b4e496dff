import { type ExportFormat, exportItems, getItemsRecipe, listSources, tryExport } from '@coomb/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call, fetchFile } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { saveFile } from '../../shared/save-file';
import { notifyError } from '../../shared/ui/notices';

/** A whole collection, or chosen items. */
export type Saved = { collection: string; partner?: string } | { items: readonly string[] };

const MODELS = ['xmi', 'bpmn', 'dmn', 'ssp', 'ecore'];

/** Who sent a model file for a collection, the first one first: the newest file of each. */
export function useModelPartners(project: string, collection: string): { partner: string; name: string; format: string }[] {
  const sources = useQuery({ queryKey: [...projectKey(project), 'sources'], queryFn: () => call(listSources, { params: { project } }) });
  const byPartner = new Map<string, { partner: string; name: string; format: string }>();
  for (const { collection: own, format, lineage, name } of sources.data ?? [])
    if (own === collection && MODELS.includes(format)) byPartner.set(lineage, { partner: lineage, name, format });
  return [...byPartner.values()];
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
