import { describeOutcome } from '../describe-outcome.js';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { CoombError } from '@coomb/contract/errors';
import { contentTypeOf, defaultScheme, finish, groupBy, type RecipeOutcome, counted } from '@coomb/core';
import { type FileContent, plainText, readFileContent, sanitiseRichText } from '@coomb/formats/reading';
import { applyRecipe } from '../../gather/apply-recipe.js';
import { checkImport } from '../../gather/build-import.js';
import { emptyImport } from '../../gather/empty-import.js';
import { type Command, exitCodes, UsageError } from '../command.js';
import { proposeWish, readRecipeFile } from '../recipe-file.js';

/** Says what a file holds and what would come of it, without a database. */
export const inspect: Command['run'] = async (args, io) => {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { json: { type: 'boolean' }, items: { type: 'boolean' }, kind: { type: 'string' }, recipe: { type: 'string' } },
  });
  const [path] = positionals;
  if (!path || positionals.length > 1) throw new UsageError('Name one file to inspect.');
  const bytes = await readFile(path);
  const { format, content } = await readFileContent(basename(path), bytes);
  if (content.type === 'results') {
    const { cases, name, at } = content.results;
    const counts = Object.fromEntries(
      ['passed', 'failed', 'broken', 'skipped'].map((outcome) => [outcome, cases.filter((one) => one.outcome === outcome).length]),
    );
    if (values.items) for (const one of cases) io.out(JSON.stringify(one));
    else
      io.out(
        values.json
          ? JSON.stringify({ file: basename(path), format: format.id, name, at, cases: cases.length, outcomes: counts, issues: content.issues })
          : `${format.label}: ${counted(cases.length, 'case')}, ${JSON.stringify(counts)}`,
      );
    return exitCodes.done;
  }
  const outcome = await harvest(content, values.kind, values.recipe);
  if (values.items) {
    for (const line of describeItems(outcome)) io.out(line);
    return exitCodes.done;
  }
  const summary = summarise(basename(path), format.id, content, outcome);
  if (values.json) io.out(JSON.stringify(summary));
  else {
    io.out(`${format.label}: ${describeOutcome(summary)}${summary.linksOutside ? `, ${summary.linksOutside} of them to items outside the file` : ''}`);
    for (const issue of summary.issues) io.out(`  ${issue.severity}  ${issue.at}: ${issue.message}`);
  }
  return exitCodes.done;
};

async function harvest(content: Exclude<FileContent, { type: 'results' }>, kind: string | undefined, recipe: string | undefined): Promise<RecipeOutcome> {
  if (kind && !defaultScheme.kinds.some((one) => one.id === kind))
    throw new UsageError(`There is no kind "${kind}"; there are ${defaultScheme.kinds.map((one) => one.id).join(', ')}.`);
  try {
    return applyRecipe(defaultScheme, content, recipe ? await readRecipeFile(defaultScheme, recipe, content) : proposeWish(defaultScheme, content, kind));
  } catch (error) {
    if (error instanceof CoombError) throw new UsageError(error.message);
    throw error;
  }
}

function summarise(file: string, format: string, content: FileContent, outcome: RecipeOutcome) {
  const items = outcome.drafts.filter((draft) => draft.role === 'item');
  // As an import into a new project would make them: links that it would not make are told with the reason.
  const made = finish(checkImport(emptyImport(defaultScheme), outcome, false));
  const outside = made.issues.filter((issue) => issue.code === 'link-target-unknown').length;
  const fields: Record<string, number> = {};
  for (const draft of items) for (const field of Object.keys(draft.fields)) fields[field] = (fields[field] ?? 0) + 1;
  const kinds: Record<string, number> = {};
  for (const draft of items) kinds[draft.kind] = (kinds[draft.kind] ?? 0) + 1;
  return {
    file,
    format,
    collections: listCollections(file, content, items.length),
    ...(content.type === 'model' && { exporter: content.model.exporter, drawings: content.model.drawings.length }),
    items: items.length,
    sections: outcome.drafts.length - items.length,
    kinds,
    fields,
    links: made.links + outside,
    /** Links of them whose other end is not in the file: an import looks for it in the project. */
    linksOutside: outside,
    issues: [...content.issues, ...outcome.issues, ...made.issues.filter((issue) => issue.code !== 'link-target-unknown')],
  };
}

/** What the file divides its items into: sheets, outlines, or the file as a whole. */
function listCollections(file: string, content: FileContent, items: number): { name: string; rows?: number; items?: number }[] {
  const parts = content.type === 'results' ? undefined : contentTypeOf(content.type).parts?.(content);
  return parts ?? [{ name: file.replace(/\.[^.]*$/, ''), items }];
}

function describeItems(outcome: RecipeOutcome): string[] {
  const linksOf = groupBy(outcome.links, (link) => link.draft);
  return outcome.drafts.map((draft) =>
    JSON.stringify({
      reference: draft.reference,
      externalId: draft.externalId,
      kind: draft.kind,
      section: draft.role === 'section',
      title: draft.title,
      text: plainText(sanitiseRichText(draft.html)),
      parent: draft.parent < 0 ? null : (outcome.drafts[draft.parent]!.reference ?? outcome.drafts[draft.parent]!.title),
      fields: draft.fields,
      links: (linksOf.get(draft.key) ?? []).map(({ linkKind, reversed, target }) => ({ linkKind, reversed, target })),
      place: draft.place.says,
    }),
  );
}
