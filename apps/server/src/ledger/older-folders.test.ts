import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { getBatch, getHistory, getItem, getOutline, listChanges, listProjects, listReports, redo, undo } from '@coomb/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { verifyDatabase } from '../backup/verify.js';
import { buildClient, type Client } from '../cli/client.js';
import { type RunningServer, startServer } from '../start-server.js';
import { makeOlderDatabase } from '../testing/older-folder.js';

/**
 * A folder of the version of 27 November 2026: an import of eight sections and requirements, links, edits, a waiver, a withdrawn item, a report, a second import.
 */
describe('a data folder of an older version', () => {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-older-data-'));
  let database: string;
  let server: RunningServer;
  let client: Client;
  let project: string;
  const start = async () => {
    server = await startServer({ data: folder, port: 0, host: '127.0.0.1', template: database });
    client = buildClient(server.address, 'Ada Wick');
  };

  beforeAll(async () => {
    database = await makeOlderDatabase('2026-11-27');
    await start();
    project = (await client.call(listProjects, {}))[0]!.id;
  });
  afterAll(async () => {
    await server?.stop();
    rmSync(folder, { recursive: true, force: true });
    rmSync(dirname(database), { recursive: true, force: true });
  });

  it('opens, and everything in it is sound', async () => {
    const findings = await verifyDatabase(server.database.db);
    expect(findings.flatMap(({ what, faults }) => faults.map((fault) => `${what}: ${fault}`))).toEqual([]);
    expect(findings.find(({ what }) => what === 'rows of the ledger: item')!.looked).toBeGreaterThan(8);
  });

  it('tells the history of an item as it did', async () => {
    const history = await client.call(getHistory, { params: { project, item: 'GA-001' } });
    expect(history.map(({ action, changes }) => [action, changes.map(({ field }) => field)])).toEqual([
      ['Edit text of GA-001', ['Text']],
      ['Edit title of GA-001', ['Title']],
      ['Import gates.md', expect.arrayContaining(['Title', 'Text', 'Kind'])],
    ]);
    const batches = await client.call(listChanges, { params: { project }, query: {} });
    const first = batches.find(({ action }) => action === 'Import gates.md')!;
    const { rows } = await client.call(getBatch, { params: { project, seq: first.seq }, query: {} });
    expect(new Set(rows.map(({ did }) => did))).toEqual(new Set(['made']));
    expect((await client.call(listReports, { params: { project } })).map(({ title }) => title)).toEqual(['Before the floods']);
  });

  it('undoes the import that was done last, and does it again, with the same nodes', async () => {
    const outline = async () => {
      const { reference, node, title } = await client.call(getOutline, { params: { project } });
      return reference.map((one, row) => [one, node[row], title[row]]);
    };
    const before = await outline();
    expect(before.map(([reference]) => reference)).toContain('TC-001');
    const undone = await client.call(undo, { params: { project } });
    expect(undone.action).toBe('Import tests.csv');
    expect((await outline()).map(([reference]) => reference)).not.toContain('TC-001');
    await client.call(redo, { params: { project } });
    expect(await outline()).toEqual(before);
    await server.stop();
    await start();
    expect(await outline()).toEqual(before);
  });

  it('undoes further back: an edit that the older version stored as a row of its table', async () => {
    await client.call(undo, { params: { project } });
    const taken: string[] = [];
    for (;;) {
      const done = await client.call(undo, { params: { project } }).catch(() => undefined);
      if (!done) break;
      taken.push(done.action);
      if (done.action.startsWith('Edit text of GA-001')) break;
    }
    expect(taken.at(-1)).toBe('Edit text of GA-001');
    expect((await client.call(getItem, { params: { project, item: 'GA-001' } })).html).toContain('shall close');
  });
});
