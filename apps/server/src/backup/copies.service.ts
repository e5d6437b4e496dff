import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { getUpkeep, ReplyOf } from '@coomb/contract';
import { Inject, Injectable, Logger, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { copyTree } from '../database/copy-tree.js';
import { copyName } from '../database/data-folder.js';
import type { OpenDatabase } from '../database/database.js';
import { CLOCK, type Clock, OPEN_DATABASE } from '../http/tokens.js';
import { packFolder, writeWhole } from './archive.js';

export const COPIES = Symbol('copies');

export interface CopySchedule {
  folder: string;
  /** How many are kept; 0 makes none. */
  keep: number;
  everyHours: number;
}

const LOOKS_EVERY_MS = 10 * 60_000;
const FIRST_LOOK_MS = 60_000;

/** Copies of the data folder: asked for, and by themselves, kept by number. People work on meanwhile. */
@Injectable()
export class CopiesService implements OnModuleInit, OnModuleDestroy {
  private readonly logger = new Logger('Copies');
  private timer: NodeJS.Timeout | undefined;
  private running: Promise<unknown> = Promise.resolve();
  private failed: string | null = null;

  constructor(
    @Inject(OPEN_DATABASE) private readonly database: OpenDatabase,
    @Inject(COPIES) private readonly schedule: CopySchedule,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  onModuleInit(): void {
    if (this.schedule.keep === 0) return;
    const look = () => {
      void this.makeDue();
      this.timer = setTimeout(look, LOOKS_EVERY_MS).unref();
    };
    this.timer = setTimeout(look, FIRST_LOOK_MS).unref();
  }

  async onModuleDestroy(): Promise<void> {
    clearTimeout(this.timer);
    await this.running.catch(() => {});
  }

  /** The whole data folder as a packed stream; `done` must be called when it was read or given up. */
  async open(): Promise<{ stream: NodeJS.ReadableStream; name: string; done: () => void }> {
    const { folder, thread, room } = this.database;
    await room.assertFor(sizeOf(join(folder, 'database')), 'A copy of the data');
    const making = join(folder, `copy-${this.clock.newId()}.making`);
    const done = () => rmSync(making, { recursive: true, force: true });
    try {
      mkdirSync(making);
      await thread.copy(join(making, 'database'));
      const tray = join(folder, 'tray');
      if (existsSync(tray)) copyTree(tray, join(making, 'tray'));
      rmSync(join(making, 'tray', '.incoming'), { recursive: true, force: true });
      // Who runs here is no part of what is kept.
      rmSync(join(making, 'database', 'postmaster.pid'), { force: true });
      return { stream: await packFolder(making, this.clock.now()), name: this.nameNow(), done };
    } catch (error) {
      done();
      throw error;
    }
  }

  /** Makes a copy when the newest is older than the schedule says. Gives its path, if one was made. */
  async makeDue(): Promise<string | undefined> {
    const { keep, everyHours } = this.schedule;
    const newest = this.list().at(-1);
    if (keep === 0 || (newest && this.clock.now().getTime() - newest.at.getTime() < everyHours * 3_600_000)) return undefined;
    const work = this.running.catch(() => {}).then(() => this.make());
    this.running = work;
    try {
      return await work;
    } catch {
      return undefined;
    }
  }

  /** Makes a copy now. Throws when that fails, and tells so until one succeeds. */
  async make(): Promise<string> {
    try {
      mkdirSync(this.schedule.folder, { recursive: true });
      const { stream, name, done } = await this.open();
      const file = join(this.schedule.folder, name);
      try {
        await writeWhole(stream, file);
      } finally {
        done();
      }
      for (const old of this.list().slice(0, -this.schedule.keep)) rmSync(join(this.schedule.folder, old.name), { force: true });
      this.failed = null;
      return file;
    } catch (error) {
      this.failed = error instanceof Error ? error.message : String(error);
      this.logger.error(`The copy of the data to ${this.schedule.folder} failed: ${this.failed}`);
      throw error;
    }
  }

  async describe(): Promise<ReplyOf<typeof getUpkeep>> {
    const { folder, keep, everyHours } = this.schedule;
    const newest = keep > 0 ? this.list().at(-1) : undefined;
    return {
      copies: keep > 0 ? { folder, keep, everyHours, newest: newest?.at.toISOString() ?? null, failed: this.failed } : null,
      free: await this.database.room.free(),
    };
  }

  /** The oldest first. */
  private list(): { name: string; at: Date }[] {
    const { folder } = this.schedule;
    if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory()) return [];
    return readdirSync(folder)
      .filter((name) => copyName.test(name))
      .sort()
      .map((name) => ({ name, at: statSync(join(folder, name)).mtime }));
  }

  /** By the time it was made, so that names sort; a second one in the same second gets a number. */
  private nameNow(): string {
    const stamp = this.clock.now().toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');
    const taken = this.list().map((one) => one.name);
    let name = `coomb-${stamp}.tar.gz`;
    for (let number = 2; taken.includes(name); number++) name = `coomb-${stamp}-${number}.tar.gz`;
    return name;
  }
}

function sizeOf(folder: string): number {
  let bytes = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) bytes += statSync(join(entry.parentPath, entry.name), { throwIfNoEntry: false })?.size ?? 0;
  return bytes;
}
