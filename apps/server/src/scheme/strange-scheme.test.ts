import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  createProject,
  createReport,
  explainCoverage,
  getExportRecipe,
  getItem,
  getOutline,
  getProject,
  getReadiness,
  getReport,
  listLinks,
  openFigure,
} from '@coomb/contract';
import { defaultScheme, verificationStates } from '@coomb/core';
import { buildStrangeScheme } from '@coomb/core/testing';
import { beforeAll, describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { seedDemo } from '../cli/demo/seed-demo.js';
import { useServer } from '../testing/test-server.js';
import { gaps } from '../reports/blocks/gaps.js';
import { dataOf } from '../reports/blocks/index.js';
import { traceMatrix } from '../reports/blocks/trace-matrix.js';

const files = fileURLToPath(new URL('../../../../demo/files/', import.meta.url));

/** Documents, sheets, exchange files, a model, results, links, rewordings and a waiver: the whole of the demo. */
describe('the whole journey on a scheme that nobody’s code knows', () => {
  const server = useServer();
  let usual: string;
  let strange: string;

  beforeAll(async () => {
    usual = await seedDemo(server.client, files, () => {});
    strange = await seedDemo(server.client, files, () => {}, buildStrangeScheme() as never);
  }, 120_000);

  async function tell(project: string) {
    const { scheme, collections } = await server.client.call(getProject, { params: { project } });
    const outline = await server.client.call(getOutline, { params: { project } });
    const readiness = await server.client.call(getReadiness, { params: { project } });
    return {
      collections: collections.map(({ name, holds, prefix, kind, items }) => [name, holds, prefix, scheme.kinds.findIndex((one) => one.id === kind), items]),
      rows: outline.reference.map((reference, row) => [
        ...[reference, outline.title[row], outline.kind[row], outline.heading[row], verificationStates[outline.state[row]!]],
        ...[outline.up[row], outline.down[row], outline.suspect[row], outline.gaps[row]],
      ]),
      rules: readiness.rules.map(({ counts, applicable }) => [counts, applicable]),
      states: readiness.states.map(({ state, count }) => [state, count]),
      results: readiness.results.map(({ id, count }) => [id, count]),
      links: readiness.links.map(({ count }) => count),
      scheme: readiness.scheme.map(({ count }) => count),
    };
  }

  it('gives the same items, kinds, links, states and figures', async () => {
    const told = await tell(strange);
    expect(told.rows.length).toBeGreaterThan(300);
    expect(told).toEqual(await tell(usual));
    const { scheme } = await server.client.call(getProject, { params: { project: strange } });
    const known = new Set(JSON.stringify(defaultScheme).match(/"(?:id|label|plural|phrase|reverse)":"[^"]*"/g));
    expect((JSON.stringify(scheme).match(/"(?:id|label|plural|phrase|reverse)":"[^"]*"/g) ?? []).filter((one) => known.has(one))).toEqual([]);
  });

  it('reads what files say into the fields that play the same part', async () => {
    const { scheme } = await server.client.call(getProject, { params: { project: strange } });
    const roleOf = new Map(scheme.kinds.flatMap((kind) => kind.fields.map((field) => [field.id, field.role])));
    const usualOf = new Map(defaultScheme.kinds.flatMap((kind) => kind.fields.map((field) => [field.id, field.role])));
    for (const item of ['SYS-001', 'TC-001', 'SW-001', 'GD-001']) {
      const fields = async (project: string, names: ReadonlyMap<string, string | undefined>) => {
        const found = await server.client.call(getItem, { params: { project, item } }).catch(() => undefined);
        // A field without a part is found by its name alone.
        return found && Object.fromEntries(Object.entries(found.fields).flatMap(([id, value]) => (names.get(id) ? [[names.get(id), value]] : [])));
      };
      expect(await fields(strange, roleOf)).toEqual(await fields(usual, usualOf));
    }
  });

  it('explains, reports, saves and reads back', async () => {
    const { scheme, collections } = await server.client.call(getProject, { params: { project: strange } });
    const rule = scheme.verification.waivedBy;
    const { items } = await server.client.call(openFigure, { params: { project: strange, figure: `rule:${rule}:met` }, query: {} });
    const why = await server.client.call(explainCoverage, { params: { project: strange, rule, item: items[0]!.id } });
    expect(why.paths.length).toBeGreaterThan(0);
    expect(why.sentence).toMatch(/^Every z/);
    const made = async (project: string) => {
      const own = (await server.client.call(getProject, { params: { project } })).collections;
      const matrices = [own.find((one) => one.prefix === 'SYS')!.id];
      const { id } = await server.client.call(createReport, { params: { project }, body: { title: 'Status', matrices } as never });
      const { body } = await server.client.call(getReport, { params: { project, report: id } });
      return {
        gaps: dataOf(body, gaps)!.gaps.map(({ item }) => item.reference),
        matrix: dataOf(body, traceMatrix)!.rows.map(({ reference, design, tests }) => [
          reference,
          design.map((one) => one.reference).sort(),
          tests.map((one) => one.reference).sort(),
        ]),
      };
    };
    const report = await made(strange);
    expect(report.matrix.some(([, design, tests]) => design!.length > 0 && tests!.length > 0)).toBe(true);
    expect(report).toEqual(await made(usual));

    const from = collections.find((one) => one.prefix === 'SYS')!;
    const params = { project: strange, collection: from.id, format: 'reqif' as const };
    const file = Buffer.from(await (await fetch(`${server.address}/api/projects/${strange}/collections/${from.id}/export/reqif`)).arrayBuffer());
    const { body } = await server.client.call(getExportRecipe, { params });
    const { id: second } = await server.client.call(createProject, { body: { name: 'Back', scheme: buildStrangeScheme() as never } });
    const wish = { exchangeRecipe: body.recipe, collection: { name: 'Back', prefix: 'SYS', holds: 'specification' } };
    const outcome = await importThrough(server.client, second, 'back.reqif', file, wish as never);
    expect(outcome.items).toBe(from.items);
  });

  it('joins the same ends by the same kinds of links', async () => {
    const between = async (project: string) => {
      const { collections, scheme } = await server.client.call(getProject, { params: { project } });
      const [rows, columns] = [collections.find((one) => one.prefix === 'SYS')!, collections.find((one) => one.prefix === 'TC')!];
      const links = await server.client.call(listLinks, { params: { project }, query: { rows: rows.id, columns: columns.id } as never });
      const outline = await server.client.call(getOutline, { params: { project } });
      const reference = new Map(outline.node.map((node, row) => [node, outline.reference[row]!]));
      return links.from
        .map((from, at) => [
          reference.get(from),
          scheme.linkKinds.findIndex((kind) => kind.id === scheme.linkKinds[links.kind[at]!]!.id),
          reference.get(links.to[at]!),
        ])
        .sort();
    };
    const links = await between(strange);
    expect(links.length).toBeGreaterThan(20);
    expect(links).toEqual(await between(usual));
  });
});

describe('code', () => {
  const root = fileURLToPath(new URL('../../../../', import.meta.url));
  const sources = ['packages/core/src', 'packages/formats/src', 'packages/contract/src', 'apps/server/src', 'apps/web/src'].flatMap((folder) =>
    readdirSync(`${root}${folder}`, { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$|(?:^|\/)testing\//.test(name))
      .map((name) => `${folder}/${name}`),
  );

  it('never names a kind, a link kind or a rule of the usual scheme by its key, starters aside', () => {
    // Keys that are words of other vocabularies too (an element's `part`, a role's `component`) say nothing by themselves.
    const keys = ['testCase', 'allocated', 'implemented', 'tested', 'purposeful', 'justified'];
    const naming = sources
      .filter((name) => !name.includes('/scheme/starters/'))
      .flatMap((name) => {
        const text = readFileSync(`${root}${name}`, 'utf8');
        return keys.filter((key) => new RegExp(`'${key}'`).test(text)).map((key) => `${name}: ${key}`);
      });
    expect(sources.length).toBeGreaterThan(300);
    expect(naming).toEqual([]);
  });

  it('asks for no kind where it compares one: roles are asked for', () => {
    const naming = sources
      .filter((name) => !name.includes('/scheme/'))
      .filter((name) =>
        /\bkind === '(?:need|requirement|information|actor|useCase|function|package|component|interface|part|port)'/.test(
          readFileSync(`${root}${name}`, 'utf8'),
        ),
      );
    expect(naming).toEqual([]);
  });
});
