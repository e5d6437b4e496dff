import { buildUrl, editItem, readCells, readMatrix, readSavedBody, withdrawItems, writeCells } from '@coomb/contract';
import { unpackEntries, type WayStep } from '@coomb/core';
import ExcelJS from 'exceljs';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const verified: WayStep = { linkKind: 'verifies', end: 'to' };
const leadsTo: WayStep = { linkKind: 'derives', end: 'to' };

describe('matrices', () => {
  const server = useServer();
  const scene = async () => {
    const { client } = server;
    const made = await makeProject(client);
    const { project, requirements, tests } = made;
    const section = await addItem(client, project, requirements, 'Levels', { heading: true });
    const need = await addItem(client, project, requirements, 'Keep dry', { parent: section.id });
    const level = await addItem(client, project, requirements, 'Level', { parent: section.id });
    const flow = await addItem(client, project, requirements, 'Flow');
    const opens = await addItem(client, project, tests, 'Opens');
    const shuts = await addItem(client, project, tests, 'Shuts');
    await addLink(client, project, 'derives', level, need);
    await addLink(client, project, 'derives', flow, need);
    await addLink(client, project, 'verifies', opens, level);
    await addLink(client, project, 'verifies', opens, flow);
    await addLink(client, project, 'verifies', shuts, flow);
    const rows = { collections: [requirements] };
    const columns = { collections: [tests] };
    const read = async (more: object = {}) => {
      const { entries, ...rest } = await server.client.call(readMatrix, { params: { project }, body: { rows, columns, ...more } as never });
      const { row, column, mark, suspect } = unpackEntries(Buffer.from(entries, 'base64'));
      const titleOf = new Map([need, level, flow, opens, shuts].map(({ node }, at) => [node, ['Keep dry', 'Level', 'Flow', 'Opens', 'Shuts'][at]!]));
      const cells = Array.from(row, (node, i) => `${titleOf.get(node)} ${mark[i]}${suspect[i] ? '?' : ''} ${titleOf.get(column[i]!)}`);
      return { ...rest, cells: cells.toSorted() };
    };
    return { ...made, client, section, need, level, flow, opens, shuts, read };
  };

  it('mark every kind of link, read from the row', async () => {
    const { read } = await scene();
    const { marks, cells } = await read();
    expect(marks).toEqual([{ way: [verified], count: 3 }]);
    expect(cells).toEqual(['Flow 0 Opens', 'Flow 0 Shuts', 'Level 0 Opens']);
  });

  it('tell every link of a project once, whether it was there when the project was read or came later', async () => {
    const { read, project, level, shuts, flow, opens } = await scene();
    const every = { rows: {}, columns: {} };
    const before = await read(every);
    const links = ['Flow 0 Keep dry', 'Level 0 Keep dry', 'Opens 1 Flow', 'Opens 1 Level', 'Shuts 1 Flow'];
    expect(before.cells).toEqual(links);
    await server.restart();
    expect((await read(every)).cells).toEqual(links);
    await addLink(server.client, project, 'verifies', shuts, level);
    await server.client.call(editItem, { params: { project, item: flow.id }, body: { revision: 1, title: 'More flow' } });
    const cells = ['Flow 0? Keep dry', 'Level 0 Keep dry', 'Opens 1 Level', 'Opens 1? Flow', 'Shuts 1 Level', 'Shuts 1? Flow'];
    expect((await read(every)).cells).toEqual(cells);
    expect((await read()).cells).toEqual(['Flow 0? Opens', 'Flow 0? Shuts', 'Level 0 Opens', 'Level 0 Shuts']);
    await server.restart();
    expect((await read(every)).cells).toEqual(cells);
    await server.client.call(withdrawItems, { params: { project }, body: { items: [opens.id] } });
    expect((await read(every)).cells).toEqual(cells.filter((cell) => !cell.startsWith('Opens')));
  });

  it('are sent as they are packed: packing a million entries once more would take longer than sending them', async () => {
    const { project } = await scene();
    const response = await fetch(`${server.address}${buildUrl(readMatrix.path, { project })}`, {
      ...{ method: 'POST', headers: { 'Content-Type': 'application/json', 'Accept-Encoding': 'gzip' }, body: JSON.stringify({ rows: {}, columns: {} }) },
    });
    expect([response.status, response.headers.get('cache-control')]).toEqual([200, expect.stringContaining('no-transform')]);
  });

  it('mark ways through items between, with the paths that they took', async () => {
    const { read, client, project, need, opens, level, flow } = await scene();
    const way = [leadsTo, verified];
    const { marks, cells } = await read({ marks: [[verified], way] });
    expect(marks.map(({ count }) => count)).toEqual([3, 2]);
    expect(cells).toEqual(['Flow 0 Opens', 'Flow 0 Shuts', 'Keep dry 1 Opens', 'Keep dry 1 Shuts', 'Level 0 Opens']);
    const [cell] = await client.call(readCells, { params: { project }, body: { cells: [{ row: need.id, column: opens.id }], marks: [[verified], way] } });
    expect(cell!.links).toEqual([]);
    expect(cell!.paths.map(({ mark, says }) => [mark, says])).toEqual([
      [1, `${need.reference} leads to ${level.reference} is verified by ${opens.reference}`],
      [1, `${need.reference} leads to ${flow.reference} is verified by ${opens.reference}`],
    ]);
  });

  it('tell a way as suspect where each of its paths has a suspect link', async () => {
    const { read, client, project, level, flow } = await scene();
    const reword = (item: { id: string }, text: string) =>
      client.call(writeCells, { params: { project }, body: { cells: [{ item: item.id, column: { sort: 'title' }, text }] } as never });
    await reword(level, 'Level anew');
    const way = { marks: [[leadsTo, verified]] };
    expect((await read(way)).cells).toEqual(['Keep dry 0 Opens', 'Keep dry 0 Shuts']);
    await reword(flow, 'Flow anew');
    expect((await read(way)).cells).toEqual(['Keep dry 0? Opens', 'Keep dry 0? Shuts']);
  });

  it('narrow a side to kinds and to what stands below an item, and pass over what was withdrawn', async () => {
    const { read, client, project, requirements, tests, section, flow } = await scene();
    expect((await read({ rows: { below: [section.id] } })).cells).toEqual(['Level 0 Opens']);
    expect((await read({ columns: { kinds: ['requirement'] } })).cells).toEqual(['Flow 0 Keep dry', 'Level 0 Keep dry']);
    expect((await read({ rows: { collections: [tests] }, columns: { collections: [requirements] } })).marks).toEqual([
      { way: [{ linkKind: 'verifies', end: 'from' }], count: 3 },
    ]);
    await client.call(withdrawItems, { params: { project }, body: { items: [flow.id] } as never });
    expect((await read({ marks: [[leadsTo, verified]] })).cells).toEqual(['Keep dry 0 Opens']);
  });

  it('group a side by what its items say, in the order of the values', async () => {
    const { read, client, project, level, flow, need } = await scene();
    await client.call(writeCells, {
      params: { project },
      body: {
        cells: [
          { item: level.id, column: { sort: 'field', field: 'priority' }, text: 'Low' },
          { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
        ],
      } as never,
    });
    const { rowGroups, columnGroups } = await read({ rowsBy: { sort: 'field', of: 'priority' } });
    expect(rowGroups).toEqual([
      { label: 'High', nodes: [flow.node] },
      { label: 'Low', nodes: [level.node] },
      { label: '', nodes: [need.node] },
    ]);
    expect(columnGroups).toBeNull();
    await expect(read({ rowsBy: { sort: 'field', of: 'nowhere' } })).rejects.toMatchObject({ code: 'not-found' });
    await expect(read({ marks: [[{ linkKind: 'nowhere', end: 'to' }]] })).rejects.toMatchObject({ message: expect.stringContaining('"nowhere"') });
  });

  it('are saved with both heads in sight, as a workbook and as separated values', async () => {
    const { project } = await scene();
    const body = {
      name: 'Levels [1]',
      rows: [
        { reference: '', title: 'Levels', depth: 0 },
        { reference: 'REQ-1', title: '=1+1', depth: 1 },
      ],
      columns: [{ reference: 'TC-1', title: 'Opens', depth: 0 }],
      words: ['is verified by', '12'],
      cells: [1, 0, 0, 0, 0, 1],
    };
    const fetchAs = (format: string, change: object = {}) =>
      fetch(`${server.address}/api/projects/${project}/matrix/save/${format}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ ...body, ...change }),
      });
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(await (await fetchAs('xlsx')).arrayBuffer());
    const [sheet] = book.worksheets;
    expect(sheet!.views[0]).toMatchObject({ state: 'frozen', xSplit: 2, ySplit: 2 });
    expect([sheet!.getCell('C1').value, sheet!.getCell('C3').value, sheet!.getCell('B4').value, sheet!.getCell('C4').value]).toEqual([
      'TC-1',
      12,
      '=1+1',
      'is verified by',
    ]);
    expect(await (await fetchAs('csv')).text()).toContain('REQ-1');
    const outside = await fetchAs('csv', { cells: [9, 0, 0] });
    expect([outside.status, (await outside.json()) as object]).toEqual([
      400,
      { error: { code: 'input-invalid', message: 'Cell 1 stands outside of the matrix.' } },
    ]);
  });

  it('that were kept when one kind of link was marked still mark it, from either end', () => {
    const read = (body: Record<string, unknown>) => readSavedBody({ sort: 'matrix', version: 1, body });
    const marks = JSON.stringify([[{ linkKind: 'verifies', end: 'from' }], [{ linkKind: 'verifies', end: 'to' }]]);
    expect(read({ rows: 'a', columns: 'b', kind: 'verifies', show: 'rowGaps', uses: 'together' })).toMatchObject({
      rows: 'a',
      columns: 'b',
      marks,
      show: 'rowGaps',
    });
    expect(read({ rows: 'a', columns: 'b', kind: '' })).toMatchObject({ marks: '', order: 'outline', level: '' });
  });
});
