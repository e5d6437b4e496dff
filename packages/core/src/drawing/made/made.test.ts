import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/random.js';
import { drawMade } from './draw-made.js';
import { findMadeSort, growHolders, type MadeDefinition, type MadeGraph, type MadeGround, type MadeSort, placeByHand, placeTree } from './index.js';

interface Thing {
  id: string;
  role: string;
  parent?: string;
  type?: string;
  collection?: number;
}

/** A project of a few things; links as [from, to, phrase]. What stands below a component is its part. */
function ground(things: Thing[], links: [string, string, string?][] = []): MadeGround {
  const at = (id: string | undefined) => things.findIndex((one) => one.id === id);
  const below = things.map((one) => things.flatMap((other, index) => (other.parent === one.id ? [index] : [])));
  return {
    nodes: () => [...things.keys()],
    idOf: (node) => things[node]!.id,
    titleOf: (node) => things[node]!.id,
    referenceOf: (node) => `R-${node}`,
    kindLabelOf: (node) => things[node]!.role,
    hasRole: (node, role) => things[node]!.role === role,
    isHeading: (node) => things[node]!.role === 'heading',
    parentOf: (node) => at(things[node]!.parent),
    childrenOf: (node) => below[node]!,
    partsOf: (node) => below[node]!,
    typeOf: (node) => at(things[node]!.type),
    collectionOf: (node) => things[node]!.collection ?? 0,
    collections: [
      { id: 'needs', name: 'Needs' },
      { id: 'model', name: 'Model' },
    ],
    linksOf: (node) =>
      links.flatMap(([from, to, phrase = 'depends on'], link) => [
        ...(at(from) === node ? [{ link, other: at(to), phrase, out: true, suspect: false }] : []),
        ...(at(to) === node ? [{ link, other: at(from), phrase, out: false, suspect: false }] : []),
      ]),
  };
}

const define = (sort: MadeSort, about: string, more: Partial<MadeDefinition> = {}): MadeDefinition => ({ sort, about, levels: 9, detail: [], ...more });
const build = (from: MadeGround, definition: MadeDefinition): MadeGraph => findMadeSort(definition.sort)!.build(from, definition)!;
const names = ({ nodes }: MadeGraph) => nodes.map(({ name }) => name);
const lines = ({ nodes, edges }: MadeGraph) =>
  edges.map(({ from, to, label, derived }) => `${nodes[from]!.name} ${derived ? '⇢' : '→'} ${nodes[to]!.name}${label ? `: ${label}` : ''}`);

/** A site of two gates with a drive each; the drive has a motor, a travel and an order port. */
const site: Thing[] = [
  { id: 'site', role: 'component' },
  { id: 'west', role: 'part', parent: 'site', type: 'gate' },
  { id: 'east', role: 'part', parent: 'site', type: 'gate' },
  { id: 'gate', role: 'component' },
  { id: 'lift', role: 'part', parent: 'gate', type: 'drive' },
  { id: 'drive', role: 'component' },
  { id: 'motor', role: 'part', parent: 'drive' },
  { id: 'travel', role: 'value', parent: 'drive' },
  { id: 'order', role: 'port', parent: 'drive' },
];

