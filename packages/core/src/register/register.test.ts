import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { TraceGraph } from '../trace/graph.js';
import { buildRegister } from './build-register.js';
import { compareValues, followWay, passerOf, readerOf, wordsOfTexts } from './read-column.js';
import { addColumn, proposeColumns, readyRegister } from './ready-register.js';
import type { Column, Condition, RegisterWhat } from './register.js';
import { sayColumn, sayCondition } from './say-register.js';
import type { RegisterGround } from './shows/show.js';
import { findOffer, shows } from './shows/shows.js';

const kindIndex = (id: string) => defaultScheme.linkKinds.findIndex((one) => one.id === id);
const requirement = (title: string, parent = -1) => ({ kind: 'requirement', heading: false, withdrawn: false, title, collection: 'r', parent });
const test = (title: string) => ({ ...requirement(title), kind: 'testCase', collection: 't' });
/** A section with two requirements in it, two more, and three tests. */
const items = [
  { ...requirement('Levels'), heading: true },
  requirement('Level 10', 0),
  requirement('Level 9', 0),
  requirement('Flow'),
  { ...requirement('Gone'), withdrawn: true },
  test('Rises'),
  test('Falls'),
  test('Stays'),
].map((item, at) => ({ ...item, reference: `${item.kind === 'testCase' ? 'TC' : 'SYS'}-${at}` }));
const links = [
  [5, 1],
  [6, 1],
  [7, 3],
] as const;
const results: Record<number, string> = { 5: 'passed', 6: 'failed', 7: 'passed' };
const fields: Record<number, Record<string, string | number | string[]>> = {
  1: { priority: 'Low', methods: ['Test', 'Analysis'] },
  2: { priority: 'High' },
  3: {},
};

const ground: RegisterGround = {
  scheme: defaultScheme,
  graph: TraceGraph.build({
    nodes: items.length,
    from: Uint32Array.from(links, ([from]) => from),
    to: Uint32Array.from(links, ([, to]) => to),
    kind: Uint8Array.from(links, () => kindIndex('verifies')),
  }),
  items,
  rowOf: items.map((_, at) => at),
  nameOfCollection: (collection) => (collection === 'r' ? 'Requirements' : 'Tests'),
  stateOf: (node) => (node === 1 ? 'failing' : node === 3 ? 'verified' : 'unplanned'),
  coverageOf: (_, node) => (node === 2 ? 'notMet' : 'met'),
  fieldsOf: (node) => fields[node] ?? {},
  createdAt: () => Date.UTC(2026, 10, 1),
  changedAt: (node) => Date.UTC(2026, 10, 1 + node, 12),
  changedBy: (node) => (node % 2 ? 'Ada' : 'Bo'),
  resultOf: (node) => (results[node] ? { outcome: results[node], at: 0 } : undefined),
};

const verified = { linkKind: 'verifies', end: 'to' } as const;
const column = (sort: string, more: Partial<Column> & { of?: string } = {}): Column => {
  const { of, ...rest } = more;
  return { id: sort, way: [], shown: { sort, ...(of && { of }) }, as: 'list', ...rest };
};
const what = (more: Partial<RegisterWhat> = {}): RegisterWhat => ({
  ...{ kinds: ['requirement'], columns: [], conditions: [], match: 'all', sort: [], group: [], shape: 'list' },
  ...more,
});
const where = { collections: [], below: [] };
const condition = (shown: Condition['shown'], asked: Condition['test'], values: string[] = [], more: Partial<Condition> = {}): Condition => ({
  ...{ way: [], of: 'some', shown, test: asked, values },
  ...more,
});
const rowsOf = (wish: RegisterWhat, place: { collections: string[]; below: string[] } = where) => [...buildRegister(ground, wish, place).nodes];

