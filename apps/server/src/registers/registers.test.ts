import { editItem, getItem, type Item, listChanges, queryRegister, undo, writeCells } from '@coomb/contract';
import ExcelJS from 'exceljs';
import { readCsv, readXlsx } from '@coomb/formats';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { driveInTwoPlaces, linkerOf } from '../testing/drive-in-two-places.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const own = (sort: string, of?: string) => ({ id: of ?? sort, shown: { sort, ...(of && { of }) } });
const verifiedBy = { linkKind: 'verifies', end: 'to' as const };

describe('registers', () => {
  const server = useServer();
  const scene = async () => {
    const { client } = server;
    const made = await makeProject(client);
    const { project, requirements, tests } = made;
    const level = await addItem(client, project, requirements, 'Level', { html: '<p>Hold the <b>level</b>.</p>' });
    const flow = await addItem(client, project, requirements, 'Flow');
    const opens = await addItem(client, project, tests, 'Opens');
    const closes = await addItem(client, project, tests, 'Closes');
    await addLink(client, project, 'verifies', opens, level);
    await addLink(client, project, 'verifies', closes, level);
    const query = (what: object, where: object = {}, more: object = {}) =>
      client.call(queryRegister, { params: { project }, body: { what, where: { collections: [], below: [], ...where }, ...more } as never });
    const write = (cells: object[], more: object = {}, by = client) => by.call(writeCells, { params: { project }, body: { cells, ...more } as never });
    const read = (item: Item) => client.call(getItem, { params: { project, item: item.id } });
    return { ...made, client, level, flow, opens, closes, query, write, read };
  };

  it('show chosen columns of items, with what links lead to; one definition serves several places', async () => {
    const { project, client, requirements, tests, query } = await scene();
    const run = '<testsuite name="s"><testcase name="TC-001 Opens"/><testcase name="TC-002 Closes"><failure message="stuck"/></testcase></testsuite>';
    await importThrough(client, project, 'run.xml', Buffer.from(run), {});
    const columns = [
      ...[own('reference'), own('title'), own('text'), own('state'), own('field', 'priority')],
      { id: 'worst', way: [verifiedBy], shown: { sort: 'result' }, as: 'worst' },
      { id: 'tests', way: [verifiedBy], shown: { sort: 'reference' } },
      { id: 'count', way: [verifiedBy], shown: { sort: 'reference' }, as: 'count' },
      own('field', 'nowhere'),
    ];
    const reply = await query({ kinds: ['requirement'], columns });
    expect(reply.rows.map(({ cells }) => cells)).toEqual([
      ['REQ-001', 'Level', 'Hold the level.', 'Failing', null, 'failed', ['TC-001', 'TC-002'], 2, null],
      ['REQ-002', 'Flow', null, 'No test', null, null, null, 0, null],
    ]);
    expect(reply.columns.map(({ type, field }) => [type, field])).toEqual([
      ...[
        ['words', null],
        ['words', 'title'],
        ['words', null],
        ['choice', null],
        ['choice', 'field:priority'],
      ],
      ...[
        ['choice', null],
        ['several', 'links:to:verifies'],
        ['number', null],
        [null, 'field:nowhere'],
      ],
    ]);
    expect((await query({ columns }, { collections: [tests] })).rows.map(({ item }) => item.reference)).toEqual(['TC-001', 'TC-002']);
    expect((await query({ columns }, { collections: [requirements, tests] }, { offset: 1, limit: 2 })).rows.map(({ item }) => item.reference)).toEqual([
      'REQ-002',
      'TC-001',
    ]);
  });

  it('are narrowed, sorted and grouped, and say which conditions ask for what is not there', async () => {
    const { query, write, level, flow } = await scene();
    await write([
      { item: level.id, column: { sort: 'field', field: 'priority' }, text: 'low' },
      { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
    ]);
    const columns = [own('reference'), own('field', 'priority')];
    const untested = { way: [verifiedBy], of: 'no', shown: { sort: 'reference' }, test: 'given' };
    const says = async (what: object) => (await query({ kinds: ['requirement'], columns, ...what })).rows.map(({ item }) => item.reference);
    expect(await says({ conditions: [untested] })).toEqual(['REQ-002']);
    expect(await says({ conditions: [{ shown: { sort: 'field', of: 'priority' }, test: 'is', values: ['Low'] }] })).toEqual(['REQ-001']);
    const unknown = { shown: { sort: 'field', of: 'nowhere' }, test: 'given' };
    expect(await query({ kinds: ['requirement'], columns, conditions: [untested, unknown] })).toMatchObject({ total: 1, unknown: [1] });
    const grouped = await query({ kinds: ['requirement'], columns, group: ['priority'] });
    expect(grouped.groups.map(({ values, count }) => [...values, count])).toEqual(
      expect.arrayContaining([
        ['Low', 1],
        ['High', 1],
      ]),
    );
    expect(await says({ sort: [{ column: 'reference', descending: true }] })).toEqual(['REQ-002', 'REQ-001']);
  });

  it('are written in: fields as their types read them, titles, many cells as one undo', async () => {
    const { client, project, level, flow, write, read } = await scene();
    const told = await write([
      { item: level.id, column: { sort: 'title' }, text: ' Pool  level ' },
      { item: level.id, column: { sort: 'field', field: 'priority' }, text: 'medium' },
      { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
      { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
    ]);
    expect(told).toMatchObject({ changed: 3, refused: [] });
    expect(await read(level)).toMatchObject({ title: 'Pool level', fields: { priority: 'Medium' }, revision: 2 });
    expect((await client.call(listChanges, { params: { project }, query: {} }))[0]!.action).toBe('Write 3 cells');
    await client.call(undo, { params: { project } });
    expect(await read(level)).toMatchObject({ title: 'Level' });
    expect((await read(flow)).fields.priority ?? null).toBeNull();
    await write([{ item: level.id, column: { sort: 'title' }, text: 'X' }], { dryRun: true });
    expect((await read(level)).title).toBe('Level');
  });

  it('tell of every cell that cannot be written why, and write the others only where that is asked for', async () => {
    const { level, flow, write, read } = await scene();
    const cells = [
      { item: level.id, column: { sort: 'field', field: 'priority' }, text: 'Nonsense' },
      { item: level.id, column: { sort: 'title' }, text: '  ' },
      { item: level.id, column: { sort: 'field', field: 'nowhere' }, text: 'x' },
      { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
      { item: flow.id, column: { sort: 'links', linkKind: 'verifies', end: 'to' }, text: 'TC-404' },
      { item: '01a00000-0000-7000-8000-000000000000', column: { sort: 'title' }, text: 'x' },
    ];
    await expect(write(cells)).rejects.toMatchObject({ code: 'input-invalid' });
    expect((await read(flow)).fields.priority ?? null).toBeNull();
    const { changed, refused } = await write(cells, { skipRefused: true });
    expect(changed).toBe(1);
    expect(refused.map(({ cell }) => cell)).toEqual([0, 1, 2, 4, 5]);
    expect(refused[0]!.says).toMatch(/REQ-001.*Nonsense/);
    expect(refused[3]!.says).toContain('TC-404');
    expect((await read(flow)).fields.priority).toBe('High');
  });

  it('make and remove links by what a cell of links names', async () => {
    const { client, project, level, flow, write, read } = await scene();
    const links = (item: Item, text: string) =>
      write([{ item: item.id, column: { sort: 'links', linkKind: 'verifies', end: 'to' }, text }], { skipRefused: true });
    const testsOf = async (item: Item) => (await read(item)).downstream.map(({ other }) => other.reference).toSorted();
    expect(await links(level, 'TC-001, TC-002')).toMatchObject({ changed: 0, refused: [] });
    expect(await links(flow, 'TC-002')).toMatchObject({ changed: 1 });
    expect(await testsOf(flow)).toEqual(['TC-002']);
    expect(await links(level, 'TC-002')).toMatchObject({ changed: 1 });
    expect(await testsOf(level)).toEqual(['TC-002']);
    await client.call(undo, { params: { project } });
    expect(await testsOf(level)).toEqual(['TC-001', 'TC-002']);
    expect((await links(flow, 'REQ-001')).refused[0]!.says).toMatch(/does not join/);
  });

  it('do not overwrite what somebody else wrote in the same cell meanwhile', async () => {
    const { project, level, client } = await scene();
    const { seq } = await client.call(queryRegister, { params: { project }, body: { what: { columns: [own('title')] }, limit: 1 } as never });
    await server.as('Ewan Reed').call(editItem, { params: { project, item: level.id }, body: { revision: 1, title: 'Ewan’s level' } });
    const write = async (column: object, text: string) => {
      const response = await fetch(`${server.address}/api/projects/${project}/cells`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'X-Coomb-Person': 'Ada', 'X-Coomb-Based-On': String(seq) },
        body: JSON.stringify({ cells: [{ item: level.id, column, text }], skipRefused: true }),
      });
      return (await response.json()) as { changed: number; refused: { says: string }[] };
    };
    expect(await write({ sort: 'title' }, 'Ada’s level')).toMatchObject({ changed: 0, refused: [{ says: expect.stringContaining('Ewan Reed') }] });
    expect(await write({ sort: 'field', field: 'priority' }, 'High')).toMatchObject({ changed: 1, refused: [] });
  });

  it('do not take away a link that somebody else made meanwhile, and make one link where two cells say the same', async () => {
    const { project, flow, level, opens, client, read } = await scene();
    const { seq } = await client.call(queryRegister, { params: { project }, body: { what: { columns: [] }, limit: 1 } as never });
    await addLink(server.as('Ewan Reed'), project, 'verifies', opens, flow);
    const write = async (...cells: object[]) => {
      const response = await fetch(`${server.address}/api/projects/${project}/cells`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'X-Coomb-Person': 'Ada', 'X-Coomb-Based-On': String(seq) },
        body: JSON.stringify({ cells, skipRefused: true }),
      });
      return (await response.json()) as { changed: number; refused: { cell: number; says: string }[] };
    };
    const column = (linkKind: string, end: string) => ({ sort: 'links', linkKind, end });
    const told = await write({ item: flow.id, column: column('verifies', 'to'), text: 'TC-002' });
    expect(told).toMatchObject({ changed: 0, refused: [{ cell: 0, says: expect.stringContaining('Ewan Reed') }] });
    expect((await read(flow)).downstream.map(({ other }) => other.reference)).toEqual(['TC-001']);
    const twice = await write(
      { item: level.id, column: column('derives', 'from'), text: 'REQ-002' },
      { item: flow.id, column: column('derives', 'to'), text: 'REQ-001' },
    );
    expect(twice.refused).toEqual([]);
    expect((await read(level)).upstream.filter(({ linkKind }) => linkKind === 'derives')).toHaveLength(1);
  });

  it('are saved as a workbook and as separated values, every row', async () => {
    const { project } = await scene();
    const save = async (format: string) => {
      const response = await fetch(`${server.address}/api/projects/${project}/register/save/${format}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ what: { columns: [own('reference'), own('title')] }, name: 'All items' }),
      });
      expect(decodeURIComponent(response.headers.get('content-disposition')!)).toContain(`All items.${format}`);
      return new Uint8Array(await response.arrayBuffer());
    };
    const rows = readCsv(await save('csv'), 'a.csv').sheets[0]!.rows;
    expect(rows).toEqual([
      ['Reference', 'Title'],
      ['REQ-001', 'Level'],
      ['REQ-002', 'Flow'],
      ['TC-001', 'Opens'],
      ['TC-002', 'Closes'],
    ]);
    expect((await readXlsx(await save('xlsx'))).sheets[0]!.rows).toEqual(rows);
  });

  it('are narrowed by what texts say, across their marks, now and as of an earlier change', async () => {
    const { client, project, level, query } = await scene();
    const says = (test: string, ...values: string[]) => ({ conditions: [{ shown: { sort: 'text' }, test, values }], kinds: ['requirement'] });
    const found = async (what: object) => (await query(what)).rows.map(({ item }) => item.title);
    expect(await found(says('says', 'the LEVEL'))).toEqual(['Level']);
    expect(await found(says('says', 'flow', 'hold  the'))).toEqual(['Level']);
    expect(await found(says('saysNot', 'level'))).toEqual(['Flow']);
    expect(await found(says('missing'))).toEqual(['Flow']);
    expect(await found(says('given'))).toEqual(['Level']);
    expect((await query(says('says', '100%'))).unknown).toEqual([]);
    const { seq } = await query({}, {}, { limit: 0 });
    await client.call(editItem, { params: { project, item: level.id }, body: { revision: 1, html: '<p>Keep 5 &lt; 6 &amp; a<i>bc</i></p>' } });
    expect(await found(says('says', 'level'))).toEqual([]);
    expect(await found(says('says', '5 < 6 & abc'))).toEqual(['Level']);
    const response = await fetch(`${server.address}/api/projects/${project}/register?asOf=${seq}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ what: says('says', 'the level') }),
    });
    expect(((await response.json()) as { total: number }).total).toBe(1);
  });

  it('show each use of an item as a row, and write in that use only', async () => {
    const { client } = server;
    const { project, drive, one, inWeir, inLock } = await driveInTwoPlaces(client);
    await linkerOf(client)(project, 'satisfies', drive, one, inWeir);
    const satisfies = { id: 'needs', way: [{ linkKind: 'satisfies', end: 'from' }], shown: { sort: 'reference' } };
    const ask = (where: object = {}) =>
      client.call(queryRegister, {
        params: { project },
        body: {
          what: { columns: [own('usage'), satisfies], rows: 'usages', conditions: [{ shown: { sort: 'title' }, test: 'is', values: ['Drive'] }] },
          where,
        } as never,
      });
    const cells = async (where?: object) => (await ask(where)).rows.map((row) => row.cells).toSorted();
    const both = [
      [['Lock › lock drive › Drive'], null],
      [['Weir › weir drive › Drive'], [one.reference]],
    ];
    expect(await cells()).toEqual(both);
    expect(await cells({ usedIn: [inLock[0]] })).toEqual([both[0]]);
    const rows = (await ask()).rows;
    const lock = rows.find((row) => String(row.cells[0]).startsWith('Lock'))!;
    expect(lock.use).toEqual(inLock);
    const column = { sort: 'links', linkKind: 'satisfies', end: 'from' };
    const write = (text: string, use = lock.use, more: object = column) =>
      client.call(writeCells, { params: { project }, body: { cells: [{ item: drive.id, use, column: more, text }], skipRefused: true } as never });
    expect(await write(one.reference)).toMatchObject({ changed: 1, refused: [] });
    expect((await cells()).map((row) => row[1])).toEqual([[one.reference], [one.reference]]);
    expect(await write('')).toMatchObject({ changed: 1 });
    expect(await cells()).toEqual(both);
    expect((await write('Other', lock.use, { sort: 'title' })).refused[0]!.says).toContain('wherever it is used');
    await linkerOf(client)(project, 'satisfies', drive, one);
    expect((await write('')).refused[0]!.says).toContain('not hold in this use alone');
  });

  it('are saved with types, widths and links, as a table of the workbook', async () => {
    const { project, write, level } = await scene();
    await write([{ item: level.id, column: { sort: 'title' }, text: '=1+1' }]);
    const columns = [
      own('reference'),
      { ...own('title'), width: 210 },
      own('links'),
      own('changedAt'),
      { ...own('kind'), hidden: true },
      { ...own('title'), id: 'again' },
    ];
    const response = await fetch(`${server.address}/api/projects/${project}/register/save/xlsx`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ what: { columns, kinds: ['requirement'] }, name: 'Typed' }),
    });
    const workbook = new ExcelJS.Workbook();
    await workbook.xlsx.load(await response.arrayBuffer());
    const sheet = workbook.worksheets[0]!;
    expect(sheet.getRow(1).values).toEqual([undefined, 'Reference', 'Title', 'Links', 'Changed on', 'Title 2']);
    const [reference, title, links, changed] = [1, 2, 3, 4].map((at) => sheet.getRow(2).getCell(at).value);
    expect(reference).toEqual({ text: 'REQ-001', hyperlink: `${server.address}/p/${project}?item=REQ-001` });
    expect([title, links]).toEqual(['=1+1', 2]);
    expect(changed).toBeInstanceOf(Date);
    expect(sheet.getColumn(2).width).toBe(30);
    const table = (sheet.getTable('Rows') as unknown as { table: { tableRef: string } }).table;
    expect(table.tableRef).toBe('A1:E3');
  });

  it('can be asked for as of an earlier change', async () => {
    const { project, level, client } = await scene();
    const { seq } = await client.call(queryRegister, { params: { project }, body: { what: { columns: [] }, limit: 0 } as never });
    await client.call(writeCells, {
      params: { project },
      body: { cells: [{ item: level.id, column: { sort: 'title' }, text: 'Later' }], dryRun: false, skipRefused: false },
    });
    const response = await fetch(`${server.address}/api/projects/${project}/register?asOf=${seq}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ what: { columns: [own('title')], kinds: ['requirement'] } }),
    });
    expect(((await response.json()) as { rows: { cells: string[] }[] }).rows.map(({ cells }) => cells[0])).toEqual(['Level', 'Flow']);
  });
});
