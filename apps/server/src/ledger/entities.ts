import { getTableColumns } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import * as schema from '../database/schema.js';
import type { Entities, Entity } from './change.js';

/** What the history keeps of a row: what it says, in a form of its own that outlives the tables. */
export type Value = Record<string, unknown>;

/** One sort of thing that the ledger keeps: its table, and the form in which the history keeps it. */
export interface LedgerEntity {
  table: PgTable;
  /** What of a row the history keeps: all but whose it is and what it is counted as. */
  keys: readonly string[];
  /**
   * From each older form to the next: the first makes form 2 of form 1, and so on. Whoever adds a column that may not be null, renames one or
   * gives one another meaning adds a step here; what was written before stays as it was written.
   */
  upgrades: readonly ((value: Value) => Value)[];
  /** Says nothing of the project itself: no figure knows of it, and a new one makes no report old. */
  aside?: true;
}

/** A value of the history that does not make a row of today: a step from its form to the next is missing or wrong. */
export class HistoryValueError extends Error {
  override readonly name = 'HistoryValueError';
}

/** What of each sort the history does not keep: whose it is, and what no change of it changes. */
interface Unkept {
  project: 'seq' | 'createdAt';
  item: 'projectId' | 'node';
  report: 'projectId' | 'body';
}
type Kept<E extends Entity> = Exclude<keyof Entities[E], E extends keyof Unkept ? Unkept[E] : 'projectId'>;

/** Rows of the tables, by what they are: a table and the value that it keeps say the same, or this does not compile. */
interface Rows {
  project: typeof schema.projects.$inferSelect;
  collection: typeof schema.collections.$inferSelect;
  source: typeof schema.sources.$inferSelect;
  item: typeof schema.items.$inferSelect;
  link: typeof schema.links.$inferSelect;
  drawing: typeof schema.drawings.$inferSelect;
  run: typeof schema.runs.$inferSelect;
  waiver: typeof schema.waivers.$inferSelect;
  errand: typeof schema.errands.$inferSelect;
  refusal: typeof schema.refusals.$inferSelect;
  recipe: typeof schema.recipes.$inferSelect;
  clipping: typeof schema.clippings.$inferSelect;
  schemePart: typeof schema.schemeParts.$inferSelect;
  set: typeof schema.sets.$inferSelect;
  usage: typeof schema.usages.$inferSelect;
  waitingEnd: typeof schema.waitingEnds.$inferSelect;
  // What a report says is kept as it was written, and checked when it is read.
  report: Omit<typeof schema.reports.$inferSelect, 'body'> & { body: Entities['report']['body'] };
  baseline: typeof schema.baselines.$inferSelect;
  savedView: typeof schema.savedViews.$inferSelect;
}
type Same<E extends Entity> = [Rows[E], Entities[E]] extends [Entities[E], Rows[E]] ? true : never;
const _same: { [E in Entity]: Same<E> } = Object.fromEntries([]) as { [E in Entity]: true };
void _same;

/** Says the keys of a row one by one, so that a column that the history does not know of is no program that compiles. */
const keysOf =
  <E extends Entity>() =>
  <const K extends readonly Kept<E>[]>(...keys: Exclude<Kept<E>, K[number]> extends never ? K : [missing: Exclude<Kept<E>, K[number]>]): readonly string[] =>
    keys as readonly string[];

const tracked = ['id', 'revision', 'withdrawn'] as const;

/** Items once knew one source only. */
function bindToSource({ externalId = null, sourceId = null, place = null, base = null, ...item }: Value): Value {
  if (sourceId === null) return { ...item, bindings: [], exchanged: {} };
  return { ...item, bindings: [{ partner: sourceId, externalId, tag: null }], exchanged: { [String(sourceId)]: { place, base } } };
}

