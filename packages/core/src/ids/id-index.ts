const WORDS = 4;

/** UUIDs as four 32-bit words each, from sixteen bytes each. Shares the bytes where they stand aligned, copies them otherwise. */
export function toIdWords(bytes: Uint8Array): Uint32Array {
  if (bytes.byteOffset % 4 === 0) return new Uint32Array(bytes.buffer, bytes.byteOffset, Math.floor(bytes.length / 16) * WORDS);
  const words = new Uint32Array(Math.floor(bytes.length / 16) * WORDS);
  new Uint8Array(words.buffer).set(bytes.subarray(0, words.byteLength));
  return words;
}

/** The words of UUIDs written as text, in the usual groups; throws RangeError on what is no UUID. */
export function parseIdWords(ids: readonly string[]): Uint32Array {
  const bytes = new Uint8Array(ids.length * 16);
  let at = 0;
  for (const id of ids) {
    if (id.length !== 36) throw new RangeError(`"${id}" is no UUID`);
    for (let i = 0; i < 36; i += 2) {
      if (i === 8 || i === 13 || i === 18 || i === 23) i++;
      const byte = (digitOf(id.charCodeAt(i)) << 4) | digitOf(id.charCodeAt(i + 1));
      if (byte < 0) throw new RangeError(`"${id}" is no UUID`);
      bytes[at++] = byte;
    }
  }
  return toIdWords(bytes);
}

/** Value of a hexadecimal digit by its code, or -1. */
function digitOf(code: number): number {
  if (code >= 48 && code <= 57) return code - 48;
  const letter = code | 32;
  return letter >= 97 && letter <= 102 ? letter - 87 : -1;
}

/** Finds the row of a UUID among many: open addressing over their words, without a text per id. */
export class IdIndex {
  private readonly ids: Uint32Array;
  private readonly slots: Int32Array;

  /** Keeps `ids` (four words each); the last of equal ids wins. */
  constructor(ids: Uint32Array) {
    this.ids = ids;
    const count = ids.length / WORDS;
    let size = 16;
    while (size < count * 2) size *= 2;
    this.slots = new Int32Array(size).fill(-1);
    for (let row = 0; row < count; row++) this.slots[this.slotOf(ids, row * WORDS)] = row;
  }

  /** Row of the id whose words start at `words[at]`, or -1. */
  find(words: Uint32Array, at = 0): number {
    return this.slots[this.slotOf(words, at)]!;
  }

  private slotOf(words: Uint32Array, at: number): number {
    const { ids, slots } = this;
    const [a, b, c, d] = [words[at]!, words[at + 1]!, words[at + 2]!, words[at + 3]!];
    let hash = Math.imul(d ^ (d >>> 15), 0x9e3779b1) ^ Math.imul(c, 0x85ebca6b) ^ Math.imul(b, 0xc2b2ae35) ^ a;
    // Ids that count upwards differ in few bits: all bits must come to bear on the lowest (finaliser of MurmurHash3).
    hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
    hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
    let slot = (hash ^ (hash >>> 16)) & (slots.length - 1);
    for (;;) {
      const row = slots[slot]!;
      if (row < 0) return slot;
      const own = row * WORDS;
      if (ids[own + 3] === d && ids[own + 2] === c && ids[own + 1] === b && ids[own] === a) return slot;
      slot = (slot + 1) & (slots.length - 1);
    }
  }
}
