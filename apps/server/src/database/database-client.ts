import { setTimeout } from 'node:timers/promises';
import type { Answer, Statement } from './engine.js';

/** Whatever runs statements one after the other: the worker, or an engine in this thread. */
export interface Transport {
  run: (statement: Statement) => Promise<Answer>;
}

interface QueryOptions {
  rowMode?: 'object' | 'array';
}
type Query = (sql: string, params?: unknown[], options?: QueryOptions) => Promise<Answer>;

/** How long nobody asks before it is quiet, and how often long work waits for that before its next part. */
const [MOMENT_MS, MOST_WAITS] = [2, 20];
const READS = /^\s*(?:select|show|explain)\b/i;

/**
 * The face of the database that Drizzle speaks to. There is one connection: whoever has a transaction has it alone, others wait. A change is
 * answered when it lies on the disk; those that wait at the same time share one sync.
 */
export class DatabaseClient {
  private turn: Promise<unknown> = Promise.resolve();
  private sharedSync: Promise<void> | undefined;
  /** How often somebody asked for something. */
  private asked = 0;
  /** Changes since somebody asked last. */
  private changes = 0;

  /** `beforeChange` may refuse a change before it begins, such as on a disk without room. */
  constructor(
    private readonly transport: Transport,
    private readonly beforeChange: () => Promise<void> = async () => {},
  ) {}

  readonly query: Query = async (sql, params = [], options = {}) => {
    const isChange = !READS.test(sql);
    if (isChange) await this.beforeChange();
    this.asked++;
    const answer = await this.inTurn(() => this.run(sql, params, options));
    if (isChange) await this.synced();
    return answer;
  };

  /** Runs upkeep, which makes room rather than take it. */
  maintain(sql: string): Promise<Answer> {
    return this.inTurn(() => this.run(sql));
  }

  /** Runs `work` with the connection to itself and commits; anything thrown takes back what it did. */
  async transaction<T>(work: (tx: { query: Query }) => Promise<T>): Promise<T> {
    await this.beforeChange();
    const result = await this.inTurn(async () => {
      await this.run('begin');
      try {
        const value = await work({ query: (sql, params, options) => this.run(sql, params, options) });
        await this.run('commit');
        return value;
      } catch (error) {
        // A database that died answers no rollback either; what was thrown first says why.
        await this.run('rollback').catch(() => {});
        throw error;
      }
    });
    await this.synced();
    return result;
  }

  /**
   * Lets everybody else go first: waits until nobody has asked for anything for a moment, for whoever asks one thing mostly asks the next
   * right away. Not for ever, so that long work gets on among many.
   */
  async quiet(): Promise<void> {
    for (let waits = 0; waits < MOST_WAITS; waits++) {
      const { asked } = this;
      await setTimeout(MOMENT_MS);
      if (asked === this.asked) return;
    }
  }

  /** How many changes were made since this was last asked. */
  takeChanges(): number {
    const { changes } = this;
    this.changes = 0;
    return changes;
  }

  /** Waits until everything that was committed before lies on the disk. */
  private synced(): Promise<void> {
    this.changes++;
    this.sharedSync ??= this.inTurn(async () => {
      // Whoever commits from here on waits for the next one.
      this.sharedSync = undefined;
      await this.run("select pg_logical_emit_message(false, 'f', '', true)");
    });
    return this.sharedSync;
  }

  private run(sql: string, params: unknown[] = [], { rowMode = 'object' }: QueryOptions = {}): Promise<Answer> {
    return this.transport.run({ sql, params, rowMode });
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.turn.then(work, work);
    this.turn = mine;
    // Who waits behind is told nothing of what failed before.
    mine.catch(() => {});
    return mine;
  }
}
