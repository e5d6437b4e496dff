import { describe, expect, it } from 'vitest';
import { defaultScheme } from '@coomb/core';
import { outlineOf } from '../../testing/outline';
import { buildMatrixSides } from '../matrix/matrix-sides';
import { groupsKept, readKept } from './kept';
import { readWeights, writeWeights } from './address';
import { numberFields, weighByNumbers } from './weigh';
import { blocksOf, buildStructure, feedbackIn, orderByGroups, type Weigh } from './things';

const outline = outlineOf([
  { reference: 'Weir', heading: true },
  { reference: 'GATE', parent: 0 },
  { reference: 'DRIVE', parent: 0 },
  { reference: 'Lock', heading: true },
  { reference: 'SLUICE', parent: 3 },
  { reference: 'LAMP', parent: 3 },
]);
const scope = { collections: [outline.collections[0]!], kinds: [], below: [] };
/** Dependencies by outline rows, with their marks. */
const structureOf = (edges: [number, number, number?][], folded: string[] = [], linkedOnly = false, weigh?: Weigh) => {
  const entries = {
    row: Int32Array.from(edges, ([from]) => 100 + from),
    column: Int32Array.from(edges, ([, to]) => 100 + to),
    mark: Uint8Array.from(edges, ([, , mark = 0]) => mark),
    suspect: new Uint8Array(edges.length),
    rowUse: new Int32Array(edges.length).fill(-1),
    columnUse: new Int32Array(edges.length).fill(-1),
  };
  const sides = buildMatrixSides(outline, { rows: scope, columns: scope, entries, usagePaths: [], show: 'all' });
  return buildStructure(outline, sides, (id) => folded.includes(id), linkedOnly, weigh);
};
const edgesOf = ({ things, edges }: ReturnType<typeof structureOf>) =>
  Array.from(edges.from, (from, at) => `${things[from]!.title} ${edges.weight[at]} ${things[edges.to[at]!]!.title}`);

