import { IdIndex, parseIdWords, toIdWords } from '@coomb/core';

/** Ids of links by their index: those loaded as bytes, sixteen each; those made since as texts. Looking an id up builds an index on first use. */
export class LinkIds {
  private readonly loaded: Buffer;
  private readonly count: number;
  private readonly added: string[] = [];
  private readonly addedAt = new Map<string, number>();
  private index: IdIndex | undefined;

  constructor(loaded: Uint8Array) {
    this.loaded = Buffer.from(loaded.buffer, loaded.byteOffset, loaded.length);
    this.count = loaded.length / 16;
  }

  at(link: number): string {
    if (link >= this.count) return this.added[link - this.count]!;
    const hex = this.loaded.toString('hex', link * 16, link * 16 + 16);
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
  }

  /** The sixteen bytes of a link's id, into `target` at `offset`. */
  copy(link: number, target: Buffer, offset: number): void {
    if (link < this.count) this.loaded.copy(target, offset, link * 16, link * 16 + 16);
    else target.write(this.added[link - this.count]!.replaceAll('-', ''), offset, 'hex');
  }

  find(id: string): number | undefined {
    const added = this.addedAt.get(id);
    if (added !== undefined) return added;
    this.index ??= new IdIndex(toIdWords(this.loaded));
    const found = this.index.find(parseIdWords([id]));
    return found < 0 ? undefined : found;
  }

  /** The id of the next link in order. */
  add(id: string): void {
    this.addedAt.set(id, this.count + this.added.length);
    this.added.push(id);
  }
}
