import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { useServer } from '../testing/test-server.js';
import { commands, runCommand } from './run-command.js';

const demo = (name: string) => join(process.cwd(), 'demo', 'files', name);

describe('the command line', () => {
  const server = useServer();
  const folder = mkdtempSync(join(tmpdir(), 'coomb-cli-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  async function coomb(...args: string[]) {
    const out: string[] = [];
    const error: string[] = [];
    const code = await runCommand(args, { out: (text) => out.push(text), error: (text) => error.push(text) });
    return { code, out, error: error.join('\n') };
  }

  it('inspects a document without a database', async () => {
    const { code, out } = await coomb('inspect', demo('2 Larkbeck system requirements.docx'), '--json');
    expect(code).toBe(0);
    expect(JSON.parse(out[0]!)).toMatchObject({
      format: 'docx',
      items: 123,
      sections: 32,
      links: 123,
      kinds: { requirement: 123 },
      fields: { priority: 123, method: 123 },
    });
  });

  it('gives each item as a JSON line', async () => {
    const { out } = await coomb('inspect', demo('2 Larkbeck system requirements.docx'), '--items');
    expect(out).toHaveLength(155);
    expect(JSON.parse(out.find((line) => line.includes('"SYS-017"'))!)).toMatchObject({
      reference: 'SYS-017',
      title: 'Weir gate travel',
      parent: 'Movement',
      fields: { priority: 'High' },
      links: [{ linkKind: 'derives', target: 'NEED-001' }],
      place: expect.stringContaining('paragraph'),
    });
  });

  it.each([
    ['3 Larkbeck model.xmi', { format: 'xmi', items: 162, drawings: 8 }],
    ['4 Larkbeck test cases.xlsx', { format: 'xlsx', items: 61, links: 90, collections: [{ name: 'Test cases' }, { name: 'Notes' }] }],
    ['7 Gate drive of the supplier.reqif', { format: 'reqif', items: 13, sections: 3, collections: [{ name: 'Gate drive' }] }],
    ['5 Rig run 7.xml', { format: 'junit', cases: 18, outcomes: { passed: 12, failed: 4, broken: 0, skipped: 2 } }],
  ])('inspects %s', async (name, expected) => {
    expect(JSON.parse((await coomb('inspect', demo(name), '--json')).out[0]!)).toMatchObject(expected);
  });

  it('imports, measures coverage against a target, and reports', async () => {
    const target = ['--server', server.address, '--project', 'By command'];
    const imported = await coomb(
      'import',
      demo('2 Larkbeck system requirements.docx'),
      ...target,
      '--collection',
      'Specification',
      '--prefix',
      'SYS',
      '--json',
    );
    expect(JSON.parse(imported.out[0]!)).toMatchObject({ items: 123 });
    expect((await coomb('import', demo('4 Larkbeck test cases.xlsx'), ...target, '--collection', 'Tests', '--prefix', 'TC', '--kind', 'testCase')).out[0]).toBe(
      '61 items and 0 sections, 90 links, 0 results',
    );
    expect((await coomb('import', demo('6 Site run 3.xml'), ...target)).out[0]).toBe('0 items and 0 sections, 0 links, 35 results');
    const coverage = await coomb('coverage', ...target, '--json', '--require', 'tested=99');
    expect(coverage.code).toBe(3);
    expect(coverage.error).toContain('99 % required');
    expect(JSON.parse(coverage.out[0]!).rules.find((rule: { rule: string }) => rule.rule === 'tested').counts.met).toBe(89);
    expect((await coomb('coverage', ...target, '--require', 'tested=50')).code).toBe(0);
    for (const file of ['status.docx', 'status.html']) {
      expect((await coomb('report', ...target, '--out', join(folder, file))).code).toBe(0);
      expect(readFileSync(join(folder, file)).length).toBeGreaterThan(5000);
    }
  });

  it.each([
    [['riddle'], 2, 'There is no command "riddle"'],
    [['inspect'], 2, 'Name one file'],
    [['inspect', '--colour', 'x'], 2, 'Usage: coomb inspect'],
    [['inspect', '/nowhere.docx'], 1, 'no such file'],
    [['coverage', '--json'], 2, '--data FOLDER, or --server'],
    [['report', '--out', 'status.pdf', '--data', 'x'], 2, '.docx or --out FILE.html'],
    [['serve', '--port', 'many'], 2, '--port takes a number'],
  ])('says what is wrong with %j', async (args, code, message) => {
    const result = await coomb(...args);
    expect(result.code).toBe(code);
    expect(result.error).toContain(message);
  });

  it('refuses a data folder that is in use', async () => {
    const { code, error } = await coomb('coverage', '--data', server.folder);
    expect([code, error]).toEqual([4, expect.stringContaining('already running')]);
  });

  it('says in one line that a port is taken, and leaves the data folder free', async () => {
    const data = join(folder, 'taken');
    const { port } = new URL(server.address);
    const serve = () => coomb('serve', '--data', data, '--port', port, '--copies', '0');
    for (let round = 0; round < 2; round++) {
      const { code, error } = await serve();
      expect([code, error.split('\n')]).toEqual([1, [expect.stringMatching(new RegExp(`Port ${port} of 127.0.0.1 is taken by another program.*--port`))]]);
    }
  });

  it.each([
    [['--host', '0.0.0.0'], '--open'],
    [['--port', '70000'], '--port'],
    [['--copies', 'many'], '--copies'],
  ])('refuses to serve with %s', async (options, named) => {
    const { code, error } = await coomb('serve', '--data', join(folder, 'never'), ...options);
    expect([code, error]).toEqual([2, expect.stringContaining(named)]);
  });

  it('lists every command in its help', async () => {
    const { out, code } = await coomb('--help');
    expect(code).toBe(0);
    for (const command of commands) expect(out[0]).toContain(command.usage);
  });
});
