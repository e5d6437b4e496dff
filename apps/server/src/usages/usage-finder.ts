import { CoombError } from '@coomb/contract';
import { hasRole, linkKindsOfRole } from '@coomb/core';
import type { Change, UsageValue } from '../ledger/change.js';
import type { LightItem } from '../project-state/light-item.js';
import type { ProjectState } from '../project-state/project-state.js';

/** Paths that are looked for from an item upwards. */
const MOST_PATHS = 500;
const DEEPEST = 40;

/** Finds usages by their paths, and makes those that are not stored yet: each path once. */
export class UsageFinder {
  readonly made: Change[] = [];
  private readonly byPath: Map<string, string>;

  constructor(
    private readonly state: ProjectState,
    private readonly newId: () => string,
  ) {
    this.byPath = new Map([...state.usages.values()].flatMap(({ id, path, withdrawn }) => (withdrawn ? [] : [[path.join(' '), id] as const])));
  }

  /** Id of the usage of an item that a path leads to; null where none is asked for. Refuses a path that does not lead there from part to part. */
  find(item: LightItem, path: readonly string[] | undefined): string | null {
    if (path === undefined || path.length === 0) return null;
    const known = this.byPath.get(path.join(' '));
    if (known !== undefined) return known;
    if (path.at(-1) !== item.id) throw new CoombError('input-invalid', `The path of a usage of ${item.reference} must end at it.`);
    if (path.length < 2) throw new CoombError('input-invalid', `A usage of ${item.reference} is a path of at least two items: what it is used in, and itself.`);
    path.slice(1).forEach((part, index) => {
      if (!findWholes(this.state, part).includes(path[index]!))
        throw new CoombError(
          'input-invalid',
          `${this.nameOf(part)} is no part of ${this.nameOf(path[index]!)}, so that this is no usage of ${item.reference}.`,
        );
    });
    const row: UsageValue = { id: this.newId(), projectId: this.state.id, revision: 1, withdrawn: false, itemId: item.id, path: [...path] };
    this.made.push({ entity: 'usage', before: null, after: row });
    this.byPath.set(path.join(' '), row.id);
    return row.id;
  }

  private nameOf(id: string): string {
    return this.state.items[this.state.nodeOf.get(id) ?? -1]?.reference ?? id;
  }
}

/**
 * What an item is used in directly: what it stands below, unless that is a section; what composes it; and the parts that are uses of it, which
 * themselves stand in something.
 */
export function findWholes(state: ProjectState, id: string): string[] {
  const node = state.nodeOf.get(id);
  if (node === undefined || !state.isPresent(node)) return [];
  const { parentId } = state.items[node]!;
  const wholes = new Set<string>();
  const enter = (other: number) => {
    const item = state.items[other]!;
    if (!item.withdrawn && !item.heading && !hasRole(state.scheme, item.kind, 'package')) wholes.add(item.id);
  };
  if (parentId !== null && state.nodeOf.has(parentId)) enter(state.nodeOf.get(parentId)!);
  for (const [role, direction] of [
    ['composes', 'in'],
    ['types', 'in'],
  ] as const)
    for (const { id: kind } of linkKindsOfRole(state.scheme, role))
      for (const link of state.graph.findLinks(node, direction, state.linkKindIndex(kind))) enter(state.graph.from[link]!);
  return [...wholes];
}

/** Paths of parts that lead down to an item, each from a root; shortest first, as many as can be shown. */
export function findPaths(state: ProjectState, id: string): string[][] {
  const whole: string[][] = [];
  let open: string[][] = [[id]];
  while (open.length > 0 && whole.length < MOST_PATHS) {
    const next: string[][] = [];
    for (const path of open) {
      const above = findWholes(state, path[0]!).filter((one) => !path.includes(one));
      if (above.length === 0 || path.length >= DEEPEST) {
        if (path.length > 1) whole.push(path);
      } else for (const one of above) next.push([one, ...path]);
    }
    open = next.slice(0, MOST_PATHS);
  }
  return whole.slice(0, MOST_PATHS);
}
