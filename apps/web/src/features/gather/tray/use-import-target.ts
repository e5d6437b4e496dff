import type { BodyOf, checkFile, TrayEntry } from '@coomb/contract';
import { useEffect, useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { resembles } from '../comparison/resembles';
import { useImportCheck, useSources } from '../queries';

type Recipes = Omit<NonNullable<BodyOf<typeof checkFile>>, 'again'>;
/** Time without a change of the recipe after which the project is asked what it would find. */
const QUIET_MS = 500;

/** Where a file goes, and what the import would find there: an unlike file goes to a new collection, one that holds mostly what a known source did, or is named like it, is a newer version of that. */
export function useImportTarget(entry: TrayEntry, recipes: Recipes) {
  const project = useProject();
  const [chosen, setTarget] = useState<string>();
  const sources = (useSources(project.id).data ?? []).filter((source) => source.format !== 'junit');
  const newest = [...new Map(sources.map((source) => [source.lineage, source])).values()].reverse();
  const [lineage, setLineage] = useState<string | null>(null);
  const likely = newest.find((source) => source.lineage === lineage) ?? newest.find((source) => resembles(source, entry));
  const proposed = likely && (likely.collection === null ? `clip:${likely.id}` : `again:${likely.id}`);
  const target = chosen ?? proposed ?? 'new';
  /** The older version of a document that is kept to clip from. */
  const clipped = newest.find((source) => target === `clip:${source.id}`);
  const older = newest.find((source) => target === `again:${source.id}` || target === `other:${source.id}`);
  const asked = useQuiet(JSON.stringify({ ...recipes, ...(older && { again: older.id }) }));
  const check = useImportCheck(project.id, entry.id, asked);
  // The answer that names the source is asked for anew once the target follows it: what was found holds until then.
  if (check.data && check.data.lineage !== lineage) setLineage(check.data.lineage);
  return { target, setTarget, newest, likely, older, clipped, found: check.data, checking: check.isFetching };
}

export type ImportTarget = ReturnType<typeof useImportTarget>;

/** A value once it has not changed for a while. */
function useQuiet<T>(value: T): T {
  const [quiet, setQuiet] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setQuiet(value), QUIET_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return quiet;
}
