/** What stands in a trace matrix, as it travels: nodes at both sides, marks, whether suspect, and the usages (by place, -1 for all) it holds in only. */
export interface PackedEntries {
  row: Int32Array;
  column: Int32Array;
  mark: Uint8Array;
  suspect: Uint8Array;
  rowUse: Int32Array;
  columnUse: Int32Array;
}

/** What the first byte of an entry says, beside its mark: whether it is suspect, whether usages follow, and whether it begins another row. */
const SUSPECT = 1;
const IN_USE = 2;
const ROW = 4;
const MARK = 3;

/**
 * Entries as bytes, row by row as the rows come, each from the least column to the greatest: numbers in as few bytes as they need, as steps from the
 * one before. Some three bytes for an entry. Marks are below 32.
 */
export function packEntries(entries: PackedEntries): Uint8Array {
  const count = entries.row.length;
  let bytes = new Uint8Array(count * 5 + 32);
  let at = 0;
  const put = (value: number) => {
    let left = value >>> 0;
    while (left > 127) {
      bytes[at++] = (left & 127) | 128;
      left >>>= 7;
    }
    bytes[at++] = left;
  };
  put(count);
  let [row, column] = [0, 0];
  for (const i of inColumnOrder(entries)) {
    if (at + 32 > bytes.length) {
      const larger = new Uint8Array(bytes.length * 2);
      larger.set(bytes);
      bytes = larger;
    }
    const step = entries.row[i]! - row;
    const isInUse = entries.rowUse[i]! >= 0 || entries.columnUse[i]! >= 0;
    put((entries.mark[i]! << MARK) | (entries.suspect[i] ? SUSPECT : 0) | (isInUse ? IN_USE : 0) | (step === 0 ? 0 : ROW));
    if (step !== 0) {
      put((step << 1) ^ (step >> 31));
      [row, column] = [entries.row[i]!, 0];
    }
    put(entries.column[i]! - column);
    column = entries.column[i]!;
    if (!isInUse) continue;
    put(entries.rowUse[i]! + 1);
    put(entries.columnUse[i]! + 1);
  }
  return bytes.slice(0, at);
}

/** More entries than a row has. */
const PLACES = 2 ** 21;

/** Places of entries, those of a row that stand together sorted by their column; entries of one cell stay as they are. */
function inColumnOrder({ row, column }: PackedEntries): Int32Array {
  const order = new Int32Array(row.length);
  const keys = new Float64Array(row.length);
  for (let start = 0; start < order.length; ) {
    let end = start;
    // Columns and places in one number each: numbers are sorted much faster than by a function.
    for (; end < order.length && row[end] === row[start]; end++) keys[end] = column[end]! * PLACES + (end - start);
    if (end - start > 1) keys.subarray(start, end).sort();
    for (let at = start; at < end; at++) order[at] = start + (keys[at]! % PLACES);
    start = end;
  }
  return order;
}

export function unpackEntries(bytes: Uint8Array): PackedEntries {
  let at = 0;
  const take = () => {
    let value = 0;
    for (let shift = 0; ; shift += 7) {
      const byte = bytes[at++]!;
      value |= (byte & 127) << shift;
      if (byte < 128) return value >>> 0;
    }
  };
  const count = take();
  const entries: PackedEntries = {
    row: new Int32Array(count),
    column: new Int32Array(count),
    mark: new Uint8Array(count),
    suspect: new Uint8Array(count),
    rowUse: new Int32Array(count).fill(-1),
    columnUse: new Int32Array(count).fill(-1),
  };
  let [row, column] = [0, 0];
  for (let i = 0; i < count; i++) {
    const look = take();
    if (look & ROW) {
      const step = take();
      row += (step >>> 1) ^ -(step & 1);
      column = 0;
    }
    column += take();
    entries.row[i] = row;
    entries.column[i] = column;
    entries.mark[i] = look >>> MARK;
    entries.suspect[i] = look & SUSPECT;
    if (!(look & IN_USE)) continue;
    entries.rowUse[i] = take() - 1;
    entries.columnUse[i] = take() - 1;
  }
  return entries;
}
