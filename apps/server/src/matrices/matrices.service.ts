import { CoombError, MOST_MARKS, type MatrixScope, type readCells, type readMatrix, type ReplyOf } from '@coomb/contract';
import { findPaths, followSteps, type MarkStep, type PackedEntries, packEntries, phraseAt, readerOf, sayValue, type Shown, type WayStep } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import type { Input } from '../http/route.js';
import { RegisterGrounds } from '../lenses/register-grounds.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

const MOST_PATHS = 20;

type Way = readonly WayStep[];

/** Entries as they are found; as many as there turn out to be. */
class Entries {
  private count = 0;
  private columns = columnsFor(1024);

  add(row: number, column: number, mark: number, isSuspect: boolean, rowUse: number, columnUse: number): void {
    if (this.count === this.columns.row.length) {
      const larger = columnsFor(2 * this.count);
      for (const name of names) larger[name].set(this.columns[name]);
      this.columns = larger;
    }
    const { columns, count } = this;
    columns.row[count] = row;
    columns.column[count] = column;
    columns.mark[count] = mark;
    columns.suspect[count] = isSuspect ? 1 : 0;
    columns.rowUse[count] = rowUse;
    columns.columnUse[count] = columnUse;
    this.count++;
  }

  pack(): string {
    const { row, column, mark, suspect, rowUse, columnUse } = this.columns;
    const taken = <A extends Int32Array | Uint8Array>(array: A) => array.subarray(0, this.count) as A;
    const packed = packEntries({
      ...{ row: taken(row), column: taken(column), mark: taken(mark), suspect: taken(suspect) },
      ...{ rowUse: taken(rowUse), columnUse: taken(columnUse) },
    });
    return Buffer.from(packed.buffer, packed.byteOffset, packed.byteLength).toString('base64');
  }
}

const names = ['row', 'column', 'mark', 'suspect', 'rowUse', 'columnUse'] as const;

const columnsFor = (room: number): PackedEntries => ({
  ...{ row: new Int32Array(room), column: new Int32Array(room), mark: new Uint8Array(room), suspect: new Uint8Array(room) },
  ...{ rowUse: new Int32Array(room), columnUse: new Int32Array(room) },
});

