import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/needs-to-tests.js';
import { below, seeded } from '../testing/random.js';
import { TraceGraph } from '../trace/graph.js';
import type { ConsistencyGround, Example, RuleFinding } from './consistency-rule.js';
import { consistencyRules, findInconsistencies } from './consistency-rules.js';
import { groundOfExample } from './ground-of-example.js';
import { findCircles, restingRoles } from './rules/in-a-circle.js';

const say = (example: Example) =>
  [
    ...example.links.map(([from, kind, to, more]) => `${from} ${kind} ${to}${more ? ` (${Object.values(more)})` : ''}`),
    ...(example.waiting ?? []).map(({ item, target }) => `${item} waits for ${target}`),
  ].join(', ') || 'no link';

describe.each(consistencyRules.map((rule) => [rule.id, rule] as const))('%s', (_, rule) => {
  it.each(rule.examples.fires.map((example) => [say(example), example] as const))('fires: %s', (_, example) => {
    const ground = groundOfExample(defaultScheme, example);
    const findings = rule.find(ground);
    expect(findings).toHaveLength(1);
    const [{ nodes, links, says, mendings }] = findings as [RuleFinding];
    expect(nodes.length).toBeGreaterThan(0);
    expect(says).not.toMatch(/undefined|null/);
    for (const node of nodes) expect(ground.items[node]).toBeDefined();
    // Whatever is proposed is about what was found.
    for (const mending of mendings) if ('link' in mending) expect(links).toContain(mending.link);
  });
  it.each(rule.examples.silent.map((example) => [say(example), example] as const))('is silent: %s', (_, example) => {
    expect(rule.find(groundOfExample(defaultScheme, example))).toEqual([]);
  });
});

describe('rules of consistency', () => {
  it('are the files of the folder, each once', () => {
    const files = readdirSync(join(import.meta.dirname, 'rules')).map((name) => name.replace('.ts', ''));
    expect(consistencyRules.map(({ id }) => id).toSorted()).toEqual(files.toSorted());
  });

  it('find nothing in what is empty, and look at no link that was removed', () => {
    const all = (ground: ConsistencyGround) => findInconsistencies(ground).flatMap(({ findings }) => findings);
    expect(all(groundOfExample(defaultScheme, { items: {}, links: [] }))).toEqual([]);
    for (const rule of consistencyRules)
      for (const example of rule.examples.fires) {
        const ground = groundOfExample(defaultScheme, { ...example, waiting: [] });
        for (let link = 0; link < ground.graph.links; link++) ground.graph.removeLink(link);
        expect(all(ground)).toEqual([]);
      }
  });

  it('mend what they propose to mend by removing: it is found no more', () => {
    for (const rule of consistencyRules)
      for (const example of rule.examples.fires) {
        const ground = groundOfExample(defaultScheme, example);
        for (const mending of rule.find(ground)[0]!.mendings) {
          if (mending.sort !== 'removeLink') continue;
          ground.graph.removeLink(mending.link);
          expect(rule.find(ground), `${rule.id}: ${say(example)}`).toEqual([]);
          ground.graph.restoreLink(mending.link);
        }
      }
  });

  it('find circles where a slow search does, and each that is told is one', () => {
    const derives = defaultScheme.linkKinds.findIndex(({ id }) => id === 'derives');
    const random = seeded(5);
    for (let round = 0; round < 60; round++) {
      const nodes = 2 + below(random, 9);
      const count = below(random, nodes * 1.6);
      const ends = () => Uint32Array.from({ length: count }, () => below(random, nodes));
      const graph = TraceGraph.build({ nodes, from: ends(), to: ends(), kind: new Uint8Array(count).fill(derives) });
      const items = Array.from({ length: nodes }, (_, node) => ({
        kind: 'requirement',
        heading: false,
        withdrawn: false,
        reference: `R-${node}`,
        collection: 'c',
        parent: 'top',
      }));
      const ground = { ...groundOfExample(defaultScheme, { items: {}, links: [] }), graph, items };
      const reaches = (from: number, to: number): boolean => {
        const seen = new Set<number>();
        const nextOf = (node: number) => graph.findLinks(node, 'out').map((link) => graph.to[link]!);
        const open = nextOf(from);
        for (const node of open) {
          if (seen.has(node)) continue;
          seen.add(node);
          open.push(...nextOf(node));
        }
        return seen.has(to);
      };
      const circles = findCircles(ground);
      const inOne = items.map((_, node) => reaches(node, node));
      expect(circles.length > 0).toBe(inOne.includes(true));
      for (const { nodes: told, links } of circles) {
        expect(links.map((link) => graph.from[link])).toEqual(told);
        links.forEach((link, at) => expect(graph.to[link]).toBe(told[(at + 1) % told.length]));
        expect(new Set(told).size).toBe(told.length);
      }
    }
  });

  it('let kinds rest on themselves only where that means something', () => {
    expect(restingRoles).not.toContain('depends');
    expect(restingRoles).not.toContain('leads');
  });
});