describe('drawings made here', () => {
  it('show what a system is made of, to the levels asked for, with what stands in each', () => {
    const graph = build(ground(site), define('composition', 'site'));
    expect(names(graph)).toEqual(['site', 'west: gate', 'east: gate', 'lift: drive', 'lift: drive', 'motor', 'motor']);
    expect(lines(graph)[0]).toBe('site → west: gate');
    expect(new Set(graph.nodes.map(({ key }) => key)).size).toBe(graph.nodes.length);
    expect(names(build(ground(site), define('composition', 'site', { levels: 1 })))).toHaveLength(3);
    const detailed = build(ground(site), define('composition', 'drive', { detail: ['values', 'ports', 'reference'] }));
    expect(detailed.nodes[0]!.parts).toEqual([
      { title: 'values', lines: ['travel'] },
      { title: 'ports', lines: ['order'] },
    ]);
    expect(detailed.nodes[0]!.keyword).toBe('R-5 · component');
    expect(findMadeSort('composition')!.build(ground(site), define('composition', 'gone'))).toBeUndefined();
  });

  it('tell what contains itself, and do not follow it', () => {
    const graph = build(
      ground([
        { id: 'a', role: 'component' },
        { id: 'in', role: 'part', parent: 'a', type: 'a' },
      ]),
      define('composition', 'a'),
    );
    expect(graph.nodes.map(({ name, keyword }) => [name, keyword])).toEqual([
      ['a', 'component'],
      ['in: a', 'repeats what it stands in'],
    ]);
  });

  it('show the outline below an item, or of a collection', () => {
    const things: Thing[] = [
      { id: 'chapter', role: 'heading' },
      { id: 'one', role: 'requirement', parent: 'chapter' },
      { id: 'picture', role: 'drawing' },
      { id: 'other', role: 'requirement', collection: 1 },
    ];
    expect(names(build(ground(things), define('hierarchy', 'needs')))).toEqual(['Needs', 'chapter', 'one']);
    expect(names(build(ground(things), define('hierarchy', 'chapter')))).toEqual(['chapter', 'one']);
  });

  it('show what meets a system from outside, and what of it is met', () => {
    const things: Thing[] = [...site, { id: 'operator', role: 'actor' }, { id: 'grid', role: 'component' }, { id: 'need', role: 'requirement' }];
    const graph = build(
      ground(things, [
        ['operator', 'order', 'gives'],
        ['site', 'grid', 'is fed by'],
        ['motor', 'grid', 'is fed by'],
        ['drive', 'need', 'satisfies'],
        ['motor', 'travel'],
      ]),
      define('context', 'site'),
    );
    expect(names(graph).sort()).toEqual(['grid', 'operator', 'site']);
    expect(lines(graph).sort()).toEqual(['operator ⇢ site: gives: order', 'site → grid: is fed by']);
    expect(graph.edges.find(({ label }) => label === 'is fed by')!.links).toEqual([1, 2]);
  });

  it('put use cases within a boundary and actors beside it', () => {
    const graph = build(
      ground(
        [
          { id: 'open', role: 'useCase' },
          { id: 'keeper', role: 'actor' },
          { id: 'gate', role: 'component' },
        ],
        [
          ['keeper', 'open', 'takes part in'],
          ['gate', 'open', 'performs'],
        ],
      ),
      define('useCases', 'needs'),
    );
    expect(graph.nodes.map(({ name, inside, figure }) => [name, inside, figure])).toEqual([
      ['Needs', -1, 'box'],
      ['open', 0, 'ellipse'],
      ['keeper', -1, 'actor'],
    ]);
    expect(lines(graph)).toEqual(['keeper → open: takes part in']);
  });

  it('show functions and what leads from one to the next', () => {
    const graph = build(
      ground(
        [
          { id: 'measure', role: 'function' },
          { id: 'decide', role: 'function' },
          { id: 'gate', role: 'component' },
        ],
        [
          ['measure', 'decide'],
          ['decide', 'gate'],
        ],
      ),
      define('flow', ''),
    );
    expect(lines(graph)).toEqual(['measure → decide: depends on']);
  });

  it('count links between what holds their ends', () => {
    const things: Thing[] = [
      { id: 'goals', role: 'heading' },
      { id: 'n1', role: 'need', parent: 'goals' },
      { id: 'n2', role: 'need', parent: 'goals' },
      { id: 'gates', role: 'package', collection: 1 },
      { id: 'gate', role: 'component', parent: 'gates', collection: 1 },
      { id: 'loose', role: 'component', collection: 1 },
    ];
    const graph = build(
      ground(things, [
        ['gate', 'n1'],
        ['gate', 'n2'],
        ['loose', 'n1'],
        ['loose', 'gate'],
        ['n1', 'n2'],
      ]),
      define('overview', ''),
    );
    expect(graph.nodes.map(({ name, keyword, inside }) => [name, keyword, inside])).toEqual([
      ['Needs', '', -1],
      ['goals', '2 items', 0],
      ['Model', '1 item', -1],
      ['gates', '2 items', 2],
    ]);
    expect(lines(graph)).toEqual(['gates ⇢ goals: 2', 'Model ⇢ goals: 1']);
  });
});