/** What stands between the items of two scopes: links, and ways through items between them. */
@Injectable()
export class MatricesService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(RegisterGrounds) private readonly grounds: RegisterGrounds,
  ) {}

  async read(projectId: string, body: Input<typeof readMatrix>['body']): Promise<ReplyOf<typeof readMatrix>> {
    const state = await this.states.get(projectId);
    const [rows, columns] = [inScope(state, body.rows), inScope(state, body.columns)];
    const usages: string[] = [];
    const usagePaths: string[][] = [];
    const placeOf = placesOf(state, usages, usagePaths);
    const entries = new Entries();
    const marks: { way: WayStep[]; count: number }[] = body.marks.map((way) => ({ way, count: 0 }));
    if (marks.length > 0) {
      const ends = state.usages.ends();
      marks.forEach((mark, at) => {
        const steps = this.stepsOf(state, mark.way, columns);
        for (let node = 0; node < rows.length; node++)
          if (rows[node])
            followSteps(
              state.graph,
              node,
              steps,
              (one) => state.isPresent(one),
              ends,
              (end, isClean, startUse, endUse) => {
                mark.count++;
                entries.add(node, end, at, !isClean, placeOf(startUse), placeOf(endUse));
              },
            );
      });
    } else addEveryLink(state, rows, columns, marks, entries, placeOf);
    return {
      ...{ seq: state.seq, life: state.life, marks, entries: entries.pack(), usages, usagePaths },
      rowGroups: await this.group(state, rows, body.rowsBy),
      columnGroups: await this.group(state, columns, body.columnsBy),
    };
  }

  /** Links of each cell either way, whatever is marked, and the paths of the ways that are marked. */
  async readCells(projectId: string, { cells, marks }: Input<typeof readCells>['body']): Promise<ReplyOf<typeof readCells>> {
    const state = await this.states.get(projectId);
    const { graph } = state;
    const isPresent = (one: number) => state.isPresent(one);
    return cells.map((cell) => {
      const [row, column] = [getNode(state, cell.row), getNode(state, cell.column)];
      const links = (['out', 'in'] as const).flatMap((direction) =>
        graph.findLinks(row, direction).flatMap((link) => {
          const other = direction === 'out' ? graph.to[link]! : graph.from[link]!;
          if (other !== column || (row === column && direction === 'in')) return [];
          const usage = state.linkUsage(link);
          const pathOf = (id: string | null | undefined) => (id ? [...state.usages.pathOf(id)] : null);
          const [rowUse, columnUse] = direction === 'out' ? [usage?.from, usage?.to] : [usage?.to, usage?.from];
          return [
            {
              id: state.linkIds.at(link),
              linkKind: state.scheme.linkKinds[graph.kind[link]!]!.id,
              ...{ reversed: direction === 'in', suspect: graph.isSuspect(link), rowUse: pathOf(rowUse), columnUse: pathOf(columnUse) },
            },
          ];
        }),
      );
      const paths = marks.flatMap((way, mark) =>
        way.length < 2
          ? []
          : findPaths(graph, row, column, this.stepsOf(state, way), isPresent, state.usages.ends(), MOST_PATHS).map((path) => ({
              ...{ mark, says: sayPath(state, row, path), suspect: path.some((link) => graph.isSuspect(link)) },
            })),
      );
      return { links, paths: paths.sort((a, b) => a.mark - b.mark || a.says.localeCompare(b.says, 'en', { numeric: true })).slice(0, MOST_PATHS) };
    });
  }

  /** Steps of a way as the graph walks them; the last one to items of the columns only. */
  private stepsOf(state: ProjectState, way: Way, columns?: Uint8Array): MarkStep[] {
    return way.map(({ linkKind, end, kinds }, at) => {
      const kind = state.scheme.linkKinds.findIndex(({ id }) => id === linkKind);
      if (kind < 0) throw new CoombError('not-found', `There is no link kind "${linkKind}" in this project. Choose the marks of the matrix anew.`);
      const wanted = kinds && kinds.length > 0 ? new Set(kinds) : undefined;
      const isLast = at === way.length - 1 && columns !== undefined;
      const isEnd = wanted || isLast ? (node: number) => (!wanted || wanted.has(state.items[node]!.kind)) && (!isLast || columns[node] === 1) : undefined;
      return { kind, direction: end === 'from' ? ('out' as const) : ('in' as const), ...(isEnd && { isEnd }) };
    });
  }

  /** Items of a side by what they say, in the order of the values; those that say nothing stand last. */
  private async group(state: ProjectState, nodes: Uint8Array, by: Shown | undefined) {
    if (!by) return null;
    const reader = readerOf(await this.grounds.find(state), { way: [], shown: by, as: 'list' });
    if (!reader) throw new CoombError('not-found', 'What the matrix is grouped by is not in this project any more. Group it by something else.');
    const { rowOf } = state.outline();
    const groups = new Map<string, number[]>();
    for (let node = 0; node < nodes.length; node++) {
      if (!nodes[node] || state.items[node]!.heading) continue;
      const label = sayValue(reader.read(node));
      const group = groups.get(label);
      if (group) group.push(node);
      else groups.set(label, [node]);
    }
    const place = (label: string) => (label === '' ? Number.MAX_SAFE_INTEGER : (reader.order?.get(label) ?? 1e9));
    return [...groups]
      .sort(([a], [b]) => place(a) - place(b) || a.localeCompare(b, 'en', { numeric: true }))
      .map(([label, group]) => ({ label, nodes: group.sort((a, b) => rowOf[a]! - rowOf[b]!) }));
  }
}

