/** The highest number behind each prefix of references: `SYS-042` has 42 behind `sys`. */
export class LastNumbers {
  private readonly last = new Map<string, number>();

  constructor(references: Iterable<string>) {
    for (const reference of references) this.see(reference);
  }

  see(reference: string): void {
    const match = /^(.*)-(\d{1,9})$/.exec(reference);
    if (!match) return;
    const [prefix, number] = [match[1]!.toLowerCase(), Number(match[2])];
    if ((this.last.get(prefix) ?? 0) < number) this.last.set(prefix, number);
  }

  /** The next free number. */
  next(prefix: string): number {
    return (this.last.get(prefix.toLowerCase()) ?? 0) + 1;
  }
}
