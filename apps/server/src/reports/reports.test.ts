import { buildUrl, createReport, editItem, getReport, getReportDocument, getReportPage, keepView, listReports } from '@coomb/contract';
import { openArchive, readDocx } from '@coomb/formats';
import { dataOf } from './blocks/index.js';
import { changes } from './blocks/changes.js';
import { coverage } from './blocks/coverage.js';
import { gaps } from './blocks/gaps.js';
import { traceMatrix } from './blocks/trace-matrix.js';
import { describe, expect, it } from 'vitest';
import { fitWidths } from './document-parts.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('reports', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client, 'Mill <pond> & race');
    const level = await addItem(client, project, requirements, 'Level <b>');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', test, level);
    const publish = async (title = 'Status') =>
      (await client.call(createReport, { params: { project }, body: { title, note: 'For the board.', matrices: [requirements] } })).id;
    return { client, project, requirements, tests, level, publish };
  }

  it('freezes figures, gaps and matrix at the moment of publishing', async () => {
    const { client, project, requirements, publish } = await scene();
    const id = await publish();
    await addItem(client, project, requirements, 'Later');
    const { body, stale } = await client.call(getReport, { params: { project, report: id } });
    expect(stale).toBe(true);
    expect(dataOf(body, traceMatrix)?.rows ?? []).toMatchObject([
      { reference: 'REQ-001', state: 'planned', tests: [{ reference: 'TC-001', as: [], notAs: [] }], design: [] },
    ]);
    expect(dataOf(body, gaps)!.gaps.map((gap) => [gap.item.reference, gap.why])).toEqual([['REQ-001', ['Not met: implemented']]]);
    expect(dataOf(body, changes)?.since ?? null).toBeNull();
  });

  it('says what changed since the report before', async () => {
    const { client, project, requirements, tests, level, publish } = await scene();
    await publish();
    await client.call(editItem, { params: { project, item: level.id }, body: { revision: 1, title: 'Level band' } });
    const added = await addItem(client, project, requirements, 'Siren');
    await addLink(client, project, 'verifies', await addItem(client, project, tests, 'Sounds'), added);
    const { body } = await client.call(getReport, { params: { project, report: await publish('Second') } });
    expect(dataOf(body, changes)?.since ?? null).toMatchObject({ number: 1 });
    expect(dataOf(body, changes)!.changed.map((line) => [line.reference, line.what])).toEqual([
      ['REQ-001', 'reworded'],
      ['REQ-002', 'new'],
      ['TC-002', 'new'],
      ['Links', 'new'],
    ]);
    expect(dataOf(body, changes)!.moved).toContainEqual({ label: 'Implemented: not met', before: 1, now: 2 });
    expect((await client.call(listReports, { params: { project } })).map((one) => [one.number, one.title])).toEqual([
      [2, 'Second'],
      [1, 'Status'],
    ]);
  });

  it('is one web page that needs nothing else and lets no markup through', async () => {
    const { client, project, publish } = await scene();
    const page = (await client.bytes(getReportPage, { project, report: await publish() })).toString();
    expect(page).toContain('Mill &lt;pond&gt; &amp; race');
    expect(page).toContain('Level &lt;b&gt;');
    expect(page).not.toMatch(/<script|<link|src=|Level <b>/);
    for (const heading of ['Summary', 'Verification by collection', 'Coverage', 'Gaps', 'Trace matrix']) expect(page).toContain(heading);
    expect(page).toContain(`/p/${project}/check/figure/state%3Aplanned`);
  });

  it('carries the fonts that it is set in, and may use them', async () => {
    const { project, publish } = await scene();
    const response = await fetch(server.address + buildUrl(getReportPage.path, { project, report: await publish() }));
    expect(response.headers.get('content-security-policy')).toMatch(/font-src [^;]*data:/);
    const fonts = [...(await response.text()).matchAll(/@font-face\{font-family:'(\w+)'[^}]*url\(data:font\/woff2;base64,([^)]+)\)/g)];
    expect(fonts.map(([, family]) => family)).toEqual(['Literata', 'Literata', 'Commissioner']);
    for (const [, , data] of fonts) expect(Buffer.from(data!, 'base64').subarray(0, 4).toString()).toBe('wOF2');
  });

  it('is a document with a table of contents, headings, tables and the chart', async () => {
    const { client, project, publish } = await scene();
    const bytes = await client.bytes(getReportDocument, { project, report: await publish() });
    const { document } = await readDocx(bytes);
    const headings = document.blocks.flatMap((block) => (block.type === 'paragraph' && block.level === 1 ? [block.text] : []));
    expect(headings).toEqual(['Summary', 'Verification by collection', 'Coverage', 'Gaps', 'Trace matrix']);
    expect(document.blocks.filter((block) => block.type === 'table')).toHaveLength(5);
    expect([...document.pictures.values()].map((picture) => picture.mediaType)).toEqual(['image/png']);
    const matrix = document.blocks.findLast((block) => block.type === 'table');
    expect(matrix?.type === 'table' && matrix.rows[1]!.map((cell) => cell.text)).toEqual(['REQ-001', 'Level <b>', 'Planned', '–', 'TC-001']);
  });

  it('has contents that lead to its headings and count their pages by references', async () => {
    const { client, project, publish } = await scene();
    const archive = await openArchive(await client.bytes(getReportDocument, { project, report: await publish() }));
    const xml = (await archive.read('word/document.xml')).toString();
    const anchors = [...xml.matchAll(/<w:hyperlink[^>]*w:anchor="([^"]+)"/g)].map((match) => match[1]);
    const bookmarks = [...xml.matchAll(/<w:bookmarkStart[^>]*w:name="([^"]+)"/g)].map((match) => match[1]);
    const pages = [...xml.matchAll(/PAGEREF (\S+)/g)].map((match) => match[1]);
    expect(anchors).toEqual(['part_summary', 'part_verification_by_collection', 'part_coverage', 'part_gaps', 'part_trace_matrix']);
    expect([bookmarks, pages]).toEqual([anchors, anchors]);
  });

  it('is about the parts that were chosen, with matrices as far as asked, compared with the last report about the same', async () => {
    const { client, project, requirements, tests, publish } = await scene();
    const gates = await addItem(client, project, requirements, 'Gates', { heading: true });
    const gate = await addItem(client, project, requirements, 'Gate travel', { parent: gates.id });
    await publish();
    const about = async (wish: object) => {
      const { id } = await client.call(createReport, { params: { project }, body: { title: 'Part', ...wish } });
      return { ...(await client.call(getReport, { params: { project, report: id } })) };
    };
    const plain = await about({ collections: [requirements] });
    expect([plain.number, dataOf(plain.body, changes)?.since ?? null, dataOf(plain.body, traceMatrix)?.rows ?? []]).toEqual([2, null, []]);
    expect(plain.body.parts).toEqual({ collections: [{ id: requirements, name: 'Requirements' }], sections: [] });
    expect(dataOf(plain.body, gaps)!.gaps.map((gap) => gap.item.reference)).toEqual(['REQ-001', 'REQ-003']);
    const section = await about({ sections: [gates.id], matrices: [requirements] });
    expect(dataOf(section.body, gaps)!.gaps.map((gap) => gap.item.reference)).toEqual([gate.reference]);
    expect((dataOf(section.body, traceMatrix)?.rows ?? []).map((row) => row.reference)).toEqual([gates.reference, gate.reference]);
    expect(dataOf(section.body, coverage)!.rules.find((rule) => rule.rule === 'tested')!.applicable).toBe(1);
    const both = await about({ collections: [requirements, tests], sections: [gates.id], matrices: [requirements, tests] });
    expect((dataOf(both.body, traceMatrix)?.rows ?? []).map((row) => row.reference)).toEqual([gates.reference, gate.reference]);
    const again = await about({ collections: [requirements] });
    expect([again.number, dataOf(again.body, changes)?.since.number]).toEqual([5, 2]);
    const only = await about({ collections: [tests] });
    expect(dataOf(only.body, gaps)!.gaps).toEqual([]);
    const page = (await client.bytes(getReportPage, { project, report: section.id })).toString();
    expect(page).toContain('About section “Gates”.');
    expect(page).not.toContain('/check/figure/');
    await expect(about({ collections: ['01890000-0000-7000-8000-000000000099'] })).rejects.toMatchObject({ code: 'not-found' });
  });

  it('leads to the project from a page that was saved or sent', async () => {
    const { client, project, publish } = await scene();
    const page = (await client.bytes(getReportPage, { project, report: await publish() })).toString();
    const addresses = [...page.matchAll(/href="([^"]+)"/g)].map((match) => match[1]!).filter((href) => !href.startsWith('#'));
    expect(addresses.length).toBeGreaterThan(5);
    for (const address of addresses) expect(address.startsWith(`${server.address}/p/${project}`)).toBe(true);
  });

  it('breaks no column head inside a word', () => {
    const widths = fitWidths(['Requirement', 'Title', 'State', 'Satisfied or refined by', 'Verified by'], [14, 36, 12, 19, 19], 18);
    expect(widths[0]).toBeGreaterThan(11 * 118);
    expect(Math.abs(widths.reduce((sum, width) => sum + width, 0) - 9000)).toBeLessThan(10);
  });

  it('publishes an empty project without falling over', async () => {
    const { client } = server;
    const { project } = await makeProject(client, 'Empty');
    const { id } = await client.call(createReport, { params: { project }, body: { title: 'Nothing yet' } });
    const page = (await client.bytes(getReportPage, { project, report: id })).toString();
    expect(page).toContain('None: every rule is met or waived');
    expect((await client.bytes(getReportDocument, { project, report: id })).length).toBeGreaterThan(1000);
  });

  it('have the colours of a key of items, as they were when it was published, with what they stand for', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    await addItem(client, project, requirements, 'Level');
    const keep = (key: object) =>
      client.call(keepView, { params: { project }, body: { sort: 'colourKey', name: 'Kinds & more', body: { key: JSON.stringify(key) } } });
    const entries = [{ value: 'Requirement', fill: '#0072b2', line: '#112233', dash: 'dashed', width: 2, glyph: 'dot' }];
    const { id } = await keep({ shown: { sort: 'kind' }, entries });
    const publish = (key: string) => client.call(createReport, { params: { project }, body: { title: 'Status', key, matrices: [requirements] } as never });
    const report = await publish(id);
    const page = async () => (await fetch(`${server.address}/api/projects/${project}/reports/${report.id}/page`)).text();
    const html = await page();
    expect(html).toContain('Coloured by Kinds &amp; more: <span class="key" style="background:#0072b2;color:#ffffff;outline:2px dashed #112233">');
    expect(html).toMatch(/<a class="key" style="background:#0072b2[^>]*><svg class="sign"[\s\S]*?REQ-001<\/a>/);
    const archive = await openArchive(await client.bytes(getReportDocument, { project, report: report.id }));
    const xml = (await archive.read('word/document.xml')).toString();
    const coated =
      /<w:r><w:rPr>(?:(?!<\/w:rPr>).)*<w:color w:val="ffffff"\/>(?:(?!<\/w:rPr>).)*<w:bdr w:val="dashed" w:color="112233" w:sz="12"[^>]*>(?:(?!<\/w:rPr>).)*<w:shd w:fill="0072b2"(?:(?!<\/w:r>).)*● /g;
    // Once in the legend, once for the gap, once in the matrix.
    expect(xml.match(coated)).toHaveLength(3);
    expect(xml).toContain('Coloured by Kinds &amp; more: ');
    await keep({ shown: { sort: 'kind' }, entries: [{ value: 'Requirement', fill: '#d55e00' }] });
    expect(await page()).toBe(html);
    await expect(publish((await keep({ about: 'links', shown: { sort: 'linkKind' }, entries: [] })).id)).rejects.toMatchObject({ code: 'input-invalid' });
  });
});