/** Each link between two scopes once: as the row's item says it where that can stand at its `from` end, else as it reads from the other end. */
function addEveryLink(
  state: ProjectState,
  rows: Uint8Array,
  columns: Uint8Array,
  marks: { way: WayStep[]; count: number }[],
  entries: Entries,
  placeOf: (usage: number) => number,
): void {
  const { graph, scheme } = state;
  const ends = state.usages.ends();
  const useAt = (link: number, node: number) => (ends ? placeOf(ends.usageAt(link, node)) : -1);
  /** Marks of the two ways to read each kind; -1 until there is one. */
  const found = new Int8Array(2 * scheme.linkKinds.length).fill(-1);
  const markOf = (kind: number, end: 'from' | 'to') => {
    const key = 2 * kind + (end === 'to' ? 1 : 0);
    let at = found[key]!;
    if (at < 0) {
      at = Math.min(marks.length, MOST_MARKS - 1);
      found[key] = at;
      marks[at] ??= { way: [{ linkKind: scheme.linkKinds[kind]!.id, end }], count: 0 };
    }
    marks[at]!.count++;
    return at;
  };
  const [out, back] = [graph.sweepRows('out', false), graph.sweepRows('in', false)];
  const take = (node: number, link: number, other: number, kind: number, end: 'from' | 'to') => {
    // Both ends in both scopes: once, as it reads from its `from` end.
    if (!columns[other] || (end === 'to' && rows[other] && columns[node])) return;
    entries.add(node, other, markOf(kind, end), out.skip !== 0 && graph.isSuspect(link), useAt(link, node), useAt(link, other));
  };
  for (let node = 0; node < rows.length; node++) {
    if (!rows[node]) continue;
    for (const [{ start, link, other, kind, state: marked, skip, nodes }, direction, end] of [
      [out, 'out', 'from'],
      [back, 'in', 'to'],
    ] as const) {
      if (node < nodes)
        for (let at = start[node]!, last = start[node + 1]!; at < last; at++)
          if (skip === 0 || !(marked[link[at]!]! & skip)) take(node, link[at]!, other[at]!, kind[at]!, end);
      graph.forEachAdded(node, direction, (one, far) => take(node, one, far, graph.kind[one]!, end));
    }
  }
}

/** 1 for each item that is there and in a scope. */
function inScope(state: ProjectState, { collections, kinds, below }: MatrixScope): Uint8Array {
  const [wanted, ofKind] = [new Set(collections), new Set(kinds)];
  const top = new Set(below.map((id) => getNode(state, id)));
  const isBelow = new Int8Array(state.items.length).fill(-1);
  const standsBelow = (node: number): boolean => {
    if (isBelow[node]! >= 0) return isBelow[node] === 1;
    const parent = state.items[node]!.parentId;
    const is: boolean = top.has(node) || (parent !== null && standsBelow(state.nodeOf.get(parent)!));
    isBelow[node] = is ? 1 : 0;
    return is;
  };
  return Uint8Array.from(state.items, ({ collectionId, kind }, node) =>
    Number(
      state.isPresent(node) &&
        (wanted.size === 0 || wanted.has(collectionId)) &&
        (ofKind.size === 0 || ofKind.has(kind)) &&
        (top.size === 0 || standsBelow(node)),
    ),
  );
}

/** Places of usages in a list of their own, by their number; -1 for all. */
function placesOf(state: ProjectState, usages: string[], paths: string[][]): (usage: number) => number {
  const known = new Map<number, number>();
  return (usage) => {
    if (usage === 0) return -1;
    let place = known.get(usage);
    if (place === undefined) {
      const path = state.usages.pathOfNumber(usage);
      place = usages.push(state.usages.sayPath(path)) - 1;
      paths.push([...path]);
      known.set(usage, place);
    }
    return place;
  };
}

function sayPath(state: ProjectState, start: number, path: readonly number[]): string {
  const { graph, items, scheme } = state;
  let at = start;
  let says = items[start]!.reference;
  for (const link of path) {
    const end = graph.from[link] === at ? 'from' : 'to';
    at = end === 'from' ? graph.to[link]! : graph.from[link]!;
    says += ` ${phraseAt(scheme.linkKinds[graph.kind[link]!]!, end)} ${items[at]!.reference}`;
  }
  return says;
}
