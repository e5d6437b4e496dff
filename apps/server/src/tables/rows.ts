import { writeCsvRow } from '@coomb/formats';

/** All of them, the first of which was taken already. */
export async function* restOf<T>(first: IteratorResult<T>, rest: AsyncGenerator<T>): AsyncGenerator<T> {
  if (first.done) return;
  yield first.value;
  yield* rest;
}

/** Rows as separated values, in pieces as they are read; the first piece holds the first row. */
export async function* writeCsvRows(rows: AsyncIterable<string[]> | Iterable<string[]>): AsyncGenerator<string> {
  let mark = '\uFEFF';
  for await (const row of rows) {
    yield mark + writeCsvRow(row);
    mark = '';
  }
}