describe('a column', () => {
  it('shows an item’s own values, or those that a way leads to: as a list, counted, least, most or worst', () => {
    const read = (more: Column) => readerOf(ground, more)!.read(1);
    expect(read(column('title'))).toBe('Level 10');
    expect(read(column('place'))).toBe('Levels');
    expect(read(column('field', { of: 'priority' }))).toBe('Low');
    expect(followWay(ground, 1, [verified])).toEqual([5, 6]);
    expect(read(column('reference', { way: [verified] }))).toEqual(['TC-5', 'TC-6']);
    expect(read(column('reference', { way: [verified], as: 'count' }))).toBe(2);
    expect(read(column('result', { way: [verified], as: 'worst' }))).toBe('failed');
    expect(read(column('result', { way: [verified], as: 'least' }))).toBe('passed');
    expect(readerOf(ground, column('result', { way: [verified] }))!.read(2)).toBeNull();
    expect(read(column('links'))).toBe(2);
    expect(read(column('links', { of: 'from verifies' }))).toBe(0);
    expect(read(column('links', { of: 'to verifies' }))).toBe(2);
    expect(read(column('changedAt'))).toBe('2026-11-02T12:00:00.000Z');
  });

  it('is nothing where what it shows is not in the project', () => {
    expect(readerOf(ground, column('field', { of: 'nowhere' }))).toBeUndefined();
    expect(readerOf(ground, column('nothing'))).toBeUndefined();
    expect(buildRegister(ground, what({ columns: [column('nothing')] }), where).readers).toEqual([undefined]);
  });

  it('can show something of every sort, whatever the item', () => {
    for (const { sort, offers } of shows)
      for (const { of } of offers(defaultScheme))
        for (const node of items.keys()) expect(() => readerOf(ground, column(sort, { ...(of && { of }) }))!.read(node)).not.toThrow();
  });

  it('is headed by what it shows', () => {
    expect(sayColumn(defaultScheme, column('result', { way: [verified], as: 'worst' }))).toBe('is verified by → Latest result, worst');
    expect(sayColumn(defaultScheme, column('reference', { way: [verified], as: 'count' }))).toBe('is verified by: how many');
    expect(sayColumn(defaultScheme, column('title', { label: 'Name' }))).toBe('Name');
  });

  it('is proposed by its name, along links too, the shortest way first', () => {
    const say = (words: string) => proposeColumns(defaultScheme, ['requirement'], words).map((one) => sayColumn(defaultScheme, one));
    expect(say('priority')[0]).toBe('Priority');
    expect(say('verified latest worst')[0]).toBe('is verified by → Latest result, worst');
    expect(say('no such thing at all')).toEqual([]);
    expect(say('verified how many')[0]).toBe('is verified by: how many');
  });
});

describe('conditions', () => {
  const passing = (one: Condition) => [1, 2, 3].filter((node) => passerOf(ground, one)!(node));

  it('ask for values, words, bounds and whether there is one', () => {
    const priority = { sort: 'field', of: 'priority' };
    expect(passing(condition(priority, 'is', ['high', 'Low']))).toEqual([1, 2]);
    expect(passing(condition(priority, 'isNot', ['Low']))).toEqual([2, 3]);
    expect(passing(condition(priority, 'missing'))).toEqual([3]);
    expect(passing(condition(priority, 'given'))).toEqual([1, 2]);
    expect(passing(condition({ sort: 'title' }, 'says', ['LEVEL']))).toEqual([1, 2]);
    expect(passing(condition({ sort: 'title' }, 'saysNot', ['level']))).toEqual([3]);
    expect(passing(condition({ sort: 'links' }, 'atLeast', ['1']))).toEqual([1, 3]);
    expect(passing(condition({ sort: 'links' }, 'atMost', ['1']))).toEqual([2, 3]);
    expect(passing(condition({ sort: 'changedAt' }, 'atLeast', ['2026-11-03']))).toEqual([2, 3]);
    expect(passing(condition({ sort: 'changedAt' }, 'atMost', ['2026-11-03']))).toEqual([1, 2]);
    expect(passing(condition({ sort: 'changedAt' }, 'is', ['2026-11-03']))).toEqual([2]);
    expect(passing(condition({ sort: 'changedBy' }, 'is', ['Bo']))).toEqual([2]);
  });

  it('ask for some, every or none of those that a way leads to', () => {
    const result = (of: Condition['of'], value: string) => passing(condition({ sort: 'result' }, 'is', [value], { way: [verified], of }));
    expect(result('some', 'failed')).toEqual([1]);
    expect(result('every', 'passed')).toEqual([2, 3]);
    expect(result('no', 'failed')).toEqual([2, 3]);
    expect(passing(condition({ sort: 'reference' }, 'given', [], { way: [verified], of: 'no' }))).toEqual([2]);
  });

  it('read as sentences', () => {
    expect(sayCondition(defaultScheme, condition({ sort: 'title' }, 'says', ['level']))).toBe('whose Title says “level”');
    expect(sayCondition(defaultScheme, condition({ sort: 'result' }, 'is', ['failed', 'broken'], { way: [verified] }))).toBe(
      'with some “is verified by” whose Latest result is failed or broken',
    );
    expect(sayCondition(defaultScheme, condition({ sort: 'reference' }, 'given', [], { way: [verified], of: 'no' }))).toBe('with no “is verified by”');
  });
});

