const [EMPTY, GONE] = [-1, -2];

/**
 * Nodes of items by their references, in small letters: a table of numbers (open addressing) that looks the references up where they stand,
 * instead of a second text for each. The item of a node must have its reference before it is set, and still have it when it is deleted.
 */
export class NodesByReference {
  private slots: Int32Array;
  /** Slots that are not empty. */
  private used = 0;

  /** With room for so many. */
  constructor(
    private readonly referenceOf: (node: number) => string,
    count = 0,
  ) {
    let size = 64;
    while (size < count * 2) size *= 2;
    this.slots = new Int32Array(size).fill(EMPTY);
  }

  /** The same for items that stand elsewhere and have the same references so far. */
  copy(referenceOf: (node: number) => string): NodesByReference {
    const copy = new NodesByReference(referenceOf);
    copy.slots = this.slots.slice();
    copy.used = this.used;
    return copy;
  }

  get(reference: string): number | undefined {
    const node = this.slots[this.slotOf(reference)]!;
    return node >= 0 ? node : undefined;
  }

  has(reference: string): boolean {
    return this.get(reference) !== undefined;
  }

  /** The last of equal references wins. */
  set(reference: string, node: number): void {
    const slot = this.slotOf(reference);
    if (this.slots[slot] === EMPTY) this.used++;
    this.slots[slot] = node;
    if (this.used * 2 > this.slots.length) this.grow();
  }

  delete(reference: string): void {
    const slot = this.slotOf(reference);
    if (this.slots[slot]! >= 0) this.slots[slot] = GONE;
  }

  private grow(): void {
    const nodes = this.slots.filter((node) => node >= 0);
    this.slots = new Int32Array(this.slots.length * 2).fill(EMPTY);
    this.used = nodes.length;
    for (const node of nodes) this.slots[this.slotOf(this.referenceOf(node).toLowerCase())] = node;
  }

  /** Where a reference stands, or the empty slot where it would. */
  private slotOf(reference: string): number {
    let hash = 0x811c9dc5;
    for (let i = 0; i < reference.length; i++) hash = Math.imul(hash ^ reference.charCodeAt(i), 0x01000193);
    // Numbers that count upwards differ in few bits: all bits must come to bear on the lowest (finaliser of MurmurHash3).
    hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
    hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
    const { slots } = this;
    for (let slot = (hash ^ (hash >>> 16)) & (slots.length - 1); ; slot = (slot + 1) & (slots.length - 1)) {
      const node = slots[slot]!;
      if (node === EMPTY || (node >= 0 && this.referenceOf(node).toLowerCase() === reference)) return slot;
    }
  }
}
