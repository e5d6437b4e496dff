import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { makeDecisions } from './make-decisions.js';
import { makeDriveModel } from './make-drive-model.js';
import { makeExchange } from './make-exchange.js';
import { makeLinks } from './make-links.js';
import { makeModel } from './make-model.js';
import { makeProcess } from './make-process.js';
import { makeResults } from './make-results.js';
import { makeSignals } from './make-signals.js';
import { actors, dependencies, functions, packages, satisfied, useCases } from './model.js';
import { needs } from './needs.js';
import { numberChapters } from './requirements.js';
import { buildTests } from './tests.js';

const requirements = numberChapters().flatMap((chapter) => chapter.sections.flatMap((section) => section.requirements));
const titles = new Set(requirements.map((one) => one.title));
const blocks = new Set(packages.flatMap((pack) => pack.blocks.map((block) => block.name)));

describe('Larkbeck Weir', () => {
  it('is as large as a demonstration needs', () => {
    expect(requirements.length).toBeGreaterThanOrEqual(120);
    expect(buildTests().length).toBeGreaterThanOrEqual(60);
    const elements = packages.reduce(
      (sum, pack) => sum + pack.blocks.reduce((own, block) => own + 1 + (block.parts?.length ?? 0) + (block.ports?.length ?? 0), 0),
      0,
    );
    expect(elements + actors.length + useCases.length + functions.length).toBeGreaterThanOrEqual(80);
  });

  it('uses no reference and no title twice', () => {
    expect(new Set(requirements.map((one) => one.reference)).size).toBe(requirements.length);
    expect(titles.size).toBe(requirements.length);
    expect(new Set(buildTests().map((test) => test.reference)).size).toBe(buildTests().length);
  });

  it('names only what exists', () => {
    const references = new Set(needs.map(([reference]) => reference));
    for (const { need } of requirements) if (need) expect(references).toContain(need);
    for (const [, names] of [...useCases, ...satisfied]) for (const name of names) expect(titles).toContain(name);
    for (const [, performer, names] of functions) {
      expect(blocks).toContain(performer);
      for (const name of names) expect(titles).toContain(name);
    }
    for (const [block] of satisfied) expect(blocks).toContain(block);
    for (const [from, to] of dependencies) for (const name of [from, to]) expect(blocks).toContain(name);
    for (const pack of packages) for (const block of pack.blocks) for (const [, type] of block.parts ?? []) expect(blocks).toContain(type);
  });

  it('uses the same gate drive at both sites: the usage case', () => {
    const owners = packages.flatMap((pack) => pack.blocks.filter((block) => block.parts?.some(([, type]) => type === 'Gate Drive')).map((block) => block.name));
    expect(owners).toEqual(['Weir Gate', 'Lock Gate']);
  });

  it('leaves honest gaps: untested, unlinked, failing, skipped, unmatched', () => {
    const verified = new Set(buildTests().flatMap((test) => test.verifies.split(', ')));
    expect(requirements.filter((one) => !verified.has(one.reference)).length).toBeGreaterThan(20);
    const linked = makeLinks();
    expect(requirements.filter((one) => !linked.includes(one.reference)).length).toBeGreaterThan(10);
    const results = makeResults('rig') + makeResults('site');
    for (const mark of ['<failure', '<error', '<skipped', 'old_gate_smoke', '<property name="test"']) expect(results).toContain(mark);
  });

  it('keeps its files as its sources make them', () => {
    const folder = join(import.meta.dirname, '..', 'files');
    expect(readdirSync(folder)).toHaveLength(15);
    const file = (name: string) => readFileSync(join(folder, name), 'utf8');
    expect(file('3 Larkbeck model.xmi')).toBe(makeModel());
    for (const issue of [1, 2] as const) {
      const named = (name: string, ending: string) => file(issue === 1 ? `${name}.${ending}` : `next/${name}, issue 2.${ending}`);
      expect(named('10 Drive of the supplier', 'xmi')).toBe(makeDriveModel(issue));
      expect(named('11 Lock passage', 'bpmn')).toBe(makeProcess(issue));
      expect(named('12 Warning stages', 'dmn')).toBe(makeDecisions(issue));
      expect(named('13 Gate drive signals', 'ssd')).toBe(makeSignals(issue));
    }
    expect(file('5 Rig run 7.xml')).toBe(makeResults('rig'));
    expect(file('6 Site run 3.xml')).toBe(makeResults('site'));
    expect(file('links.csv')).toBe(makeLinks());
    expect(file('7 Gate drive of the supplier.reqif')).toBe(makeExchange(1));
    expect(file('next/7 Gate drive of the supplier, issue 2.reqif')).toBe(makeExchange(2));
  });
});
