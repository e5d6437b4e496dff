import { createReport, getReport, type ReportBody } from '@coomb/contract';
import { Paragraph } from 'docx';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readDocx } from '@coomb/formats';
import { makeProject, useServer } from '../../testing/test-server.js';
import { buildReportDocument } from '../report-document.js';
import { buildReportPage } from '../report-page.js';
import { readStored } from '../stored-report.js';
import type { ReportBlock } from './block.js';
import { changes } from './changes.js';
import { coverage } from './coverage.js';
import { dataOf, readBlocks, reportBlocks } from './index.js';
import { summary } from './summary.js';

const about = { project: 'Mill pond', title: 'Status', note: '', at: '2026-11-01T08:00:00.000Z', person: 'Ada Wick', seq: 9, parts: null };
const figure = (id: string, label: string, count: number) => ({ id, label, count });

describe('stored reports', () => {
  /** As they were stored before reports consisted of blocks. */
  const whole = {
    ...about,
    readiness: {
      seq: 9,
      states: [{ ...figure('state:planned', 'Planned', 4), state: 'planned' }],
      results: [figure('results:passed', 'Tests passed', 3)],
      rules: [
        {
          rule: 'tested',
          label: 'Tested',
          sentence: 'Every requirement is tested.',
          applicable: 4,
          counts: { notApplicable: 0, met: 3, suspect: 0, waived: 0, notMet: 1 },
        },
      ],
      links: [],
      testsPerRequirement: [],
      requirementsPerTest: [],
      collections: [],
    },
    gaps: [],
    matrix: { title: 'Requirements, design and tests', rows: [] },
    since: { number: 1, at: '2026-10-01T08:00:00.000Z' },
    moved: [{ label: 'Tested: not met', before: 2, now: 1 }],
    changed: [],
  };

  it('of the form before blocks read as blocks that say the same', async () => {
    const body = readStored(structuredClone(whole));
    expect(body.blocks.map(({ type, version }) => `${type} ${version}`)).toEqual(['summary 1', 'byCollection 1', 'coverage 1', 'changes 1', 'gaps 1']);
    expect(dataOf(body, summary)!.states).toEqual(whole.readiness.states);
    expect(dataOf(body, coverage)!.rules).toEqual(whole.readiness.rules);
    expect(dataOf(body, changes)!.moved).toEqual(whole.moved);
    const page = buildReportPage(2, body, 'http://weir.example/p/1');
    for (const said of ['4 requirements and needs; test cases: 3 passed.', 'Every requirement is tested.', 'Tested: not met', 'None: every rule'])
      expect(page).toContain(said);
    expect((await readDocx(await buildReportDocument(2, body))).document.blocks.length).toBeGreaterThan(8);
    expect(readStored(body)).toEqual(body);
  });

  /** A block that was written in two older forms. */
  const silt: ReportBlock<{ millimetres: number }> = {
    type: 'silt',
    title: 'Silt',
    schema: z.object({ millimetres: z.number() }),
    upgrades: [(data) => ({ centimetres: (data as { depth: number }).depth }), (data) => ({ millimetres: (data as { centimetres: number }).centimetres * 10 })],
    build: () => ({ millimetres: 30 }),
    page: ({ millimetres }) => `<p>${millimetres} mm of silt</p>`,
    document: ({ millimetres }) => [new Paragraph(`${millimetres} mm of silt`)],
  };
  const stored = (version: number, data: unknown): ReportBody => ({ ...about, blocks: [{ type: 'silt', version, data }] });

  it('are brought from every older form to the present one', () => {
    for (const [version, data] of [
      [1, { depth: 3 }],
      [2, { centimetres: 3 }],
      [3, { millimetres: 30 }],
    ] as const)
      expect(readBlocks(stored(version, data), [...reportBlocks, silt])[0]!.data).toEqual({ millimetres: 30 });
  });

  it('say so where a part is of another version, and stay readable', async () => {
    for (const body of [
      stored(3, { millimetres: 30 }),
      { ...about, blocks: [{ type: 'gaps', version: 99, data: {} }, ...readStored(whole).blocks] },
      { ...about, blocks: [{ type: 'gaps', version: 1, data: { gaps: 'none' } }] },
    ]) {
      const page = buildReportPage(2, body, 'http://weir.example/p/1');
      expect(page).toContain('written by another version of Coomb');
      expect((await buildReportDocument(2, body)).length).toBeGreaterThan(1000);
    }
  });
});

describe('a block that is added', () => {
  const server = useServer();
  it('is in new reports, on their page and in their document, by one file and one line', async () => {
    const { project } = await makeProject(server.client);
    const silt: ReportBlock<{ items: number }> = {
      type: 'silt',
      title: 'Silt',
      schema: z.object({ items: z.number() }),
      upgrades: [],
      build: ({ state }) => ({ items: state.items.length }),
      page: ({ items }) => `<p>Silt on ${items} items</p>`,
      document: ({ items }) => [new Paragraph(`Silt on ${items} items`)],
    };
    // The line: the list is the one place that knows blocks.
    (reportBlocks as unknown[]).push(silt);
    try {
      const { id } = await server.client.call(createReport, { params: { project }, body: { title: 'With silt' } });
      const { body } = await server.client.call(getReport, { params: { project, report: id } });
      expect(body.blocks.at(-1)).toEqual({ type: 'silt', version: 1, data: { items: 0 } });
      expect(buildReportPage(1, body, 'http://weir.example')).toContain('<p>Silt on 0 items</p>');
      const { document } = await readDocx(await buildReportDocument(1, body));
      expect(document.blocks.flatMap((block) => (block.type === 'paragraph' ? [block.text] : []))).toContain('Silt on 0 items');
    } finally {
      (reportBlocks as unknown[]).pop();
    }
  });
});
