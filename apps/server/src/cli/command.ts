/** Exit codes of the command line. Documented in the README; scripts rely on them. */
export const exitCodes = { done: 0, refused: 1, usage: 2, belowTarget: 3, folderInUse: 4, database: 5 } as const;

export interface Command {
  name: string;
  usage: string;
  summary: string;
  /** Returns the exit code. Throws UsageError, or whatever else went wrong. */
  run: (args: string[], io: CommandIo) => Promise<number>;
}

export interface CommandIo {
  out: (text: string) => void;
  error: (text: string) => void;
}

export class UsageError extends Error {
  override readonly name = 'UsageError';
}