describe('buildStructure', () => {
  it('has a thing for each item, with what each is a part of', () => {
    const structure = structureOf([
      [1, 2],
      [1, 2, 1],
      [4, 1],
    ]);
    expect(structure.things.map(({ title }) => title)).toEqual(['GATE', 'DRIVE', 'SLUICE', 'LAMP']);
    expect(edgesOf(structure)).toEqual(['GATE 2 DRIVE', 'SLUICE 1 GATE']);
    expect([[...structure.today], structure.todayNames]).toEqual([
      [0, 0, 1, 1],
      ['Weir', 'Lock'],
    ]);
    expect(structure.between(0, 1)).toEqual([
      { from: 1, to: 2, mark: 0, suspect: false },
      { from: 1, to: 2, mark: 1, suspect: false },
    ]);
    expect(structure.between(1, 0)).toEqual([]);
  });

  it('weighs dependencies by their kind, or each pair once; what weighs nothing is none', () => {
    const edges: [number, number, number?][] = [
      [1, 2],
      [1, 2, 1],
      [4, 1, 1],
      [4, 2],
    ];
    const weights = readWeights('1:2.5,7:3,nonsense');
    const weighed = (of: Weigh['of'], once = false, folded: string[] = []) => edgesOf(structureOf(edges, folded, false, { of, once }));
    expect(weighed((mark) => weights.get(mark) ?? 1)).toEqual(['GATE 3.5 DRIVE', 'SLUICE 2.5 GATE', 'SLUICE 1 DRIVE']);
    expect(weighed((mark) => 1 - mark)).toEqual(['GATE 1 DRIVE', 'SLUICE 1 DRIVE']);
    expect(weighed(() => 1, true, ['id0', 'id3'])).toEqual(['Lock 1 Weir']);
    expect(weighed(() => 1, false, ['id0', 'id3'])).toEqual(['Lock 2 Weir']);
    expect(
      writeWeights(
        new Map([
          [2, 1],
          [1, 2.5],
          [0, 3],
        ]),
      ),
    ).toBe('0:3,1:2.5');
  });

  it('weighs dependencies by what links say in a field, whichever way they are read; those that say nothing weigh one', () => {
    const marks = [
      { way: [{ linkKind: 'depends', end: 'from' as const }], count: 2 },
      { way: [{ linkKind: 'allocated', end: 'to' as const }], count: 1 },
      {
        way: [
          { linkKind: 'depends', end: 'from' as const },
          { linkKind: 'depends', end: 'from' as const },
        ],
        count: 1,
      },
    ];
    const kindOf = (id: string) => defaultScheme.linkKinds.findIndex((kind) => kind.id === id);
    const [depends, allocated] = [kindOf('depends'), kindOf('allocated')];
    // SLUICE is allocated to DRIVE: read from DRIVE, it is there the other way round.
    const said = { seq: 1, from: [101, 104, 101], to: [102, 102, 102], kind: [depends, allocated, allocated], number: [0.5, 7, 99] };
    const weigh = weighByNumbers(defaultScheme, marks, said);
    const edges: [number, number, number?][] = [
      [1, 2],
      [4, 1],
      [2, 4, 1],
      [1, 5, 2],
    ];
    expect(edgesOf(structureOf(edges, [], true, weigh))).toEqual(['GATE 0.5 DRIVE', 'GATE 1 LAMP', 'DRIVE 7 SLUICE', 'SLUICE 1 GATE']);
    const scheme = {
      ...defaultScheme,
      linkKinds: defaultScheme.linkKinds.map((kind) => ({ ...kind, fields: [{ id: `of ${kind.id}`, label: 'Load', type: 'number' as const }] })),
    };
    expect(numberFields(scheme, marks).map(({ id }) => id)).toEqual(['of depends', 'of allocated'].toSorted((a, b) => kindOf(a.slice(3)) - kindOf(b.slice(3))));
  });

  it('folds packages, with what lies within them and between', () => {
    const structure = structureOf(
      [
        [1, 2],
        [4, 1],
        [5, 2],
        [2, 4],
      ],
      ['id0'],
    );
    expect(structure.things.map(({ title, size, within, isFolded }) => [title, size, within, isFolded])).toEqual([
      ['Weir', 3, 1, true],
      ['SLUICE', 1, 0, false],
      ['LAMP', 1, 0, false],
    ]);
    expect(edgesOf(structure)).toEqual(['Weir 1 SLUICE', 'SLUICE 1 Weir', 'LAMP 1 Weir']);
    expect(structure.rowsOf(0)).toEqual([0, 1, 2]);
    expect(structure.between(2, 0)).toEqual([{ from: 5, to: 2, mark: 0, suspect: false }]);
  });

  it('leaves out what has no dependency, and says how many', () => {
    const structure = structureOf([[1, 2]], [], true);
    expect([structure.things.map(({ title }) => title), structure.unlinked]).toEqual([['GATE', 'DRIVE'], 2]);
  });

  it('counts what stands above the diagonal of an order, and keeps groups together', () => {
    const structure = structureOf([
      [1, 2],
      [1, 2],
      [5, 1],
    ]);
    expect([feedbackIn(structure, [0, 1, 2, 3]), feedbackIn(structure, [1, 0, 2, 3]), feedbackIn(structure, [3, 0, 1, 2])]).toEqual([2, 0, 3]);
    const order = orderByGroups([1, 0, 1, -1]);
    expect(order).toEqual([1, 0, 2, 3]);
    expect(blocksOf(order, [1, 0, 1, -1])).toEqual([{ start: 1, size: 2 }]);
  });
});

describe('groups that were kept', () => {
  const view = (result: string) => ({ sort: 'structure', body: { result } });

  it('are shown again, with new things in groups of their own', () => {
    const kept = readKept(
      view(
        JSON.stringify({
          groups: [
            ['id1', 'id4'],
            ['id2', 'gone'],
          ],
        }),
      ),
    )!;
    const structure = structureOf([]);
    expect([...groupsKept(kept, structure)]).toEqual([0, 1, 0, 2]);
    expect(kept.missing(structure)).toBe(1);
  });

  it('are nothing where none were kept, or something else was', () => {
    expect([readKept(undefined), readKept(view('')), readKept(view('{"groups":1}')), readKept({ ...view('{"groups":[]}'), sort: 'matrix' })]).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });
});
