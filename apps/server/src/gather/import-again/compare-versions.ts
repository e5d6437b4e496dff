import { type Draft, type MergeMine, mergeVersions, type Merge, type MergeTheirs, type RecipeOutcome } from '@coomb/core';
import { plainText } from '@coomb/formats';
import type { ItemRow } from '../../ledger/change.js';
import type { ProjectState } from '../../project-state/project-state.js';
import { buildContent, type ImportContext } from '../build-import.js';
import { linksByDraft, valuesOf } from './exchange.js';

export interface Comparison {
  merge: Merge;
  mine: MergeMine[];
  theirs: MergeTheirs[];
  /** Rows of mine, as they stand. */
  rows: ItemRow[];
  drafts: readonly Draft[];
}

/** Ids of the items that a comparison looks at: those of the source's line, and those made here in the same collection. In reading order, withdrawn ones last. */
export function findMine(state: ProjectState, lineage: string, collection: string): string[] {
  const isMine = (node: number) => {
    const item = state.items[node]!;
    return item.sourceId === lineage || (item.sourceId === null && item.collectionId === collection && !item.withdrawn);
  };
  const inOrder = Array.from(state.outline().nodes).filter(isMine);
  const withdrawn = [...state.items.keys()].filter((node) => state.items[node]!.withdrawn && isMine(node));
  return [...inOrder, ...withdrawn].map((node) => state.items[node]!.id);
}

/** Compares what a recipe made of a newer version with the rows that came from the source before. `chosen` pairs drafts with item ids, or null for "new". */
export function compareVersions(context: ImportContext, rows: ItemRow[], outcome: RecipeOutcome, chosen: ReadonlyMap<number, string | null>): Comparison {
  const theirs = readTheirs(context, outcome);
  const fields = new Set([...theirs.flatMap((their) => Object.keys(their.values)), ...rows.flatMap((row) => Object.keys(row.base?.values ?? {}))]);
  const indexOf = new Map(rows.map((row, index) => [row.id, index]));
  const mine = rows.map((row): MergeMine => {
    const parent = row.parentId === null ? -1 : (indexOf.get(row.parentId) ?? -1);
    const values = Object.fromEntries(Object.entries(valuesOf(row)).filter(([name]) => fields.has(name)));
    return {
      key: row.externalId,
      alias: row.reference,
      heading: row.heading,
      title: row.title,
      words: wordsOf(row.title, row.html),
      parent,
      values,
      links: row.base?.links ?? [],
      id: row.id,
      parentId: row.parentId,
      withdrawn: row.withdrawn,
      base: row.base,
    };
  });
  const pairs = new Map([...chosen].map(([their, id]) => [their, id === null ? -1 : (indexOf.get(id) ?? -1)] as const));
  return { merge: mergeVersions(mine, theirs, pairs), mine, theirs, rows, drafts: outcome.drafts };
}

function readTheirs(context: ImportContext, outcome: RecipeOutcome): MergeTheirs[] {
  const linksOf = linksByDraft(outcome.links);
  return outcome.drafts.map((draft) => {
    const content = buildContent(context, draft);
    return {
      key: draft.externalId,
      heading: content.heading,
      title: content.title,
      words: wordsOf(content.title, content.html),
      parent: draft.parent,
      values: valuesOf(content),
      links: linksOf.get(draft.key) ?? [],
    };
  });
}

/** A title taken from the first words of the text would weigh them twice. */
function wordsOf(title: string, html: string): string {
  const text = plainText(html);
  return text.startsWith(title.replace(/…$/, '')) ? text : `${title} ${text}`;
}
