import { getTableName } from 'drizzle-orm';
import { Inject, Injectable, Logger, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import type { OpenDatabase } from '../database/database.js';
import * as schema from '../database/schema.js';
import { OPEN_DATABASE } from '../http/tokens.js';

const LOOKS_EVERY_MS = 60_000;
/** Log that is left to grow before the database is asked to write its pages out. */
const MOST_WAL = 64 * 1024 * 1024;
const QUIET_LOOKS = 5;
/** Changes after which the planner's figures are taken anew, and dead rows cleared. */
const MANY_CHANGES = 500;

/** What a database with nobody to look after it never does by itself: write its pages out, clear dead rows, count anew. */
@Injectable()
export class UpkeepService implements OnModuleInit, OnModuleDestroy {
  private readonly logger = new Logger('Upkeep');
  private timer: NodeJS.Timeout | undefined;
  private running: Promise<void> = Promise.resolve();
  private changes = 0;
  private sinceVacuum = 0;
  private looks = 0;

  constructor(@Inject(OPEN_DATABASE) private readonly database: OpenDatabase) {}

  onModuleInit(): void {
    const look = () => {
      this.running = this.running.then(() => this.look());
      this.timer = setTimeout(look, LOOKS_EVERY_MS).unref();
    };
    this.timer = setTimeout(look, LOOKS_EVERY_MS).unref();
  }

  async onModuleDestroy(): Promise<void> {
    clearTimeout(this.timer);
    await this.running;
  }

  /** After large work: pages written out and figures taken anew at once. Never throws: what it does can wait. */
  settle(): Promise<void> {
    this.running = this.running.then(async () => {
      await this.forEveryTable('analyze');
      await this.run('checkpoint');
      this.changes = 0;
    });
    return this.running;
  }

  private async look(): Promise<void> {
    const changes = this.database.client.takeChanges();
    this.changes += changes;
    this.sinceVacuum += changes;
    this.looks++;
    if (this.changes === 0) return;
    if (this.looks < QUIET_LOOKS && (await this.database.thread.walSize().catch(() => 0)) < MOST_WAL) return;
    if (this.sinceVacuum >= MANY_CHANGES) {
      await this.forEveryTable('vacuum (analyze)');
      this.sinceVacuum = 0;
    }
    await this.run('checkpoint');
    this.changes = 0;
    this.looks = 0;
  }

  /** Table by table, for whoever waits behind it. */
  private async forEveryTable(statement: string): Promise<void> {
    for (const table of Object.values(schema)) {
      await this.database.client.quiet();
      await this.run(`${statement} "${getTableName(table)}"`);
    }
  }

  private async run(statement: string): Promise<void> {
    try {
      await this.database.client.maintain(statement);
    } catch (error) {
      this.logger.warn(`${statement} failed: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
}