describe('places', () => {
  const graph = build(ground(site), define('composition', 'site'));

  it('of a tree grow to the right without touching; what is moved by hand takes its branch along', () => {
    const laid = placeTree(graph, {});
    for (const [index, { branch }] of graph.nodes.entries()) if (branch >= 0) expect(laid[index]!.x).toBeGreaterThan(laid[branch]!.x + laid[branch]!.width);
    const moved = placeTree(graph, { [graph.nodes[1]!.key]: { x: 40, y: -300 } });
    const by = moved.map((box, index) => [box.x - laid[index]!.x, box.y - laid[index]!.y]);
    const branchOf = (index: number): number => (graph.nodes[index]!.branch <= 0 ? index : branchOf(graph.nodes[index]!.branch));
    by.forEach((change, index) => expect(change).toEqual(index > 0 && branchOf(index) === 1 ? [40, -300] : [0, 0]));
  });

  it('of a tree with two sides lie left and right of its root', () => {
    const node = (key: string, branch: number, side?: -1) => ({ ...graph.nodes[0]!, key, name: key, branch, ...(side && { side }) });
    const both: MadeGraph = { nodes: [node('root', -1), node('up', 0, -1), node('down', 0), node('further up', 1, -1)], edges: [], isTree: true, cut: false };
    const [root, up, down, further] = placeTree(both, {});
    expect(up!.x + up!.width).toBeLessThan(root!.x);
    expect(further!.x + further!.width).toBeLessThan(up!.x);
    expect(down!.x).toBeGreaterThan(root!.x + root!.width);
  });

  it('by hand stay, and what came since is put beside what it is joined with, over nothing', () => {
    const random = seeded(3);
    for (let round = 0; round < 30; round++) {
      const count = 4 + Math.floor(random() * 20);
      const nodes = Array.from({ length: count }, (_, index) => ({ ...graph.nodes[0]!, key: `k${index}`, branch: -1 }));
      const edges = nodes.slice(1).map((_, index) => ({
        ...{ from: Math.floor(random() * (index + 1)), to: index + 1, label: '', links: [], derived: false, suspect: false },
        ...{ start: 'none' as const, end: 'none' as const },
      }));
      const one: MadeGraph = { nodes, edges, isTree: false, cut: false };
      const laid = nodes.map((_, index) => ({ x: index * 150, y: 0, width: 120, height: 60 }));
      const known = nodes.slice(0, Math.ceil(count / 2));
      const hand = Object.fromEntries(known.map(({ key }, index) => [key, { x: (index % 4) * 180, y: Math.floor(index / 4) * 120 }]));
      const boxes = placeByHand(one, laid, hand);
      known.forEach(({ key }, index) => expect([boxes[index]!.x, boxes[index]!.y]).toEqual([hand[key]!.x, hand[key]!.y]));
      for (let a = 0; a < count; a++)
        for (let b = a + 1; b < count; b++) {
          const [p, q] = [boxes[a]!, boxes[b]!];
          expect(p.x < q.x + q.width && q.x < p.x + p.width && p.y < q.y + q.height && q.y < p.y + p.height).toBe(false);
        }
    }
    const laid = graph.nodes.map((_, index) => ({ x: index, y: 0, width: 10, height: 10 }));
    expect(placeByHand(graph, laid, {})).toEqual(laid);
  });

  it('of what holds others follow what it holds', () => {
    const holder = [
      { ...graph.nodes[0]!, key: 'holder' },
      { ...graph.nodes[0]!, key: 'a', inside: 0 },
      { ...graph.nodes[0]!, key: 'b', inside: 0 },
    ];
    const [grown] = growHolders(holder, [
      { x: 0, y: 0, width: 1, height: 1 },
      { x: 100, y: 50, width: 40, height: 20 },
      { x: 300, y: 90, width: 40, height: 20 },
    ]);
    expect(grown!.x).toBeLessThan(100);
    expect(grown!.y).toBeLessThan(50);
    expect(grown!.x + grown!.width).toBeGreaterThan(340);
    expect(grown!.y + grown!.height).toBeGreaterThan(110);
  });

  it('become shapes and routes that begin and end at the borders of what they join', () => {
    const among = build(ground(site, [['motor', 'travel']]), define('hierarchy', 'site'));
    const boxes = placeTree(among, {});
    const { shapes, routes } = drawMade(among, boxes, (item) => `item ${item}`);
    expect(shapes.map(({ item }) => item)).toContain('item 0');
    for (const { points, from, to } of routes)
      for (const [end, shape] of [
        [points[0]!, shapes[from]!],
        [points.at(-1)!, shapes[to]!],
      ] as const) {
        const onSide = end.x === shape.x || end.x === shape.x + shape.width;
        expect(onSide && end.y >= shape.y && end.y <= shape.y + shape.height).toBe(true);
      }
  });

  it('of any two boxes are joined by straight stretches that end at their borders', () => {
    const random = seeded(11);
    for (let round = 0; round < 300; round++) {
      const box = () => ({
        x: Math.round(random() * 600),
        y: Math.round(random() * 400),
        width: 60 + Math.round(random() * 100),
        height: 40 + Math.round(random() * 60),
      });
      const nodes = [graph.nodes[0]!, graph.nodes[1]!];
      const edge = { from: 0, to: 1, label: 'x', links: [], derived: true, suspect: false, start: 'none', end: 'arrow' } as const;
      const boxes = [box(), box()];
      const { routes } = drawMade({ nodes, edges: [{ ...edge, links: [] }], isTree: false, cut: false }, boxes, String);
      const { points, dashed } = routes[0]!;
      expect(dashed).toBe(true);
      for (let at = 1; at < points.length; at++) expect(points[at]!.x === points[at - 1]!.x || points[at]!.y === points[at - 1]!.y).toBe(true);
      for (const [end, one] of [
        [points[0]!, boxes[0]!],
        [points.at(-1)!, boxes[1]!],
      ] as const) {
        const within = end.x >= one.x && end.x <= one.x + one.width && end.y >= one.y && end.y <= one.y + one.height;
        const border = end.x === one.x || end.x === one.x + one.width || end.y === one.y || end.y === one.y + one.height;
        expect(within && border).toBe(true);
      }
    }
  });
});
