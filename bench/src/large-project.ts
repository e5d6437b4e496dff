import { defaultScheme, takeApart } from '@coomb/core';
import { buildPartRows, ledgerEntities, openDatabase } from '@coomb/server';
import { generate } from './generate.js';

export const linkKinds = Object.fromEntries(defaultScheme.linkKinds.map((kind, index) => [kind.id, index]));
export const idOf = (sort: number, number: number) => `0189${String(sort).padStart(4, '0')}-0000-7000-8000-${number.toString(16).padStart(12, '0')}`;
export const benchProject = idOf(1, 1);
export const collectionOf: Record<string, { id: string; name: string; prefix: string; holds: string }> = {
  need: { id: idOf(2, 1), name: 'Needs', prefix: 'NEED', holds: 'specification' },
  requirement: { id: idOf(2, 2), name: 'Requirements', prefix: 'SYS', holds: 'specification' },
  component: { id: idOf(2, 3), name: 'Design', prefix: 'MOD', holds: 'model' },
  testCase: { id: idOf(2, 4), name: 'Tests', prefix: 'TC', holds: 'tests' },
};

/** Fills a data folder with a project of `size.items` items and `size.links` links, and `size.changes` edits after them, straight into the tables. */
export async function fillLarge(folder: string, size: { items: number; links: number; changes?: number }): Promise<void> {
  const { client, close } = await openDatabase(folder);
  const { kinds, from, to, linkKind } = generate(size.items, size.links, linkKinds);
  const now = '2026-11-01T08:00:00Z';
  let parts = 0;
  /** Rows as lines of values parted by tabs, some thousand at a time. */
  const copy = async (table: string, columns: string, lines: string[]) => {
    const names = columns.split(', ');
    const { rows } = await client.query('select attname as name, format_type(atttypid, atttypmod) as type from pg_attribute where attrelid = $1::regclass', [
      table,
    ]);
    const types = new Map((rows as { name: string; type: string }[]).map(({ name, type }) => [name, type]));
    const values = names.map((name, index) => `c[${index + 1}]::${types.get(name)}`).join(', ');
    const insert = `insert into ${table} (${columns}) select ${values} from (select string_to_array(line, E'\\t', '\\N') as c from unnest($1::text[]) line) one`;
    for (let at = 0; at < lines.length; at += 5000) await client.query(insert, [lines.slice(at, at + 5000)]);
  };
  await client.query('insert into project (id, name, seq, created_at) values ($1, $2, 1, $3)', [benchProject, 'Large', now]);
  for (const { id, sort, key, rank, number, body } of buildPartRows(benchProject, takeApart(defaultScheme), () => idOf(5, parts++)))
    await client.query(
      'insert into scheme_part (id, project_id, revision, withdrawn, sort, key, rank, number, body) values ($1, $2, 1, false, $3, $4, $5, $6, $7)',
      [id, benchProject, sort, key, rank, number, JSON.stringify(body)],
    );
  for (const [index, [kind, one]] of Object.entries(collectionOf).entries())
    await client.query(
      'insert into collection (id, project_id, revision, withdrawn, name, holds, prefix, kind, rank) values ($1, $2, 1, false, $3, $4, $5, $6, $7)',
      [one.id, benchProject, one.name, one.holds, one.prefix, kind, index],
    );
  const number: Record<string, number> = {};
  const parents: Record<string, string> = {};
  const items = kinds.map((kind, node) => {
    number[kind] = (number[kind] ?? 0) + 1;
    const isHead = number[kind]! % 40 === 1;
    if (isHead) parents[kind] = idOf(3, node);
    return [
      idOf(3, node),
      benchProject,
      1,
      'f',
      collectionOf[kind]!.id,
      kind,
      `${collectionOf[kind]!.prefix}-${number[kind]}`,
      `Item ${node} holds the level of the pool`,
      '<p>The weir control shall hold the pool level within 0.05 m.</p>',
      '{}',
      '[]',
      '{}',
      'f',
      isHead ? '\\N' : parents[kind],
      node,
      node,
      1,
      'imported',
      now,
      now,
      'Bench',
    ].join('\t');
  });
  await copy(
    'item',
    'id, project_id, revision, withdrawn, collection_id, kind, reference, title, html, fields, bindings, exchanged, heading, parent_id, rank, node, meaning_seq, origin, created_at, changed_at, changed_by',
    items,
  );
  const links = Array.from(from, (_, i) =>
    [
      idOf(4, i),
      benchProject,
      1,
      'f',
      defaultScheme.linkKinds[linkKind[i]!]!.id,
      idOf(3, from[i]!),
      idOf(3, to[i]!),
      '{}',
      'imported',
      1,
      1,
      'Bench',
      now,
    ].join('\t'),
  );
  await copy('link', 'id, project_id, revision, withdrawn, kind, from_id, to_id, fields, origin, from_seq, to_seq, confirmed_by, confirmed_at', links);
  await client.query('insert into batch (id, project_id, seq, at, person, action, kind, size) values (gen_random_uuid(), $1, 1, $2, $3, $4, $5, $6)', [
    benchProject,
    now,
    'Bench',
    'Import',
    'do',
    size.items + size.links + parts + 4,
  ]);
  let ordinal = 0;
  for (const [entity, table] of Object.entries(filled)) {
    const { rows } = await client.query(
      `insert into history select project_id, 1, $2 + row_number() over (order by id), '${entity}', id, ${versionOf(entity)}, ${valueSql(entity)} from ${table} where project_id = $1 returning 1`,
      [benchProject, ordinal],
    );
    ordinal += rows.length;
  }
  await client.query(`insert into history select id, 0, 0, 'project', id, ${versionOf('project')}, ${valueSql('project')} from project where id = $1`, [
    benchProject,
  ]);
  if (size.changes) await change(client, size.items, size.changes);
  await client.query('analyze');
  await close();
}

const filled = { collection: 'collection', schemePart: 'scheme_part', item: 'item', link: 'link' };

const versionOf = (entity: string) => ledgerEntities[entity as keyof typeof ledgerEntities].upgrades.length + 1;

/** A row of a table as the history keeps it, in SQL: columns are called as the keys are, in their own way of writing. */
function valueSql(entity: string): string {
  const pairs = ledgerEntities[entity as keyof typeof ledgerEntities].keys.map((key) => `'${key}', ${key.replace(/[A-Z]/g, (one) => `_${one.toLowerCase()}`)}`);
  return `jsonb_build_object(${pairs.join(', ')})`;
}

/** So many changes more, each of one title, one item after another. */
async function change(client: Awaited<ReturnType<typeof openDatabase>>['client'], items: number, changes: number): Promise<void> {
  const of = [benchProject, changes];
  await client.query(
    `insert into batch (id, project_id, seq, at, person, action, kind, size)
    select gen_random_uuid(), $1, 1 + g, now(), 'Bench', 'Edit title', 'do', 1 from generate_series(1, $2::int) g`,
    of,
  );
  await client.query(
    `insert into history select $1, 1 + g, 0, 'item', item.id, ${versionOf('item')}, ${valueSql('item')} || jsonb_build_object('title', 'Title ' || g, 'revision', 2)
    from generate_series(1, $2::int) g join item on item.project_id = $1 and item.node = g % ${items}`,
    of,
  );
  await client.query(
    `update item set title = 'Title ' || newest.g, revision = 2
    from (select g % ${items} as node, max(g) as g from generate_series(1, $2::int) g group by 1) newest where item.project_id = $1 and item.node = newest.node`,
    of,
  );
  await client.query('update project set seq = 1 + $2::int where id = $1', of);
}
