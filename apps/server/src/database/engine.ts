import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite, types } from '@electric-sql/pglite';
import { amcheck } from '@electric-sql/pglite/contrib/amcheck';
import { DurableFs, type RuntimeModule } from './durable-fs.js';
import { type EngineCode, readEngineCode } from './engine-code.js';

/** One statement for the database. Rows come as objects, or as arrays of values. */
export interface Statement {
  sql: string;
  params: unknown[];
  rowMode: 'object' | 'array';
}

export interface Answer {
  rows: unknown[];
  affectedRows: number | undefined;
}

/**
 * The database's own parameters, without the one that turns syncing off; commits are synced together by whoever waits for them (`flush`).
 * Figures for the planner are taken from few rows, for everybody waits while they are. Its buffers are few: the system's own cache of files stands behind them, and more of them measured no faster, only larger.
 */
const startParams = [
  ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
  ...[
    'wal_sync_method=fsync',
    'synchronous_commit=off',
    'max_wal_size=128MB',
    'default_statistics_target=4',
    'min_wal_size=32MB',
    'shared_buffers=16MB',
  ].flatMap((setting) => ['-c', setting]),
];

const asText = (value: string) => value;
/** Times and dates come as the database writes them, as Drizzle expects. */
const parsers = Object.fromEntries(
  [types.TIMESTAMP, types.TIMESTAMPTZ, types.INTERVAL, types.DATE, 1231, 1115, 1185, 1187, 1182].map((type) => [type, asText]),
);

/** Status of the exception by which the database jumps back to its loop after an ordinary error. */
const LONG_JUMP = 100;

/** The database gave up on itself (a full disk under its log, damage): nothing it says afterwards counts, and the next call would never end. */
export class DatabaseDiedError extends Error {
  override readonly name = 'DatabaseDiedError';
}

export interface EngineOptions {
  /** Changes the file system layer before the start: tests make disks fail and record what was written. */
  prepare?: (runtime: RuntimeModule) => void;
  /**
   * Called when the database gave up on itself. It must end the thread: the library would call the dead database again, for ever.
   * Unsaid, the process ends.
   */
  onDied?: (message: string) => void;
  /** What `readEngineCode` gave another thread; unsaid, it is read here. */
  code?: EngineCode | undefined;
}

/** PostgreSQL on a folder of its own, in the thread that calls. One statement at a time. */
export class Engine {
  private constructor(private readonly pg: PGlite) {}

  /** Opens a database folder, or makes one. Throws DatabaseDiedError with the database's own words when it cannot. */
  static async open(dataDir: string, { prepare = () => {}, onDied = endProcess, code }: EngineOptions = {}): Promise<Engine> {
    dropEmptyPidFile(dataDir);
    const said: string[] = [];
    const hear = (text: string) => {
      said.push(text);
      if (said.length > 40) said.shift();
      return true;
    };
    try {
      const pgliteWasmModule = code ?? (await readEngineCode());
      const pg = await PGlite.create({
        ...(pgliteWasmModule && { pgliteWasmModule }),
        fs: new DurableFs(dataDir, prepare),
        startParams,
        extensions: { amcheck },
        onStdout: hear,
        onStderr: hear,
      });
      watch(pg, (error) => onDied(findFatal(said) ?? String(error)));
      return new Engine(pg);
    } catch (error) {
      throw new DatabaseDiedError(findFatal(said) ?? (error instanceof Error ? error.message : String(error)), { cause: error });
    }
  }

  /** Throws the database's error, which has a `code`. */
  async run({ sql, params, rowMode }: Statement): Promise<Answer> {
    const { rows, affectedRows } = await this.pg.query(sql, params, { rowMode, parsers });
    return { rows, affectedRows };
  }

  /** Bytes of the write-ahead log that lie on disk. */
  walSize(dataDir: string): number {
    const folder = join(dataDir, 'pg_wal');
    return readdirSync(folder).reduce((sum, name) => sum + statSync(join(folder, name)).size, 0);
  }

  close(): Promise<void> {
    return this.pg.close();
  }
}

/** An exception out of the database's loop that is no ordinary jump is the end of it. */
function watch(pg: PGlite, onDied: (error: unknown) => void): void {
  // The engine does not declare its module, whose main loop is asked here.
  const { Module: module } = pg as unknown as { Module: { _PostgresMainLoopOnce: () => void } };
  const once = module._PostgresMainLoopOnce;
  module._PostgresMainLoopOnce = () => {
    try {
      once();
    } catch (error) {
      if ((error as { status?: number }).status !== LONG_JUMP) onDied(error);
      throw error;
    }
  };
}

function endProcess(message: string): never {
  console.error(`The database gave up: ${message}`);
  process.exit(5);
}

/** A cut of power can leave this file empty; the database would not start on it. The folder's own lock says that nobody else runs here. */
function dropEmptyPidFile(dataDir: string): void {
  const file = join(dataDir, 'postmaster.pid');
  if (existsSync(file) && statSync(file).size === 0) rmSync(file);
}

/** The last words of the database that say why it ended. */
function findFatal(said: readonly string[]): string | undefined {
  const at = said.findLastIndex((line) => /\b(PANIC|FATAL):/.test(line));
  return at < 0 ? said.findLast((line) => line.trim() !== '') : said[at]!.replace(/^.*?\b(PANIC|FATAL):\s*/, '').trim();
}