/** Drawings once kept boxes and lines without saying what they are. */
function placeDrawn({ body, ...drawing }: Value): Value {
  const { shapes = [], routes = [] } = (body ?? {}) as { shapes?: object[]; routes?: object[] };
  return {
    ...drawing,
    body: {
      sort: 'other',
      shapes: shapes.map((shape, index) => ({ id: String(index), item: null, inside: -1, figure: 'box', name: '', ...shape })),
      routes: routes.map((route, index) => ({
        ...{ id: `r${index}`, from: -1, to: -1, dashed: false, start: 'none', end: 'none', label: '' },
        ...route,
      })),
    },
  };
}

export const ledgerEntities: Readonly<Record<Entity, LedgerEntity>> = {
  project: { table: schema.projects, keys: keysOf<'project'>()(...tracked, 'name', 'archived'), upgrades: [(value) => ({ ...value, archived: false })] },
  collection: { table: schema.collections, keys: keysOf<'collection'>()(...tracked, 'name', 'holds', 'prefix', 'kind', 'rank', 'setId'), upgrades: [] },
  usage: {
    table: schema.usages,
    keys: keysOf<'usage'>()(...tracked, 'itemId', 'path', 'fields', 'meaningSeq'),
    upgrades: [(value) => ({ ...value, fields: {} }), (value) => ({ ...value, meaningSeq: 0 })],
  },
  waitingEnd: {
    table: schema.waitingEnds,
    keys: keysOf<'waitingEnd'>()(...tracked, 'itemId', 'linkKinds', 'reversed', 'target', 'partner'),
    upgrades: [],
  },
  set: { table: schema.sets, keys: keysOf<'set'>()(...tracked, 'name', 'rank'), upgrades: [] },
  source: {
    table: schema.sources,
    keys: keysOf<'source'>()(
      ...tracked,
      ...(['name', 'format', 'mediaType', 'size', 'importedAt', 'importedBy', 'recipe', 'issues', 'lineageId', 'collectionId', 'choices', 'recipeId'] as const),
    ),
    upgrades: [],
  },
  item: {
    table: schema.items,
    keys: keysOf<'item'>()(
      ...tracked,
      ...(['collectionId', 'kind', 'reference', 'title', 'html', 'fields', 'heading', 'details', 'parentId', 'rank', 'meaningSeq', 'origin'] as const),
      ...(['bindings', 'exchanged', 'createdAt', 'changedAt', 'changedBy'] as const),
    ),
    upgrades: [bindToSource, (value) => ({ ...value, details: [] })],
  },
  link: {
    table: schema.links,
    keys: keysOf<'link'>()(
      ...tracked,
      ...(['kind', 'fromId', 'toId', 'fromUsage', 'toUsage', 'fields', 'origin', 'fromSeq', 'toSeq', 'confirmedBy', 'confirmedAt'] as const),
    ),
    upgrades: [],
  },
  drawing: { table: schema.drawings, keys: keysOf<'drawing'>()(...tracked, 'collectionId', 'itemId', 'name', 'externalId', 'body'), upgrades: [placeDrawn] },
  run: { table: schema.runs, keys: keysOf<'run'>()(...tracked, 'name', 'at', 'seq', 'sourceId'), upgrades: [] },
  waiver: {
    table: schema.waivers,
    keys: keysOf<'waiver'>()(...tracked, 'itemId', 'rule', 'person', 'reason', 'until', 'finding', 'approver'),
    upgrades: [(value) => ({ ...value, finding: null, approver: null })],
  },
  errand: {
    table: schema.errands,
    keys: keysOf<'errand'>()(...tracked, 'itemId', 'linkId', 'sort', 'finding', 'note', 'owner', 'giver', 'at', 'done'),
    upgrades: [],
    aside: true,
  },
  refusal: {
    table: schema.refusals,
    keys: keysOf<'refusal'>()(...tracked, 'itemId', 'otherId', 'itemSeq', 'otherSeq', 'person', 'at'),
    upgrades: [],
    aside: true,
  },
  recipe: { table: schema.recipes, keys: keysOf<'recipe'>()(...tracked, 'name', 'reads', 'body', 'changedAt', 'changedBy'), upgrades: [] },
  clipping: {
    table: schema.clippings,
    keys: keysOf<'clipping'>()(...tracked, 'sourceId', 'itemId', 'field', 'block', 'start', 'end', 'quote'),
    upgrades: [],
  },
  schemePart: { table: schema.schemeParts, keys: keysOf<'schemePart'>()(...tracked, 'sort', 'key', 'rank', 'number', 'body'), upgrades: [] },
  baseline: { table: schema.baselines, keys: keysOf<'baseline'>()(...tracked, 'name', 'note', 'seq', 'person', 'at'), upgrades: [], aside: true },
  savedView: {
    table: schema.savedViews,
    keys: keysOf<'savedView'>()(...tracked, 'sort', 'name', 'version', 'body', 'person', 'at'),
    upgrades: [],
    aside: true,
  },
  report: { table: schema.reports, keys: keysOf<'report'>()(...tracked, 'number', 'title', 'at', 'person', 'seq'), upgrades: [], aside: true },
};

