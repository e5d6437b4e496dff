import { buildUrl, createItem, createReport, editItem, exportCollection, getItem, getReportDocument, tryExport, withdrawItems } from '@coomb/contract';
import { openArchive, readReqifFile } from '@coomb/formats';
import { describe, expect, it } from 'vitest';
import { SaxesParser } from 'saxes';
import { importThrough } from '../cli/client.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

/** Parses as XML; throws where it is none. */
function parseXml(text: string): void {
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(text).close();
}

describe('text on its way in and out', () => {
  const server = useServer();

  it.each([
    ['a control character', { title: 'A\u0001B' }, /title: character 2 is U\+0001/],
    ['NUL', { html: '<p>a\u0000</p>' }, /html: character 5 is U\+0000/],
    ['half a pair', { title: 'x\ud800' }, /title: character 2 is U\+D800/],
    ['one in a field', { fields: { rationale: 'a\u0002' } }, /rationale: character 2 is U\+0002/],
    ['one in the name of a field', { fields: { 'a\u0002': 'b' } }, /a name: character 2 is U\+0002/],
    ['a list in a text field', { fields: { rationale: ['<meta http-equiv=refresh>'] } }, /"Rationale" takes a text, not \["<meta/],
    ['a number as a choice', { fields: { priority: 3 } }, /"Priority" takes one value, not 3/],
    ['a text as several choices', { fields: { method: 'Test' } }, /"Verification method" takes a list/],
    ['elements a thousand deep', { html: '<ul><li>'.repeat(500) }, /1,000 deep.*at most 200/],
    ['elements without end', { html: '<b>'.repeat(200_000) }, /200,000 deep/],
    ['a text of a million letters and more', { html: 'a'.repeat(1_000_001) }, /html/],
  ])('refuses %s with its place', async (_, part, says) => {
    const { project, requirements } = await makeProject(server.client);
    const started = performance.now();
    await expect(server.client.call(createItem, { params: { project }, body: { collection: requirements, title: 'T', ...part } })).rejects.toMatchObject({
      code: 'input-invalid',
      message: expect.stringMatching(says),
    });
    expect(performance.now() - started).toBeLessThan(20_000);
  });

  it('makes line breaks of soft ones, in edits and in files, and tells so', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'T', { html: '<p>one\u000btwo</p>' });
    expect(item.html).toBe('<p>one<br />two</p>');
    const { issues } = await importThrough(server.client, project, 'a.csv', Buffer.from('ID,Title,Text\nA-1,First,"one\u000btwo\u0001"\n'), {
      collection: { name: 'A', prefix: 'A', holds: 'specification' },
    });
    expect(issues.map((issue) => issue.code)).toEqual(expect.arrayContaining(['text-breaks', 'text-cleaned']));
    expect((await server.client.call(getItem, { params: { project, item: 'A-1' } })).html).not.toMatch(/[\u000b\u0001]/);
  });

  it('answers names that cannot be stored with a refusal, never with a fault', async () => {
    const { project } = await makeProject(server.client);
    for (const [path, body] of [
      ['/projects', { name: 'a\u0000b' }],
      [`/projects/${project}/reports`, { title: 'x', note: '\ud800' }],
      [`/projects/${project}/collections`, { name: '\u0000', holds: 'tests', prefix: 'T', kind: 'testCase' }],
    ] as const) {
      const response = await fetch(`${server.address}/api${path}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
      expect(response.status).toBe(400);
    }
    const found = await fetch(server.address + buildUrl('/projects/:project/find', { project }, { words: 'a\u0000' }));
    expect(found.status).toBe(400);
    const named = await fetch(`${server.address}/api/projects`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'X-Coomb-Person': encodeURIComponent('A\u0000da') },
      body: '{"name":"Named"}',
    });
    expect(named.status).toBe(200);
  });

  it('writes well-formed files whatever was stored before texts were cleaned', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Level');
    await server.dirty(
      `update item set title = 'Le' || chr(11) || 'vel' || chr(1), html = '<p>a' || chr(11) || 'b' || chr(2) || '</p>' where id = '${item.id}'`,
    );
    const { client } = server;
    for (const format of ['reqif', 'csv', 'md', 'xlsx'] as const) {
      const bytes = await client.bytes(exportCollection, { project, collection: requirements, format });
      expect(bytes.toString('latin1')).not.toMatch(format === 'xlsx' ? /never/ : /[\u0001\u0002\u000b]/);
      if (format === 'reqif') {
        parseXml(bytes.toString());
        expect((await readReqifFile(bytes)).exchange.objects).toHaveLength(1);
      }
      await client.call(tryExport, { params: { project, format }, body: { collection: requirements } });
    }
    const { id } = await client.call(createReport, { params: { project }, body: { title: 'R', matrices: [requirements] } });
    const archive = await openArchive(await client.bytes(getReportDocument, { project, report: id }));
    parseXml((await archive.read('word/document.xml')).toString());
  });

  it('changes nothing when a text is stored as it is, and refuses to write in what was withdrawn', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const item = await addItem(client, project, requirements, 'Level', { html: '<p>a</p>' });
    const same = await client.call(editItem, {
      params: { project, item: item.id },
      body: { revision: 1, title: item.title, html: item.html, fields: { priority: null } },
    });
    expect(same.revision).toBe(1);
    await client.call(withdrawItems, { params: { project }, body: { items: [item.id] } });
    await expect(client.call(editItem, { params: { project, item: item.id }, body: { revision: 2, title: 'New' } })).rejects.toMatchObject({
      message: expect.stringMatching(/was withdrawn by Ada Wick. Restore it first/),
    });
  });
});
