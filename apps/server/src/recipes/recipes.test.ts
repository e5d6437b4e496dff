import { compareFile, keepRecipe, listRecipes, listSources, type RecipeBody, undo, withdrawRecipe } from '@coomb/contract';
import { defaultScheme, proposeExchangeRecipe, proposeSheetRecipe, buildReadyRecipes } from '@coomb/core';
import { readCsv, readReqifFile } from '@coomb/formats';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { runCommand } from '../cli/run-command.js';
import { makeProject, useServer } from '../testing/test-server.js';

const csv = Buffer.from('No,Statement\nA-1,Hold the level.\nA-2,Close the gate.');
const demo = (name: string) => join(process.cwd(), 'demo', 'files', name);

function sheetBody(): RecipeBody & { reads: 'sheet' } {
  const recipe = proposeSheetRecipe(defaultScheme, readCsv(csv, 'a.csv').sheets, 'requirement');
  recipe.columns[0]!.meaning = { as: 'reference' };
  recipe.columns[1]!.meaning = { as: 'text' };
  return { reads: 'sheet', recipe };
}

describe('recipes of a project', () => {
  const server = useServer();

  it('come with ready ones, which cannot be changed or taken away', async () => {
    const { client } = server;
    const { project } = await makeProject(client);
    const listed = await client.call(listRecipes, { params: { project } });
    expect(listed.map((one) => [one.name, one.ready])).toEqual(buildReadyRecipes(defaultScheme).map((one) => [one.name, true]));
    const [ready] = listed;
    await expect(client.call(withdrawRecipe, { params: { project, recipe: ready!.id } })).rejects.toThrow();
    const copy = await client.call(keepRecipe, { params: { project }, body: { name: 'Mine', body: ready!.body } });
    expect(copy).toMatchObject({ name: 'Mine', ready: false, changedBy: 'Ada Wick', body: ready!.body });
  });

  it('are kept, changed, taken away and brought back', async () => {
    const { client } = server;
    const { project } = await makeProject(client);
    const names = async () => (await client.call(listRecipes, { params: { project } })).filter((one) => !one.ready).map((one) => one.name);
    const { id } = await client.call(keepRecipe, { params: { project }, body: { name: 'Export', body: sheetBody() } });
    await client.call(keepRecipe, { params: { project }, body: { id, name: 'Export of gates', body: sheetBody() } });
    expect(await names()).toEqual(['Export of gates']);
    await client.call(withdrawRecipe, { params: { project, recipe: id } });
    expect(await names()).toEqual([]);
    await client.call(undo, { params: { project } });
    expect(await names()).toEqual(['Export of gates']);
    await expect(client.call(keepRecipe, { params: { project }, body: { id: project, name: 'x', body: sheetBody() } })).rejects.toMatchObject({
      code: 'not-found',
    });
  });

  it('know where they were used', async () => {
    const { client } = server;
    const { project } = await makeProject(client);
    const body = sheetBody();
    const { id } = await client.call(keepRecipe, { params: { project }, body: { name: 'Export', body } });
    await importThrough(client, project, 'a.csv', csv, {
      sheetRecipe: body.recipe,
      recipe: id,
      collection: { name: 'A', prefix: 'A', holds: 'specification' },
    });
    const kept = (await client.call(listRecipes, { params: { project } })).find((one) => one.id === id);
    expect(kept!.usedBy.map((source) => source.name)).toEqual(['a.csv']);
  });

  it('serve the next version without being said again', async () => {
    const { client } = server;
    const { project } = await makeProject(client);
    const body = sheetBody();
    await importThrough(client, project, 'a.csv', csv, { sheetRecipe: body.recipe, collection: { name: 'A', prefix: 'A', holds: 'specification' } });
    const [source] = await client.call(listSources, { params: { project } });
    const entry = await client.upload(project, 'a 2.csv', Buffer.from(csv.toString().replace('Close', 'Shut')));
    const { counts } = await client.call(compareFile, { params: { project, tray: entry.id }, body: { source: source!.id } });
    expect(counts).toMatchObject({ changed: 1, same: 1, new: 0, removed: 0 });
  });
});

