/** A file that is being written: whoever asks for it is given it from its beginning, as far as it has come, and then what follows. */
export class GrowingFile {
  private readonly pieces: Uint8Array[] = [];
  private state: 'growing' | 'whole' | Error = 'growing';
  private readonly waiting: (() => void)[] = [];
  private title: string | undefined;
  private readers = 0;

  /** `abandoned` is called when the last of those who asked for it went away before it was whole. */
  constructor(private readonly abandoned: () => void = () => {}) {}

  /** Somebody wants it, until they go away. */
  join(leaving: AbortSignal): void {
    this.readers++;
    leaving.addEventListener(
      'abort',
      () => {
        if (--this.readers === 0 && this.state === 'growing') this.abandoned();
      },
      { once: true },
    );
  }

  begin(name: string): void {
    this.title = name;
    this.wake();
  }

  add(piece: Uint8Array): void {
    this.pieces.push(piece);
    this.wake();
  }

  end(): void {
    this.state = 'whole';
    this.wake();
  }

  fail(error: Error): void {
    this.state = error;
    this.wake();
  }

  /** Once it is known. Throws when the file failed before. */
  async name(): Promise<string> {
    while (this.title === undefined) await this.more();
    return this.title;
  }

  /** Throws when the file fails half-way. */
  async *read(): AsyncGenerator<Uint8Array> {
    for (let at = 0; ; )
      if (at < this.pieces.length) yield this.pieces[at++]!;
      else if (this.state === 'whole') return;
      else await this.more();
  }

  private async more(): Promise<void> {
    if (this.state instanceof Error) throw this.state;
    await new Promise<void>((resolve) => this.waiting.push(resolve));
  }

  private wake(): void {
    for (const one of this.waiting.splice(0)) one();
  }
}
