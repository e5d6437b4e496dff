import { describeOutcome } from '../describe-outcome.js';
import { counted, findKind, getUsualKind, holdsOf, prefixOf, type Scheme } from '@coomb/core';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { getProject } from '@coomb/contract';
import { readFileContent } from '@coomb/formats';
import type { RecipeWish } from '../../gather/apply-recipe.js';
import { proposeWish, readRecipeFile } from '../recipe-file.js';
import { findProject, importThrough, withClient } from '../client.js';
import { type Command, exitCodes, UsageError } from '../command.js';

export const importCommand: Command['run'] = async (args, io) => {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      project: { type: 'string' },
      collection: { type: 'string' },
      prefix: { type: 'string' },
      kind: { type: 'string' },
      recipe: { type: 'string' },
      data: { type: 'string' },
      server: { type: 'string' },
      person: { type: 'string' },
      json: { type: 'boolean' },
    },
  });
  const [path] = positionals;
  if (!path) throw new UsageError('Name the file to import.');
  const bytes = await readFile(path);
  return withClient({ data: values.data, server: values.server, person: values.person ?? 'Command line' }, async (client) => {
    const project = await findProject(client, values.project, true);
    const { collections, scheme } = await client.call(getProject, { params: { project } });
    const known = collections.find((one) => one.name === values.collection);
    const recipe = await findRecipe(scheme as Scheme, basename(path), bytes, values);
    const kind = findKind(scheme as Scheme, values.kind ?? '') ?? getUsualKind(scheme as Scheme);
    const collection = known
      ? { id: known.id }
      : values.collection
        ? { name: values.collection, prefix: values.prefix ?? prefixOf(kind), holds: holdsOf(kind) }
        : undefined;
    const outcome = await importThrough(client, project, basename(path), bytes, { ...(collection && { collection }), ...recipe });
    if (values.json) io.out(JSON.stringify(outcome));
    else {
      io.out(`${describeOutcome(outcome)}, ${counted(outcome.results, 'result')}`);
      for (const issue of outcome.issues) io.out(`  ${issue.severity}  ${issue.at}: ${issue.message}`);
    }
    return exitCodes.done;
  });
};

/** The recipe asked for by file or kind; what the server proposes otherwise. */
async function findRecipe(
  scheme: Scheme,
  name: string,
  bytes: Uint8Array,
  { recipe, kind }: { recipe?: string | undefined; kind?: string | undefined },
): Promise<RecipeWish> {
  if (!recipe && !kind) return {};
  const { content } = await readFileContent(name, bytes);
  if (content.type === 'results') return {};
  return recipe ? readRecipeFile(scheme, recipe, content) : proposeWish(scheme, content, kind);
}
