import { writeCsvRow } from '@coomb/formats';

/** All rows, the first of which was taken already. */
export async function* restOf(first: IteratorResult<string[]>, rest: AsyncGenerator<string[]>): AsyncGenerator<string[]> {
  if (first.done) return;
  yield first.value;
  yield* rest;
}

/** Rows as separated values, in pieces as they are read. */
export async function* writeCsvRows(rows: AsyncIterable<string[]>): AsyncGenerator<string> {
  yield '\uFEFF';
  for await (const row of rows) yield writeCsvRow(row);
}