describe('a register', () => {
  it('has the items of its kinds, in reading order, without headings and what is withdrawn; one definition serves several places', () => {
    expect(rowsOf(what())).toEqual([1, 2, 3]);
    expect(rowsOf(what({ kinds: [] }))).toEqual([1, 2, 3, 5, 6, 7]);
    expect(rowsOf(what(), { collections: [], below: ['0'] })).toEqual([1, 2]);
    expect(rowsOf(what({ kinds: [] }), { collections: ['t'], below: [] })).toEqual([5, 6, 7]);
  });

  it('is narrowed by all of its conditions, or by any', () => {
    const conditions = [condition({ sort: 'field', of: 'priority' }, 'given'), condition({ sort: 'links' }, 'atLeast', ['1'])];
    expect(rowsOf(what({ conditions }))).toEqual([1]);
    expect(rowsOf(what({ conditions, match: 'any' }))).toEqual([1, 2, 3]);
  });

  it('is sorted by several columns, numbers in words as numbers, choices as they are ordered, and nothing last either way', () => {
    const columns = [column('title'), column('field', { of: 'priority' }), column('state')];
    const sorted = (...sort: [string, boolean?][]) => rowsOf(what({ columns, sort: sort.map(([id, descending = false]) => ({ column: id, descending })) }));
    expect(sorted(['title'])).toEqual([3, 2, 1]);
    expect(sorted(['title', true])).toEqual([1, 2, 3]);
    const options = findOffer(defaultScheme, { sort: 'field', of: 'priority' })!.values!;
    expect(sorted(['field'])).toEqual(options.indexOf('High') < options.indexOf('Low') ? [2, 1, 3] : [1, 2, 3]);
    expect(sorted(['field', true]).at(-1)).toBe(3);
    expect(sorted(['state', true], ['title'])[0]).toBe(1);
  });

  it('is grouped with counts in the order of the groups', () => {
    const { groups, nodes } = buildRegister(ground, what({ columns: [column('state')], group: ['state'] }), where);
    expect(groups.map(({ values, count }) => ({ values, count }))).toEqual([
      { values: ['Verified'], count: 1 },
      { values: ['No test'], count: 1 },
      { values: ['Failing'], count: 1 },
    ]);
    expect([...nodes]).toEqual([3, 2, 1]);
  });

  it('is an outline with what its items stand in', () => {
    const { nodes, depth, isContext, total } = buildRegister(
      ground,
      what({ shape: 'outline', conditions: [condition({ sort: 'title' }, 'says', ['9'])] }),
      where,
    );
    expect([...nodes]).toEqual([0, 2]);
    expect([...depth!]).toEqual([0, 1]);
    expect([...isContext!]).toEqual([1, 0]);
    expect(total).toBe(1);
  });

  it('is ready for every kind, with columns of different names', () => {
    for (const { id } of defaultScheme.kinds) {
      const { columns, kinds } = readyRegister(defaultScheme, id);
      expect(kinds).toEqual([id]);
      expect(new Set(columns.map((one) => one.id)).size).toBe(columns.length);
      for (const one of columns) expect(findOffer(defaultScheme, one.shown)).toBeDefined();
    }
    const [first] = readyRegister(defaultScheme, undefined).columns;
    expect(addColumn([first!], first!).id).not.toBe(first!.id);
  });
});

describe('values', () => {
  it('are ordered, nothing last', () => {
    const sorted = [null, 'b', 'a', null, 'A10', 'a9'].sort((a, b) => compareValues(a, b));
    expect(sorted.slice(-2)).toEqual([null, null]);
    expect(sorted.slice(0, 4)).toEqual(['a', 'a9', 'A10', 'b']);
    expect([['a', 'b'], ['a']].sort((a, b) => compareValues(a, b))).toEqual([['a'], ['a', 'b']]);
  });
});

