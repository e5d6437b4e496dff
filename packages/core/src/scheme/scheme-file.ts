import { nameKey } from './name-key.js';
import { labelOf } from './check-scheme.js';
import { partsOfSort, type SchemeBodies, type SchemePart, type SchemeSort, schemeSorts, VERIFICATION } from './scheme-part.js';

/** A scheme as it is kept in a file: each list in its order. Homes of kinds are left out: they are collections of one project. */
export interface SchemeFile {
  coombScheme: 1;
  name: string;
  layers: ({ key: string } & SchemeBodies['layer'])[];
  kinds: ({ key: string } & Omit<SchemeBodies['kind'], 'home'>)[];
  fields: ({ key: string } & SchemeBodies['field'])[];
  linkKinds: ({ key: string } & SchemeBodies['linkKind'])[];
  rules: ({ key: string } & SchemeBodies['rule'])[];
  verification: SchemeBodies['verification'];
}

/** The parts that are in use, as a file. */
export function writeSchemeFile(name: string, parts: readonly SchemePart[]): SchemeFile {
  // A body is written beside its key, as the file says it.
  const live = <S extends SchemeSort>(sort: S) =>
    partsOfSort(parts, sort)
      .filter((part) => !part.retired)
      .sort((a, b) => a.rank - b.rank)
      // The compiler takes the body of one sort for that of any.
      .map(({ key, body }) => ({ key, ...body })) as unknown as ({ key: string } & SchemeBodies[S])[];
  return {
    coombScheme: 1,
    name,
    layers: live('layer'),
    kinds: live('kind').map(({ home: _, ...kind }) => kind),
    fields: live('field'),
    linkKinds: live('linkKind'),
    rules: live('rule'),
    verification: partsOfSort(parts, 'verification')[0]?.body ?? { of: { kinds: [] }, verifies: '', derives: null, waivedBy: '' },
  };
}

/** The parts that a file holds, ranked by their order. */
export function readSchemeFile(file: SchemeFile): SchemePart[] {
  const list = <S extends SchemeSort>(sort: S, entries: readonly ({ key: string } & SchemeBodies[S])[]) =>
    // The schema of the file was checked: the body is one of its sort.
    entries.map(({ key, ...body }, rank) => ({ sort, key, rank, retired: false, body }) as unknown as SchemePart);
  return [
    ...list('layer', file.layers),
    ...list('kind', file.kinds),
    ...list('field', file.fields),
    ...list('linkKind', file.linkKinds),
    ...list('rule', file.rules),
    { sort: 'verification', key: VERIFICATION, rank: 0, retired: false, body: file.verification },
  ];
}

/** One part of a file beside what a project has in its place. */
export interface SchemeEntry {
  sort: SchemeSort;
  /** Key in the project: of the part in its place, else the one that it would get. */
  key: string;
  state: 'new' | 'changed' | 'same';
  theirs: SchemePart;
  ours: SchemePart | null;
}

/**
 * A file's parts beside a project's own: the same key is the same part, else the same name among those of its sort. The file's parts come with
 * keys of the project, so that they name each other as they would there.
 */
export function compareSchemes(ours: readonly SchemePart[], theirs: readonly SchemePart[]): SchemeEntry[] {
  const keyOf = new Map<string, string>();
  const found = new Map<SchemePart, SchemePart>();
  for (const sort of schemeSorts) {
    const own = ours.filter((part) => part.sort === sort);
    const taken = new Set(own.map((part) => part.key));
    const free = new Set(own);
    const meet = (part: SchemePart, other: SchemePart | undefined) => {
      if (!other || !free.delete(other)) return;
      found.set(part, other);
      keyOf.set(`${sort} ${part.key}`, other.key);
    };
    const list = theirs.filter((part) => part.sort === sort);
    for (const part of list)
      meet(
        part,
        own.find((other) => other.key === part.key && (sort !== 'field' || sharesKind(other, part))),
      );
    for (const part of list)
      if (!found.has(part))
        meet(
          part,
          own.find((other) => free.has(other) && isSameName(other, part)),
        );
    for (const part of list) {
      if (found.has(part)) continue;
      const key = taken.has(part.key) ? nameKey(labelOf(part) ?? part.key, taken, sort) : part.key;
      taken.add(key);
      keyOf.set(`${sort} ${part.key}`, key);
    }
  }
  const named = (sort: SchemeSort) => (key: string) => keyOf.get(`${sort} ${key}`) ?? key;
  return theirs.map((part) => {
    const other = found.get(part) ?? null;
    const body = renameKeys(part, named);
    const moved = { ...part, key: named(part.sort)(part.key), body, rank: other?.rank ?? part.rank } as SchemePart;
    if (other?.sort === 'kind' && moved.sort === 'kind' && other.body.home !== undefined) moved.body = { ...moved.body, home: other.body.home };
    const same = other !== null && !other.retired && isSameBody(other, moved);
    return { sort: part.sort, key: moved.key, state: other === null ? 'new' : same ? 'same' : 'changed', theirs: moved, ours: other };
  });
}

