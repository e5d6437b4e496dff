import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  buildUrl,
  cancelJob,
  checkFile,
  createProject,
  getItem,
  getJob,
  getOutline,
  getProject,
  getSourceFile,
  dropTrayEntry,
  getTrayEntry,
  getTrayPicture,
  importFile,
  listJobs,
  listRuns,
  listSources,
  listTray,
  redo,
  undo,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

const demo = (name: string) => readFileSync(join(process.cwd(), 'demo', 'files', name));
const csv = (...lines: string[]) => Buffer.from(lines.join('\n'));
const into = (name: string, prefix: string, holds: 'specification' | 'model' | 'tests') => ({ collection: { name, prefix, holds } });

describe('gathering', () => {
  const server = useServer();
  const fresh = async () => (await server.client.call(createProject, { body: { name: 'Gathered' } })).id;

  it('shows a document before anything of it is stored', async () => {
    const project = await fresh();
    const entry = await server.client.upload(project, 'spec.docx', demo('2 Larkbeck system requirements.docx'));
    expect(entry).toMatchObject({ name: 'spec.docx', format: 'docx', content: { type: 'document', recipe: { kind: 'requirement' } } });
    expect((await server.client.call(getOutline, { params: { project } })).id).toEqual([]);
    expect(await server.client.call(listSources, { params: { project } })).toEqual([]);
    expect(await server.client.call(getTrayEntry, { params: { project, tray: entry.id } })).toEqual(entry);
  });

  it('shows the pictures of a document in the tray', async () => {
    const project = await fresh();
    const entry = await server.client.upload(project, 'spec.docx', demo('2 Larkbeck system requirements.docx'));
    const name = /coomb-picture:([^"]+)"/.exec(JSON.stringify(entry.content).replaceAll('\\"', '"'))![1]!;
    const fetchPicture = (wanted: string) => fetch(server.address + buildUrl(getTrayPicture.path, { project, tray: entry.id }, { name: wanted }));
    const picture = await fetchPicture(name);
    expect(picture.headers.get('content-type')).toBe('image/png');
    expect(
      Buffer.from(await picture.arrayBuffer())
        .subarray(1, 4)
        .toString(),
    ).toBe('PNG');
    expect(await (await fetchPicture('media/none.png')).json()).toMatchObject({
      error: { code: 'not-found', message: 'There is no picture "media/none.png" in this file.' },
    });
  });

  it('keeps the tray over a restart', async () => {
    const project = await fresh();
    const entry = await server.client.upload(project, 'list.csv', csv('ID,Title', 'R-1,One'));
    await server.restart();
    expect((await server.client.call(getTrayEntry, { params: { project, tray: entry.id } })).name).toBe('list.csv');
  });

  it('lists what was handed in until it is imported or put away', async () => {
    const project = await fresh();
    const list = async () => (await server.client.call(listTray, { params: { project } })).map(({ name, size, format }) => [name, size > 0, format]);
    expect(await list()).toEqual([]);
    const one = await server.client.upload(project, 'list.csv', csv('ID,Title', 'R-1,One'));
    const two = await server.client.upload(project, 'spec.docx', demo('2 Larkbeck system requirements.docx'));
    expect((await list()).sort()).toEqual([
      ['list.csv', true, 'Separated values'],
      ['spec.docx', true, 'Word-processed document'],
    ]);
    expect(await server.client.call(dropTrayEntry, { params: { project, tray: two.id } })).toEqual({ dropped: true });
    expect(await server.client.call(dropTrayEntry, { params: { project, tray: two.id } })).toEqual({ dropped: false });
    await expect(server.client.call(getTrayEntry, { params: { project, tray: two.id } })).rejects.toMatchObject({ code: 'not-found' });
    const { job } = await server.client.call(importFile, { params: { project, tray: one.id }, body: into('Many', 'R', 'specification') });
    while ((await server.client.call(getJob, { params: { project, job } })).state === 'running');
    expect(await list()).toEqual([]);
  });

  it('leaves nothing behind of a file that cannot be read', async () => {
    const project = await fresh();
    await expect(server.client.upload(project, 'spec.docx', Buffer.from('no document'))).rejects.toMatchObject({
      code: 'file-unreadable',
      details: { reason: 'not-an-archive' },
    });
    await expect(server.client.upload(project, 'spec.docx', new Uint8Array(0))).rejects.toMatchObject({ message: 'spec.docx is empty.' });
    expect(await server.client.call(listJobs, { params: { project } })).toEqual([]);
  });

  it('imports a document with outline, fields, links to what is there, pictures and its original', async () => {
    const project = await fresh();
    const needs = await server.client.upload(project, 'needs.csv', demo('1 Larkbeck needs.csv'));
    if (needs.content.type !== 'sheets') throw new Error('needs are a sheet');
    await importThrough(server.client, project, 'needs.csv', demo('1 Larkbeck needs.csv'), {
      ...into('Needs', 'NEED', 'specification'),
      sheetRecipe: { ...needs.content.recipe, kind: 'need' },
    });
    const original = demo('2 Larkbeck system requirements.docx');
    const outcome = await importThrough(server.client, project, 'spec.docx', original, into('System requirements', 'SYS', 'specification'));
    expect(outcome).toMatchObject({ items: 123, sections: 32, links: 123 });
    const sheet = await server.client.call(getItem, { params: { project, item: 'SYS-038' } });
    expect(sheet).toMatchObject({
      title: 'Entry signals',
      origin: 'imported',
      fields: { priority: 'High', method: ['Test'] },
      source: { name: 'spec.docx' },
      place: { says: expect.stringMatching(/^paragraph \d+$/) },
    });
    expect(sheet.path.map((one) => one.title)).toEqual(['Otterby lock', 'Signals and closing']);
    expect(sheet.upstream).toMatchObject([{ phrase: 'is derived from', other: { reference: 'NEED-015', kind: 'need' } }]);
    const { collections } = await server.client.call(getProject, { params: { project } });
    expect(collections.map((one) => [one.name, one.items])).toEqual([
      ['Needs', 16],
      ['System requirements', 123],
    ]);
    const [, source] = await server.client.call(listSources, { params: { project } });
    expect(await server.client.bytes(getSourceFile, { project, source: source!.id })).toEqual(original);
    const scope = await server.client.call(getItem, { params: { project, item: 'SYS-S-001' } });
    const picture = /src="([^"]+)"/.exec(scope.html)![1]!;
    const response = await fetch(`${server.address}${picture}`);
    expect([response.status, response.headers.get('content-type')]).toEqual([200, 'image/png']);
  });

  it('says beforehand what an import would find, and stores nothing', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'Here before');
    const entry = await server.client.upload(project, 'more.csv', csv('ID,Title,Derived from', 'REQ-001,Another,NEED-77'));
    const check = (body: object) => server.client.call(checkFile, { params: { project, tray: entry.id }, body });
    const found = await check({});
    expect(found.issues.map((issue) => issue.code)).toEqual(['reference-taken', 'link-target-unknown']);
    const again = await check({ again: entry.id });
    expect(again.issues.map((issue) => issue.code)).toEqual(['link-target-unknown']);
    expect((await server.client.call(getOutline, { params: { project } })).reference).toEqual(['REQ-001']);
    await expect(check({ sheetRecipe: { name: 'x' } })).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('gives a new reference where one is taken, and says so', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'Here before');
    const outcome = await importThrough(server.client, project, 'more.csv', csv('ID,Title,Text', 'REQ-001,Another,x', 'REQ-007,Kept,y', ',Given,z'), {
      collection: { id: requirements },
      sheetRecipe: {
        name: 'r',
        sheet: 'more',
        headerRow: 0,
        kind: 'requirement',
        columns: [
          { name: 'ID', meaning: { as: 'reference' } },
          { name: 'Title', meaning: { as: 'title' } },
          { name: 'Text', meaning: { as: 'text' } },
        ],
      },
    });
    expect(outcome.issues).toMatchObject([{ code: 'reference-taken', at: 'more, row 2', message: expect.stringContaining('this one is REQ-002') }]);
    expect((await server.client.call(getOutline, { params: { project } })).reference).toEqual(['REQ-001', 'REQ-002', 'REQ-007', 'REQ-003']);
  });

  it('names links that could not be made', async () => {
    const { project, requirements, tests } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'Level');
    const outcome = await importThrough(server.client, project, 'tests.csv', csv('ID,Title,Verifies', 'TC-001,One,"REQ-001, REQ-900"', 'TC-002,Two,TC-001'), {
      collection: { id: tests },
    });
    expect(outcome).toMatchObject({ items: 2, links: 1 });
    expect(outcome.issues.map((issue) => issue.code)).toEqual(['link-target-unknown', 'link-not-allowed']);
  });

  it('takes an import back as a whole, and does it again', async () => {
    const project = await fresh();
    await importThrough(server.client, project, 'model.xmi', demo('3 Larkbeck model.xmi'), into('Model', 'MOD', 'model'));
    const shape = async () => {
      const outline = await server.client.call(getOutline, { params: { project } });
      return [
        outline.id.length,
        (await server.client.call(listSources, { params: { project } })).length,
        (await server.client.call(getProject, { params: { project } })).collections.length,
      ];
    };
    const whole = await shape();
    expect(whole).toEqual([169, 1, 1]);
    await server.client.call(undo, { params: { project } });
    expect(await shape()).toEqual([0, 0, 0]);
    await server.client.call(redo, { params: { project } });
    expect(await shape()).toEqual(whole);
  });

  it('matches results to tests, keeps the unmatched ones, and forgets a run that is taken back', async () => {
    const project = await fresh();
    await importThrough(server.client, project, 'tests.xlsx', demo('4 Larkbeck test cases.xlsx'), into('Tests', 'TC', 'tests'));
    const outcome = await importThrough(server.client, project, 'site.xml', demo('6 Site run 3.xml'), { runName: 'Site run' });
    expect(outcome).toMatchObject({ results: 35, items: 0 });
    expect(outcome.issues.map((issue) => issue.code)).toEqual(['result-unmatched', 'result-unmatched']);
    expect(await server.client.call(listRuns, { params: { project } })).toMatchObject([
      { name: 'Site run', at: '2026-11-03T14:05:00.000Z', counts: { passed: 35, failed: 0, broken: 1, skipped: 1, unmatched: 2 } },
    ]);
    const test = async () => (await server.client.call(getItem, { params: { project, item: 'TC-002' } })).state;
    expect(await test()).toBe('verified');
    await server.client.call(undo, { params: { project } });
    expect(await test()).toBe('planned');
    expect(await server.client.call(listRuns, { params: { project } })).toEqual([]);
  });

  it('keeps nothing of an import that is cancelled', async () => {
    const project = await fresh();
    const rows = Array.from({ length: 9000 }, (_, index) => `R-${index + 1},Requirement ${index + 1},The weir shall hold level ${index}`);
    const entry = await server.client.upload(project, 'many.csv', csv('ID,Title,Text', ...rows));
    const { job } = await server.client.call(importFile, { params: { project, tray: entry.id }, body: into('Many', 'R', 'specification') });
    await server.client.call(cancelJob, { params: { project, job } });
    let state = 'running';
    while (state === 'running') {
      await new Promise((resolve) => setTimeout(resolve, 30));
      ({ state } = await server.client.call(getJob, { params: { project, job } }));
    }
    expect(state).toBe('cancelled');
    expect((await server.client.call(getOutline, { params: { project } })).id).toEqual([]);
    await server.restart();
    expect((await server.client.call(getOutline, { params: { project } })).id).toEqual([]);
  });

  it('refuses a recipe whose pattern is wrong, in words', async () => {
    const project = await fresh();
    const entry = await server.client.upload(project, 'spec.docx', demo('2 Larkbeck system requirements.docx'));
    if (entry.content.type !== 'document') throw new Error('the file is a document');
    const { job } = await server.client.call(importFile, {
      params: { project, tray: entry.id },
      body: { ...into('S', 'SYS', 'specification'), documentRecipe: { ...entry.content.recipe, identifier: '[' } },
    });
    let now = await server.client.call(getJob, { params: { project, job } });
    while (now.state === 'running') now = await server.client.call(getJob, { params: { project, job } });
    expect(now).toMatchObject({ state: 'failed', message: expect.stringContaining('not a regular expression') });
  });

  it('hands originals over as downloads, never as pages', async () => {
    const project = await fresh();
    await importThrough(server.client, project, 'x.csv', csv('ID,Title', 'A-1,<script>'), into('X', 'A', 'specification'));
    const [source] = await server.client.call(listSources, { params: { project } });
    const response = await fetch(`${server.address}${buildUrl(getSourceFile.path, { project, source: source!.id })}`);
    expect(response.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
  });
});
