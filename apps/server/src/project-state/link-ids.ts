/** Ids of links by their index: those loaded as bytes, sixteen each; those made since as texts. Looking an id up builds an index on first use. */
export class LinkIds {
  private readonly loaded: Uint8Array;
  private readonly count: number;
  private readonly added: string[] = [];
  private index: Map<string, number> | undefined;

  constructor(loaded: Uint8Array) {
    this.loaded = loaded;
    this.count = loaded.length / 16;
  }

  at(link: number): string {
    if (link >= this.count) return this.added[link - this.count]!;
    const hex = Buffer.from(this.loaded.buffer, this.loaded.byteOffset + link * 16, 16).toString('hex');
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
  }

  find(id: string): number | undefined {
    if (!this.index) {
      this.index = new Map();
      for (let link = 0; link < this.count + this.added.length; link++) this.index.set(this.at(link), link);
    }
    return this.index.get(id);
  }

  /** The id of the next link in order. */
  add(id: string): void {
    this.index?.set(id, this.count + this.added.length);
    this.added.push(id);
  }
}