/** Entities that say nothing of the project itself. */
export const asideEntities = Object.entries(ledgerEntities).flatMap(([entity, { aside }]) => (aside ? [entity] : []));

/** The row as the history keeps it, and in which form. */
export function writeValue({ keys, upgrades }: LedgerEntity, row: object): { version: number; value: Value } {
  return { version: upgrades.length + 1, value: Object.fromEntries(keys.map((key) => [key, (row as Value)[key]])) };
}

const requiredKeys = new WeakMap<PgTable, ReadonlySet<string>>();

/** Keys of a table that may not be null. */
function requiredOf(table: PgTable): ReadonlySet<string> {
  let known = requiredKeys.get(table);
  if (!known) {
    known = new Set(Object.entries(getTableColumns(table)).flatMap(([key, column]) => (column.notNull ? [key] : [])));
    requiredKeys.set(table, known);
  }
  return known;
}

/** A row of today from what the history kept, in whatever form; keys in `without` are not asked for. Throws HistoryValueError where it says too little for one. */
export function readValue(
  entity: Entity,
  { version, value }: { version: number; value: Value },
  projectId: string,
  without: readonly string[] = [],
  among = ledgerEntities,
): Entities[Entity] {
  const { table, keys, upgrades } = among[entity];
  if (version < 1 || version > upgrades.length + 1)
    throw new HistoryValueError(`The history holds a ${entity} in form ${version}, and this program knows forms 1 to ${upgrades.length + 1}.`);
  const whole = upgrades.slice(version - 1).reduce((before, upgrade) => upgrade(before), value);
  const required = requiredOf(table);
  const row: Value = { projectId };
  for (const key of keys) {
    const said = whole[key] ?? null;
    if (said === null && required.has(key) && !without.includes(key))
      throw new HistoryValueError(`The history holds a ${entity} in form ${version} that says no ${key}.`);
    row[key] = said;
  }
  // Every key that the entity needs was checked above.
  return row as unknown as Entities[Entity];
}

/** Whether a row still says what a change left, revision counts aside. */
export function isAsLeft(entity: Entity, left: object, current: object): boolean {
  const kept = (row: object) => canonical(writeValue(ledgerEntities[entity], row).value);
  return kept(left) === kept(current);
}

/** The database writes times its own way, so times are compared as moments; what is nothing counts as unsaid. */
function canonical(row: object): string {
  return JSON.stringify(row, (key, value: unknown) => {
    if (value === null) return undefined;
    if (key === 'revision' || key === 'changedAt' || key === 'changedBy') return undefined;
    if ((key === 'at' || key.endsWith('At')) && typeof value === 'string') return new Date(value).getTime();
    if (value && typeof value === 'object' && !Array.isArray(value)) return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
    return value;
  });
}
