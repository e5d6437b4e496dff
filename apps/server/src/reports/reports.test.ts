import { createReport, editItem, getReport, getReportDocument, getReportPage, listReports } from '@coomb/contract';
import { openArchive, readDocx } from '@coomb/formats';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('reports', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client, 'Mill <pond> & race');
    const level = await addItem(client, project, requirements, 'Level <b>');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', test, level);
    const publish = async (title = 'Status') => (await client.call(createReport, { params: { project }, body: { title, note: 'For the board.' } })).id;
    return { client, project, requirements, tests, level, publish };
  }

  it('freezes figures, gaps and matrix at the moment of publishing', async () => {
    const { client, project, requirements, publish } = await scene();
    const id = await publish();
    await addItem(client, project, requirements, 'Later');
    const { body, stale } = await client.call(getReport, { params: { project, report: id } });
    expect(stale).toBe(true);
    expect(body.matrix.rows).toMatchObject([{ reference: 'REQ-001', state: 'planned', tests: ['TC-001'], design: [] }]);
    expect(body.gaps.map((gap) => [gap.item.reference, gap.why])).toEqual([['REQ-001', ['Not met: implemented']]]);
    expect(body.since).toBeNull();
  });

  it('says what changed since the report before', async () => {
    const { client, project, requirements, tests, level, publish } = await scene();
    await publish();
    await client.call(editItem, { params: { project, item: level.id }, body: { revision: 1, title: 'Level band' } });
    const added = await addItem(client, project, requirements, 'Siren');
    await addLink(client, project, 'verifies', await addItem(client, project, tests, 'Sounds'), added);
    const { body } = await client.call(getReport, { params: { project, report: await publish('Second') } });
    expect(body.since).toMatchObject({ number: 1 });
    expect(body.changed.map((line) => [line.reference, line.what])).toEqual([
      ['REQ-001', 'reworded'],
      ['REQ-002', 'new'],
      ['TC-002', 'new'],
      ['Links', 'new'],
    ]);
    expect(body.moved).toContainEqual({ label: 'Implemented: not met', before: 1, now: 2 });
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

  it('has a table of contents that leads to its headings, in runs that office programs understand', async () => {
    const { client, project, publish } = await scene();
    const archive = await openArchive(await client.bytes(getReportDocument, { project, report: await publish() }));
    const xml = (await archive.read('word/document.xml')).toString();
    const anchors = [...xml.matchAll(/<w:hyperlink[^>]*w:anchor="([^"]+)"/g)].map((match) => match[1]);
    const bookmarks = [...xml.matchAll(/<w:bookmarkStart[^>]*w:name="([^"]+)"/g)].map((match) => match[1]);
    expect(anchors).toEqual(['part_summary', 'part_verification_by_collection', 'part_coverage', 'part_gaps', 'part_trace_matrix']);
    expect(bookmarks).toEqual(anchors);
    expect(xml).toMatch(/<w:r><w:instrText[^>]*>TOC [^<]*<\/w:instrText><\/w:r>/);
    expect(xml).toContain('<w:docPartGallery w:val="Table of Contents"/>');
  });

  it('publishes an empty project without falling over', async () => {
    const { client } = server;
    const { project } = await makeProject(client, 'Empty');
    const { id } = await client.call(createReport, { params: { project }, body: { title: 'Nothing yet' } });
    const page = (await client.bytes(getReportPage, { project, report: id })).toString();
    expect(page).toContain('None: every rule is met or waived');
    expect((await client.bytes(getReportDocument, { project, report: id })).length).toBeGreaterThan(1000);
  });
});
