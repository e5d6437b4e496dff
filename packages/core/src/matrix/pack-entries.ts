/** What stands in a trace matrix, as it travels: nodes at both sides, marks, whether suspect, and the usages (by place, -1 for all) it holds in only. */
export interface PackedEntries {
  row: Int32Array;
  column: Int32Array;
  mark: Uint8Array;
  suspect: Uint8Array;
  rowUse: Int32Array;
  columnUse: Int32Array;
}

/** A part of an entry, beside its row, column and mark: whether it is suspect, and whether usages follow. */
const SUSPECT = 1;
const IN_USE = 2;

/** Entries as bytes: numbers in as few bytes as they need, rows as steps from the one before. Some five bytes for an entry. */
export function packEntries(entries: PackedEntries): Uint8Array {
  const count = entries.row.length;
  let bytes = new Uint8Array(count * 8 + 16);
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
  let before = 0;
  for (let i = 0; i < count; i++) {
    if (at + 30 > bytes.length) {
      const larger = new Uint8Array(bytes.length * 2);
      larger.set(bytes);
      bytes = larger;
    }
    const step = entries.row[i]! - before;
    before = entries.row[i]!;
    put((step << 1) ^ (step >> 31));
    put(entries.column[i]!);
    const isInUse = entries.rowUse[i]! >= 0 || entries.columnUse[i]! >= 0;
    put((entries.mark[i]! << 2) | (entries.suspect[i] ? SUSPECT : 0) | (isInUse ? IN_USE : 0));
    if (!isInUse) continue;
    put(entries.rowUse[i]! + 1);
    put(entries.columnUse[i]! + 1);
  }
  return bytes.slice(0, at);
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
  let row = 0;
  for (let i = 0; i < count; i++) {
    const step = take();
    row += (step >>> 1) ^ -(step & 1);
    entries.row[i] = row;
    entries.column[i] = take();
    const more = take();
    entries.mark[i] = more >>> 2;
    entries.suspect[i] = more & SUSPECT;
    if (!(more & IN_USE)) continue;
    entries.rowUse[i] = take() - 1;
    entries.columnUse[i] = take() - 1;
  }
  return entries;
}