describe('exchange with a partner', () => {
  const server = useServer();

  it('brings a ReqIF file in with its outline, fields and links, and its next issue as differences only', async () => {
    const { client } = server;
    const { project } = await makeProject(client);
    const outcome = await importThrough(client, project, 'drive.reqif', readFileSync(demo('7 Gate drive of the supplier.reqif')), {
      collection: { name: 'Gate drive', prefix: 'GD', holds: 'specification' },
    });
    expect(outcome).toMatchObject({ items: 13, sections: 3, links: 3 });
    const [source] = await client.call(listSources, { params: { project } });
    const entry = await client.upload(project, 'drive 2.reqif', readFileSync(demo('next/7 Gate drive of the supplier, issue 2.reqif')));
    const { counts, entries } = await client.call(compareFile, { params: { project, tray: entry.id }, body: { source: source!.id } });
    expect(counts).toMatchObject({ new: 1, changed: 1, removed: 1, moved: 0, conflicts: 0 });
    expect(entries.map((one) => [one.sort, one.mine?.reference ?? one.theirs?.key])).toEqual([
      ['changed', 'GD-201'],
      ['new', 'GD-304'],
      ['removed', 'GD-104'],
    ]);
  });
});

describe('coomb with a recipe file', () => {
  const run = async (...args: string[]) => {
    const out: string[] = [];
    const error: string[] = [];
    const code = await runCommand(args, { out: (text) => out.push(text), error: (text) => error.push(text) });
    return { code, out, error: error.join('\n') };
  };
  const folder = mkdtempSync(join(tmpdir(), 'coomb-recipe-'));
  const file = (name: string, content: string | Uint8Array) => {
    writeFileSync(join(folder, name), content);
    return join(folder, name);
  };

  it('reads a sheet whose columns nobody would guess', async () => {
    const recipe = file('r.json', JSON.stringify({ coombRecipe: 1, name: 'Export', body: sheetBody() }));
    const { out } = await run('inspect', file('a.csv', csv), '--items', '--recipe', recipe);
    expect(out.map((line) => JSON.parse(line))).toMatchObject([
      { reference: 'A-1', text: 'Hold the level.' },
      { reference: 'A-2', text: 'Close the gate.' },
    ]);
  });

  it('reads an exchange file with types left out', async () => {
    const { exchange } = await readReqifFile(readFileSync(demo('7 Gate drive of the supplier.reqif')));
    const recipe = proposeExchangeRecipe(defaultScheme, exchange, 'need');
    recipe.types[0]!.kind = 'need';
    const path = file('x.json', JSON.stringify({ coombRecipe: 1, name: 'Drive', body: { reads: 'exchange', recipe } }));
    const { out } = await run('inspect', demo('7 Gate drive of the supplier.reqif'), '--json', '--recipe', path);
    expect(JSON.parse(out[0]!)).toMatchObject({ format: 'reqif', items: 13, sections: 3, kinds: { need: 13 } });
  });

  it.each([
    ['no JSON', 'not JSON', 'is not a recipe file'],
    ['another shape', '{"coombRecipe":2}', 'coombRecipe'],
    [
      'a recipe for other files',
      JSON.stringify({ coombRecipe: 1, name: 'D', body: { reads: 'document', recipe: buildReadyRecipes(defaultScheme)[0]!.recipe } }),
      'another sort',
    ],
  ])('refuses %s', async (_, content, message) => {
    const { code, error } = await run('inspect', file('a.csv', csv), '--recipe', file('bad.json', content));
    expect([code, error]).toEqual([2, expect.stringContaining(message)]);
  });

  afterAll(() => rmSync(folder, { recursive: true }));
});
