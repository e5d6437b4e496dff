import { and, eq, inArray, sql } from 'drizzle-orm';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { Connection, Database, OpenDatabase } from '../database/database.js';
import { insertRows, replaceById } from '../database/insert-rows.js';
import * as schema from '../database/schema.js';
import { presentMoment } from '../http/caller.js';
import { DATABASE, OPEN_DATABASE } from '../http/tokens.js';
import type { Change, Entity } from './change.js';
import { ledgerEntities } from './entities.js';
import { type BatchRow, LedgerRepo } from './ledger.repo.js';
import { PastRepo } from './past.repo.js';

/** As many changes as others may wait for. */
const AT_ONCE = 150;
/** Changes after which the pages they made are written out. */
const WRITTEN_OUT = 20 * AT_ONCE;

/**
 * Changes that are too many for one transaction, behind which everybody else would wait: their rows and their history are written ahead, a few
 * at a time, and the last transaction makes them valid. Until then nobody sees them: whoever reads the project reads it as of the change
 * before. What a stop leaves written ahead is taken back by the history itself, which holds what stood before.
 */
@Injectable()
export class StagedChanges implements OnModuleInit {
  /** Last valid change of the projects that are being written ahead, or whose remains could not be taken back yet. */
  private readonly validUntil = new Map<string, number>();
  /** Those with remains. */
  private readonly unsettled = new Set<string>();

  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(OPEN_DATABASE) private readonly database: OpenDatabase,
    @Inject(LedgerRepo) private readonly repo: LedgerRepo,
    @Inject(PastRepo) private readonly past: PastRepo,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.dropAll();
  }

  /** The change that a project must be read as of: the one that the request names, or the last valid one where its present is being written. */
  momentOf(project: string): number | undefined {
    return presentMoment() ?? this.validUntil.get(project);
  }

  /**
   * Writes a batch: in one transaction where it is small. `finish` is the rest of the last transaction, `follow` lets memory follow before
   * anybody reads the present again. Anything thrown by it or by `step` leaves nothing of the batch.
   */
  async write(
    batch: BatchRow,
    changes: readonly Change[],
    rest: { step: (done: number) => Promise<void>; finish: (tx: Connection) => Promise<void>; follow: () => Promise<void> },
  ): Promise<void> {
    const { projectId } = batch;
    const isLong = changes.length > AT_ONCE;
    if (isLong) this.validUntil.set(projectId, batch.seq - 1);
    try {
      if (isLong)
        for (let at = 0; at < changes.length; at += AT_ONCE) {
          await this.database.client.quiet();
          // A little now and then, for whoever waits behind it, instead of much at the end.
          if (at > 0 && at % WRITTEN_OUT === 0) await this.database.client.maintain('checkpoint');
          await this.repo.transaction((tx) => this.repo.writeChanges(tx, batch, changes.slice(at, at + AT_ONCE), at));
          await rest.step(Math.min(changes.length, at + AT_ONCE));
        }
      await this.repo.transaction(async (tx) => {
        if (!isLong) await this.repo.writeChanges(tx, batch, changes, 0);
        await this.repo.writeBatch(tx, batch);
        await rest.finish(tx);
      });
    } catch (error) {
      if (isLong) await this.drop(projectId, batch.seq - 1).catch(() => this.unsettled.add(projectId));
      throw error;
    }
    try {
      await rest.follow();
    } finally {
      this.validUntil.delete(projectId);
    }
  }

  /** Takes back what could not be taken back of a project before: it must not be read into memory with it. */
  async settle(project: string): Promise<void> {
    if (this.unsettled.has(project)) await this.drop(project, this.validUntil.get(project)!);
  }

  /** Takes back what was written ahead in every project, by a server that stopped. */
  async dropAll(): Promise<void> {
    const { rows } = await this.db.execute<{ id: string; seq: number }>(
      sql`select id, seq from project where exists (select 1 from history where project_id = project.id and history.seq > project.seq)`,
    );
    for (const { id, seq } of rows) await this.drop(id, seq);
  }

  /** Takes back what was written of a project after its last valid change, the last first; may be stopped and begun again. */
  private async drop(project: string, seq: number): Promise<void> {
    this.validUntil.set(project, seq);
    const { history } = schema;
    // A batch may have become valid, and only the answer be lost.
    const ahead = and(eq(history.projectId, project), sql`${history.seq} > (select seq from project where id = ${project})`);
    for (;;) {
      const entries = await this.db
        .select({ entity: history.entity, id: history.entityId, ordinal: history.ordinal })
        .from(history)
        .where(ahead)
        .orderBy(sql`${history.seq} desc, ${history.ordinal} desc`)
        .limit(AT_ONCE);
      if (entries.length === 0) break;
      const before = new Map<Entity, { rows: object[]; gone: string[] }>();
      for (const entity of new Set(entries.map((entry) => entry.entity as Entity)))
        before.set(
          entity,
          await this.findBefore(
            project,
            seq,
            entity,
            entries.flatMap((entry) => (entry.entity === entity ? entry.id : [])),
          ),
        );
      await this.repo.transaction(async (tx) => {
        for (const [entity, { rows, gone }] of before) {
          const { table, keys } = ledgerEntities[entity];
          // Every table of the ledger has the columns that this one has.
          if (gone.length > 0) await tx.delete(table).where(inArray((table as typeof schema.items).id, gone));
          if (rows.length > 0) await insertRows(tx, table, rows, replaceById(table, keys));
        }
        await tx.delete(history).where(and(ahead, sql`${history.ordinal} >= ${entries.at(-1)!.ordinal}`));
      });
    }
    this.validUntil.delete(project);
    this.unsettled.delete(project);
  }

  /** What things were as of a change: as rows, or gone where they came later. What the history does not keep of a row stays as it is. */
  private async findBefore(project: string, seq: number, entity: Entity, ids: readonly string[]): Promise<{ rows: object[]; gone: string[] }> {
    const then = await this.past.findRows(project, seq, entity, ids);
    const now = await this.repo.findRows(entity, [...then.keys()]);
    return { rows: [...then].map(([id, row]) => ({ ...now.get(id), ...row })), gone: ids.filter((id) => !then.has(id)) };
  }
}
