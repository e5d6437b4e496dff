import { createReport, editItem, exportCollection, getItem, getOutline, getProject, getReport, undo } from '@coomb/contract';
import { dataOf } from '../reports/blocks/index.js';
import { gaps } from '../reports/blocks/gaps.js';
import { traceMatrix } from '../reports/blocks/trace-matrix.js';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { makeProject, useServer } from '../testing/test-server.js';

describe('numbers of clauses', () => {
  const server = useServer();
  const text = '# 4 Gates\n\n4.1 The gate must close.\n\nIt is old.\n\n4.2 The gate must lock.\n';

  it('that a recipe puts into a field stand in the outline, and follow edits, undo and a restart', async () => {
    const { project } = await makeProject(server.client);
    const clauses = async () => {
      const { clause, title } = await server.client.call(getOutline, { params: { project } });
      return title.map((one, row) => [clause[row] ?? '', one]);
    };
    await importThrough(server.client, project, 'plain.md', Buffer.from('# Lamps\n\nThe lamp must burn.\n'), {
      collection: { name: 'Lamps', prefix: 'LA', holds: 'specification' },
    });
    expect((await server.client.call(getOutline, { params: { project } })).clause).toEqual([]);
    await importThrough(server.client, project, 'gates.md', Buffer.from(text), {
      collection: { name: 'Gates', prefix: 'GA', holds: 'specification' },
      documentRecipe: {
        name: 'r',
        kind: 'requirement',
        headings: Array.from({ length: 9 }, () => 'section' as const),
        identifier: '',
        bindingWords: ['must'],
        between: 'section',
        labels: [],
        tables: [],
        numberField: 'rationale',
      },
    });
    const expected = [
      ['', 'Lamps'],
      ['', 'The lamp must burn.'],
      ['4', 'Gates'],
      ['4.1', 'The gate must close.'],
      ['4.2', 'The gate must lock.'],
    ];
    expect(await clauses()).toEqual(expected);
    const { id } = await server.client.call(getOutline, { params: { project } });
    const { revision } = await server.client.call(getItem, { params: { project, item: id[3]! } });
    await server.client.call(editItem, { params: { project, item: id[3]! }, body: { revision, fields: { rationale: '4.1.1' } } });
    expect((await clauses())[3]).toEqual(['4.1.1', 'The gate must close.']);
    await server.client.call(undo, { params: { project } });
    expect(await clauses()).toEqual(expected);
    await server.restart();
    expect(await clauses()).toEqual(expected);

    const gates = (await server.client.call(getProject, { params: { project } })).collections.find(({ prefix }) => prefix === 'GA')!.id;
    const { id: report } = await server.client.call(createReport, { params: { project }, body: { title: 'Gates', matrices: [gates] } });
    const { body } = await server.client.call(getReport, { params: { project, report } });
    expect((dataOf(body, traceMatrix)?.rows ?? []).map(({ title }) => title)).toEqual(['4 Gates', '4.1 The gate must close.', '4.2 The gate must lock.']);
    expect(dataOf(body, gaps)!.gaps.map(({ item }) => item.title)).toContain('4.2 The gate must lock.');
    const csv = (await server.client.bytes(exportCollection, { project, collection: gates, format: 'csv' })).toString();
    expect(csv).toMatch(/^GA-001,.*,4\.1(,|\r)/m);
  });
});