/** The chosen entries with all that they name and the project has not: a kind brings its layer, a rule its kinds and links. */
export function withWhatTheyName(chosen: readonly SchemeEntry[], all: readonly SchemeEntry[]): SchemeEntry[] {
  const missing = new Map(all.filter((entry) => entry.state === 'new' || entry.ours?.retired).map((entry) => [`${entry.sort} ${entry.key}`, entry]));
  const taken = new Set(chosen);
  for (const entry of taken)
    renameKeys(entry.theirs, (sort) => (key) => {
      const needed = missing.get(`${sort} ${key}`);
      if (needed) taken.add(needed);
      return key;
    });
  return all.filter((entry) => taken.has(entry));
}

/** What a part says, with the keys of other parts that it names given other names. */
function renameKeys(part: SchemePart, named: (sort: SchemeSort) => (key: string) => string): SchemePart['body'] {
  const kind = named('kind');
  const kinds = (keys: readonly string[]) => keys.map(kind);
  const link = named('linkKind');
  const field = named('field');
  const filter = <F extends { kinds: string[]; field?: { id: string; oneOf: string[] } | undefined }>(one: F): F => ({
    ...one,
    kinds: kinds(one.kinds),
    ...(one.field && { field: { ...one.field, id: field(one.field.id) } }),
  });
  switch (part.sort) {
    case 'layer':
      return part.body;
    case 'kind':
      return { ...part.body, layer: named('layer')(part.body.layer) };
    case 'field':
      return { ...part.body, kinds: kinds(part.body.kinds), linkKinds: part.body.linkKinds.map(link) };
    case 'linkKind':
      return { ...part.body, fromKinds: kinds(part.body.fromKinds), toKinds: kinds(part.body.toKinds) };
    case 'rule':
      return {
        ...part.body,
        of: filter(part.body.of),
        reach: filter(part.body.reach),
        along: part.body.along.map((step) => ({ ...step, linkKind: link(step.linkKind) })),
      };
    case 'verification': {
      const { of, verifies, derives, waivedBy } = part.body;
      return { of: filter(of), verifies: link(verifies), derives: derives === null ? null : link(derives), waivedBy: named('rule')(waivedBy) };
    }
  }
}

function isSameName(one: SchemePart, other: SchemePart): boolean {
  const label = labelOf(one)?.trim().toLowerCase();
  return label !== undefined && label === labelOf(other)?.trim().toLowerCase() && (one.sort !== 'field' || one.body.type === (other as typeof one).body.type);
}

/** Fields of one key in two schemes may be about other things: they are the same where they say the same, or are of a kind that both have. */
function sharesKind(one: SchemePart, other: SchemePart): boolean {
  if (one.sort !== 'field' || other.sort !== 'field') return false;
  return isSameName(one, other) || one.body.kinds.some((kind) => other.body.kinds.includes(kind));
}

/** Whether two parts say the same, whatever the order of what has none. */
export function isSameBody(one: SchemePart, other: SchemePart): boolean {
  return canonical(one.body) === canonical(other.body);
}

const UNORDERED = new Set(['kinds', 'linkKinds', 'fromKinds', 'toKinds', 'oneOf', 'roles']);

function canonical(body: SchemePart['body']): string {
  return JSON.stringify(body, (key, value: unknown) => {
    if (value === false || value === null) return undefined;
    if (Array.isArray(value)) return value.length === 0 ? undefined : UNORDERED.has(key) ? [...value].sort() : value;
    if (typeof value === 'object') return Object.fromEntries(Object.entries(value as object).sort(([a], [b]) => (a < b ? -1 : 1)));
    return value;
  });
}
