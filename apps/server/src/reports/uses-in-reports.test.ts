import { changeScheme, createReport, getReport, getReportPage } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { driveInTwoPlaces, linkerOf } from '../testing/drive-in-two-places.js';
import { useServer } from '../testing/test-server.js';
import { triedInEachPlace } from '../testing/tried-rule.js';
import { gaps } from './blocks/gaps.js';
import { dataOf } from './blocks/index.js';
import { traceMatrix } from './blocks/trace-matrix.js';
import { buildReportPage } from './report-page.js';
import { readStored } from './stored-report.js';

describe('a report about items that are used in several places', () => {
  const server = useServer();

  it('says in which use a link holds, and in which nothing is linked', async () => {
    const { client } = server;
    const { project, requirements, drive, motor, one, two, test, inWeir, inLock } = await driveInTwoPlaces(client);
    const link = linkerOf(client);
    await client.call(changeScheme, { params: { project }, body: { edits: [triedInEachPlace] } });
    await link(project, 'satisfies', drive, one, inWeir);
    await link(project, 'satisfies', motor, one);
    await link(project, 'satisfies', drive, two, inWeir);
    await link(project, 'satisfies', drive, two, inLock);
    await link(project, 'verifies', test, drive, undefined, inWeir);
    const { id } = await client.call(createReport, { params: { project }, body: { title: 'Uses', matrices: [requirements] } });
    const { body } = await client.call(getReport, { params: { project, report: id } });
    const design = Object.fromEntries(dataOf(body, traceMatrix)!.rows.map((row) => [row.reference, row.design]));
    expect(design[one.reference]).toEqual([
      { reference: drive.reference, as: ['Weir › weir drive › Drive'], notAs: ['Lock › lock drive › Drive'] },
      { reference: motor.reference, as: [], notAs: [] },
    ]);
    expect(design[two.reference]!.map((other) => [other.reference, other.as.toSorted(), other.notAs])).toEqual([
      [drive.reference, ['Lock › lock drive › Drive', 'Weir › weir drive › Drive'], []],
    ]);
    const why = dataOf(body, gaps)!.gaps.find(({ item }) => item.reference === drive.reference)!.why;
    expect(why).toContain('Not met: tried in each place, as Lock › lock drive › Drive');
    // Nothing is told where every use lacks it.
    expect(dataOf(body, gaps)!.gaps.find(({ item }) => item.reference === motor.reference)!.why).toContain('Not met: tried in each place');
    const page = (await client.bytes(getReportPage, { project, report: id })).toString();
    expect(page).toContain('title="Not linked as Lock › lock drive › Drive"> as Weir › weir drive › Drive; not linked in 1 other use<');
  });

  it('of the time before uses were told apart still reads', () => {
    const about = { project: 'Mill pond', title: 'Status', note: '', at: '2026-11-01T08:00:00.000Z', person: 'Ada Wick', seq: 9, parts: null };
    const row = { reference: 'REQ-001', title: 'Close', heading: false, state: 'planned', design: ['MOD-001', 'MOD-002'], tests: [] };
    const body = readStored({ ...about, blocks: [{ type: 'traceMatrix', version: 1, data: { title: 'Requirements', rows: [row] } }] });
    expect(dataOf(body, traceMatrix)!.rows[0]!.design.map(({ reference, as }) => [reference, as])).toEqual([
      ['MOD-001', []],
      ['MOD-002', []],
    ]);
    expect(buildReportPage(1, body, 'http://weir.example')).toMatch(/MOD-001<\/a><br><a[^>]*>MOD-002/);
  });
});
