import { getTableColumns, getTableName, type SQL, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Connection } from './database.js';

/** Rows that one statement writes: few enough that others get a turn in between. */
const MOST_ROWS = 1000;

/**
 * Writes rows as JSON, one parameter a statement, which is several times quicker than one parameter a value.
 * `onConflict` says what becomes of rows whose key is there already.
 */
export async function insertRows<T extends PgTable>(tx: Connection, table: T, rows: readonly T['$inferInsert'][], onConflict: SQL = sql``): Promise<void> {
  const columns = Object.entries(getTableColumns(table));
  const name = sql.identifier(getTableName(table));
  for (let at = 0; at < rows.length; at += MOST_ROWS) {
    const records = rows
      .slice(at, at + MOST_ROWS)
      .map((row) => Object.fromEntries(columns.map(([key, column]) => [column.name, (row as Record<string, unknown>)[key]])));
    await tx.execute(sql`insert into ${name} select * from json_populate_recordset(null::${name}, ${JSON.stringify(records)}::json) ${onConflict}`);
  }
}

/** On a conflict of ids, the row that is there takes these values of the new one. */
export function replaceById(table: PgTable, keys: readonly string[]): SQL {
  const columns = getTableColumns(table);
  const sets = keys
    .filter((key) => key !== 'id')
    .map((key) => sql.identifier(columns[key]!.name))
    .map((name) => sql`${name} = excluded.${name}`);
  return sql`on conflict (id) do update set ${sql.join(sets, sql`, `)}`;
}
