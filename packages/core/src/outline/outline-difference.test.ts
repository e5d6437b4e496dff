import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/random.js';
import { applyOutlineDifference, findSplice, type OutlineColumns } from './outline-difference.js';

const names = ['id', 'reference', 'title', 'clause', 'kind', 'collection', 'heading', 'state', 'up', 'down', 'suspect', 'gaps'] as const;

interface Row {
  node: number;
  /** Node of the parent. */
  parent: number;
  title: string;
  state: number;
}

function columnsOf(rows: readonly Row[]): OutlineColumns {
  const rowOf = new Map(rows.map(({ node }, row) => [node, row]));
  const column = <T>(read: (row: Row) => T) => rows.map(read);
  return {
    node: column(({ node }) => node),
    id: column(({ node }) => `id${node}`),
    reference: column(({ node }) => `X-${node}`),
    title: column(({ title }) => title),
    clause: [],
    kind: column(() => 1),
    collection: column(() => 0),
    parent: column(({ parent }) => rowOf.get(parent) ?? -1),
    heading: column(() => 0),
    state: column(({ state }) => state),
    ...{ up: column(() => 0), down: column(() => 0), suspect: column(() => 0), gaps: column(() => 0) },
  };
}

/** The rows that are new or otherwise, with their parents as nodes. */
function changedOf(before: readonly Row[], after: readonly Row[]): OutlineColumns {
  const was = new Map(before.map((row) => [row.node, JSON.stringify(row)]));
  const changed = after.filter((row) => was.get(row.node) !== JSON.stringify(row));
  return { ...columnsOf(changed), parent: changed.map(({ parent }) => parent) };
}

describe('an outline after a difference', () => {
  it.each([1, 2, 3])('is what the whole outline says, whatever changed (seed %i)', (seed) => {
    const random = seeded(seed);
    let rows: Row[] = [];
    let shown = columnsOf(rows);
    for (let step = 0, next = 0; step < 150; step++) {
      const before = rows;
      rows = rows.map((row) => ({ ...row }));
      const at = Math.floor(random() * (rows.length + 1));
      const dice = random();
      const some = () => (rows.length === 0 ? -1 : rows[Math.floor(random() * rows.length)]!.node);
      if (dice < 0.4 || rows.length < 3) rows.splice(at, 0, { node: next++, parent: random() < 0.5 ? -1 : some(), title: `t${step}`, state: 0 });
      else if (dice < 0.55) {
        const [gone] = rows.splice(Math.min(at, rows.length - 1), 1);
        for (const row of rows) if (row.parent === gone!.node) row.parent = -1;
      } else if (dice < 0.7) rows.splice(at, 0, ...rows.splice(Math.floor(random() * rows.length), 1));
      else if (dice < 0.85) rows[Math.min(at, rows.length - 1)]!.title = `t${step}`;
      else for (const row of rows) if (random() < 0.3) row.state++;
      const difference = {
        order: findSplice(
          before.map(({ node }) => node),
          rows.map(({ node }) => node),
        ),
        rows: changedOf(before, rows),
      };
      shown = applyOutlineDifference(shown, difference);
      expect(shown).toEqual(columnsOf(rows));
    }
  });

  it('keeps the very columns in which nothing changed', () => {
    const rows = [1, 2, 3].map((node) => ({ node, parent: -1, title: `t${node}`, state: 0 }));
    const before = columnsOf(rows);
    const after = applyOutlineDifference(before, { order: null, rows: changedOf(rows, [rows[0]!, { ...rows[1]!, state: 4 }, rows[2]!]) });
    expect(after.state).toEqual([0, 4, 0]);
    for (const name of names) expect(after[name] === before[name]).toBe(name !== 'state');
    expect([after.parent === before.parent, after.node === before.node]).toEqual([true, true]);
  });
});

describe('findSplice', () => {
  it.each([
    [[1, 2, 3], [1, 2, 3], null],
    [[1, 2, 3], [1, 9, 2, 3], { at: 1, remove: 0, insert: [9] }],
    [[1, 2, 3], [1, 3], { at: 1, remove: 1, insert: [] }],
    [[1, 2, 3, 4], [1, 4, 2, 3], { at: 1, remove: 3, insert: [4, 2, 3] }],
    [[], [5], { at: 0, remove: 0, insert: [5] }],
    [[1, 1], [1, 1, 1], { at: 2, remove: 0, insert: [1] }],
  ])('of %j and %j is %j', (before, after, splice) => {
    expect(findSplice(before, after)).toEqual(splice);
  });
});