describe('a register of uses', () => {
  /** The requirement at 1 is used in two systems; the test at 5 holds in the first only. */
  const [weir, lock] = [
    { path: ['weir', 'gate', 'i1'], says: 'Weir › Gate' },
    { path: ['lock', 'i1'], says: 'Lock' },
  ];
  const used: RegisterGround = {
    ...ground,
    uses: {
      of: (node) => (node === 1 ? [weir, lock] : []),
      holds: (link, _, use) => link !== 0 || use === weir,
      fieldsIn: (use): Record<string, string> => (use === lock ? { priority: 'High' } : {}),
    },
  };
  const columns = [
    column('usage'),
    { ...column('reference', { way: [verified] }), id: 'tests' },
    { ...column('reference', { way: [verified], as: 'count' }), id: 'count' },
    column('links'),
    column('field', { of: 'priority' }),
  ];
  const rowsIn = (wish: Partial<RegisterWhat>, place: object = {}) => {
    const register = buildRegister(used, what({ columns, rows: 'usages', ...wish }), { ...where, ...place });
    return [...register.nodes].map((node, at) => [node, ...register.readers.map((reader) => reader!.read(node, register.uses?.[at]))]);
  };

  it('has a row for each path, with the links and fields that hold there; what is used in nothing is one row', () => {
    expect(rowsIn({})).toEqual([
      [1, ['Weir › Gate'], ['TC-5', 'TC-6'], 2, 2, 'Low'],
      [1, ['Lock'], ['TC-6'], 1, 1, 'High'],
      [2, null, null, 0, 0, 'High'],
      [3, null, ['TC-7'], 1, 1, null],
    ]);
  });

  it('looks in one system only, where that is asked; sorts, groups and narrows by what holds in each use', () => {
    expect(rowsIn({}, { usedIn: ['lock'] }).map(([node, path]) => [node, path])).toEqual([[1, ['Lock']]]);
    expect(rowsIn({ rows: 'items' }, { usedIn: ['weir'] }).map(([node, path]) => [node, path])).toEqual([[1, ['Weir › Gate', 'Lock']]]);
    expect(rowsIn({ sort: [{ column: 'count', descending: false }] }, { usedIn: ['weir', 'lock'] }).map((row) => row[1])).toEqual([['Lock'], ['Weir › Gate']]);
    expect(rowsIn({ conditions: [condition({ sort: 'field', of: 'priority' }, 'is', ['High'])] }).map(([node, path]) => [node, path])).toEqual([
      [1, ['Lock']],
      [2, null],
    ]);
    const grouped = buildRegister(used, what({ columns: [{ ...columns[2]!, tally: { as: 'total' } }, columns[4]!], rows: 'usages', group: ['field'] }), where);
    expect(grouped.groups.map(({ values, count, tallies }) => [values[0], count, tallies[0]])).toEqual([
      ['High', 2, 1],
      ['Low', 1, 2],
      ['', 1, 1],
    ]);
    expect(grouped.tallies).toEqual([4, null]);
  });
});

describe('conditions on texts and drawings', () => {
  const texts: Record<string, number[]> = { '': [1, 2], gate: [1] };
  const told: RegisterGround = { ...ground, textSays: (words) => new Set(texts[words] ?? []), drawnIn: (node) => (node === 3 ? ['Overview'] : []) };
  const rows = (...conditions: Condition[]) => [...buildRegister(told, what({ conditions }), where).nodes];

  it('ask whoever has looked through the texts', () => {
    expect(rows(condition({ sort: 'text' }, 'says', ['gate']))).toEqual([1]);
    expect(rows(condition({ sort: 'text' }, 'saysNot', ['gate']))).toEqual([2, 3]);
    expect(rows(condition({ sort: 'text' }, 'missing'))).toEqual([3]);
    expect(
      wordsOfTexts([condition({ sort: 'text' }, 'says', ['a', 'b']), condition({ sort: 'text' }, 'given'), condition({ sort: 'title' }, 'says', ['c'])]),
    ).toEqual(['a', 'b', '']);
    // Where texts were not looked through, the condition narrows nothing and is told.
    expect(passerOf(ground, condition({ sort: 'text' }, 'says', ['gate']))).toBeUndefined();
    expect(passerOf(told, condition({ sort: 'text' }, 'is', ['gate']))).toBeUndefined();
  });

  it('ask which drawings show an item', () => {
    expect(rows(condition({ sort: 'drawnIn' }, 'says', ['over']))).toEqual([3]);
    expect(rows(condition({ sort: 'drawnIn' }, 'missing'))).toEqual([1, 2]);
  });
});
