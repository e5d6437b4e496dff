import {
  type Draft,
  findBinding,
  type Issue,
  type MergeMine,
  mergeStepwise,
  type Merge,
  type MergeTheirs,
  type RecipeOutcome,
  type Stepwise,
} from '@coomb/core';
import { plainText, wordsByLine } from '@coomb/formats';
import type { ItemValue } from '../../ledger/change.js';
import type { ProjectState } from '../../project-state/project-state.js';
import { isLinked } from '../../link-rows/build-link.js';
import { buildContent, type ImportContext } from '../build-import.js';
import { LinkEnds } from '../../link-rows/link-ends.js';
import { linksByDraft, readLink } from './exchange.js';
import { valuesOf } from '../../items/item-values.js';

export interface Comparison {
  merge: Merge;
  mine: MergeMine[];
  theirs: MergeTheirs[];
  /** Rows of mine, as they stand. */
  rows: ItemValue[];
  drafts: readonly Draft[];
  issues: Issue[];
}

/** Ids of the items that a comparison looks at: those of the source's line, and those made here in the same collection. In reading order, withdrawn ones last. */
export function findMine(state: ProjectState, lineage: string, collection: string): string[] {
  const isMine = (node: number) => {
    const item = state.items[node]!;
    return findBinding(item.bindings, lineage) !== undefined || (item.bindings.length === 0 && item.collectionId === collection && !item.withdrawn);
  };
  const inOrder = Array.from(state.outline().nodes).filter(isMine);
  const withdrawn = [...state.items.keys()].filter((node) => state.items[node]!.withdrawn && isMine(node));
  return [...inOrder, ...withdrawn].map((node) => state.items[node]!.id);
}

/**
 * Compares what a recipe made of a newer version with the rows that came from the source before. `chosen` pairs drafts with item ids, or
 * null for "new"; `isPlain` says that the file holds words without formatting.
 */
export function* compareVersions(
  context: ImportContext<ProjectState>,
  rows: ItemValue[],
  outcome: RecipeOutcome,
  chosen: ReadonlyMap<number, string | null>,
  isPlain: boolean,
): Stepwise<Comparison> {
  const ends = new LinkEnds(context.state, [], context.sourceId, context.fileNames);
  const baseOf = (row: ItemValue) => row.exchanged[context.sourceId]?.base ?? null;
  const theirs = yield* readTheirs(context, outcome);
  const fields = new Set([...theirs.flatMap((their) => Object.keys(their.values)), ...rows.flatMap((row) => Object.keys(baseOf(row)?.values ?? {}))]);
  const indexOf = new Map(rows.map((row, index) => [row.id, index]));
  const read = (row: ItemValue): MergeMine => {
    const parent = row.parentId === null ? -1 : (indexOf.get(row.parentId) ?? -1);
    const values = Object.fromEntries(Object.entries(valuesOf(row)).filter(([name]) => fields.has(name)));
    return {
      key: keyOf(row, context.sourceId),
      alias: row.reference,
      heading: row.heading,
      title: row.title,
      words: wordsOf(row.title, row.html),
      parent,
      values,
      links: baseOf(row)?.links ?? [],
      id: row.id,
      parentId: row.parentId,
      withdrawn: row.withdrawn,
      base: baseOf(row),
      hasLink: (link) => standsHere(context.state, ends, row.id, link),
    };
  };
  const mine: MergeMine[] = [];
  for (const row of rows) {
    mine.push(read(row));
    yield;
  }
  const pairs = new Map([...chosen].map(([their, id]) => [their, id === null ? -1 : (indexOf.get(id) ?? -1)] as const));
  const issues: Issue[] = [];
  const settle = (their: MergeTheirs, own: MergeMine) => keepFormatting(their, own, issues);
  const merge = yield* mergeStepwise(mine, theirs, pairs, isPlain ? settle : undefined);
  return { merge, mine, theirs, rows, drafts: outcome.drafts, issues };
}

/** What an item is called by a partner; what others call it where the partner does not know it yet. */
function keyOf({ bindings }: ItemValue, partner: string): string | null {
  const own = findBinding(bindings, partner);
  return own ? own.externalId : (bindings.find(({ externalId }) => externalId !== null)?.externalId ?? null);
}

function standsHere(state: ProjectState, ends: LinkEnds, own: string, link: string): boolean {
  const { linkKind, reversed, target } = readLink(link);
  const named = ends.find({ target });
  const inUse = 'count' in named ? ends.findInUse(target, undefined) : undefined;
  const other = inUse?.end ?? named;
  if ('count' in other) return false;
  const usageOf = (path: string[] | null | undefined) => (path ? (state.usages.find(path)?.id ?? 'unknown') : null);
  const [ownUsage, otherUsage] = [usageOf(inUse?.ownUse), usageOf(inUse?.otherUse)];
  return reversed
    ? isLinked(state, linkKind, other.id, own, { from: otherUsage, to: ownUsage })
    : isLinked(state, linkKind, own, other.id, { from: ownUsage, to: otherUsage });
}

/** Formatting beyond paragraphs and lines. */
const FORMATTED = /<(?!\/?(?:p|br)\b)/;

/** A file of plain words changes a rich text only where the words differ; where they do, it is told what goes with the older words. */
function keepFormatting(their: MergeTheirs, own: MergeMine, issues: Issue[]): void {
  for (const [name, value] of Object.entries(their.values)) {
    if (typeof value !== 'string' || !value.startsWith('<')) continue;
    const words = wordsByLine(value);
    const known = [own.base?.values[name], own.values[name]].filter((one) => typeof one === 'string');
    const same = known.find((one) => one === value || wordsByLine(one) === words);
    if (same !== undefined) their.values[name] = same;
    else if (FORMATTED.test(String(own.values[name] ?? '')))
      issues.push({
        severity: 'note',
        code: 'formatting-plain',
        at: own.alias ?? own.title,
        message: `The file holds plain words: where the new ones of ${own.alias ?? own.title} are taken, formatting and pictures of the older go`,
      });
  }
}

function* readTheirs(context: ImportContext, outcome: RecipeOutcome): Stepwise<MergeTheirs[]> {
  const linksOf = linksByDraft(outcome.links);
  const theirs: MergeTheirs[] = [];
  for (const draft of outcome.drafts) {
    const content = buildContent(context, draft);
    theirs.push({
      key: draft.externalId,
      heading: content.heading,
      title: content.title,
      words: wordsOf(content.title, content.html),
      parent: draft.parent,
      values: valuesOf(content),
      links: linksOf.get(draft.key) ?? [],
    });
    yield;
  }
  return theirs;
}

/** A title taken from the first words of the text would weigh them twice. */
function wordsOf(title: string, html: string): string {
  const text = plainText(html);
  return text.startsWith(title.replace(/…$/, '')) ? text : `${title} ${text}`;
}
