import { figure, type Issue } from '@coomb/core';

/** Remarks of one sort that are told one by one. */
const MOST_NAMED = 500;

/** Collects remarks on a model; of one sort only the first hundreds are named, the rest are counted. */
export class ModelIssues {
  private readonly all: Issue[] = [];
  private readonly counts = new Map<string, number>();

  add(severity: Issue['severity'], code: string, at: string, message: string): void {
    const count = (this.counts.get(code) ?? 0) + 1;
    this.counts.set(code, count);
    if (count <= MOST_NAMED) this.all.push({ severity, code, at, message });
  }

  finish(): Issue[] {
    for (const [code, count] of this.counts)
      if (count > MOST_NAMED) {
        const like = this.all.find((issue) => issue.code === code)!;
        this.all.push({ ...like, at: 'the whole file', message: `${figure(count - MOST_NAMED)} more like: ${like.message}` });
      }
    return this.all;
  }
}
