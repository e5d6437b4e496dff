import { type Binding, findBinding, type LastContact } from '@coomb/core';
import type { KeptDrawing } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { and, eq, inArray, like, ne, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';
import { importedAs } from '../link-rows/build-link.js';
import { readWhole } from '../files/files.repo.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { PastRepo } from '../ledger/past.repo.js';
import { StagedChanges } from '../ledger/staged-changes.js';
import type { ItemValue, SourceValue } from '../ledger/change.js';

/** What of an item goes out. */
export type ExportRow = Pick<ItemValue, 'id' | 'reference' | 'title' | 'html' | 'kind' | 'heading' | 'fields'> &
  Pick<Binding, 'externalId'> &
  Pick<LastContact, 'base'>;

@Injectable()
export class ExportsRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(PastRepo) private readonly past: PastRepo,
    @Inject(StagedChanges) private readonly staged: StagedChanges,
  ) {}

  /** The newest file of some formats that a collection came from: of a partner, or of the one who sent the first. */
  async findNewest(project: string, collection: string, formats: readonly string[], partner?: string): Promise<SourceValue | undefined> {
    const sources = (await this.rows.findAll(project, 'source')).filter((source) => source.collectionId === collection && formats.includes(source.format));
    sources.sort((a, b) => Date.parse(a.importedAt) - Date.parse(b.importedAt));
    const lineageOf = (source: SourceValue) => source.lineageId ?? source.id;
    const wanted = partner ?? (sources[0] && lineageOf(sources[0]));
    return sources.findLast((source) => lineageOf(source) === wanted);
  }

  /** Who sent the first file of some formats that each collection came from. */
  async findPartners(project: string, formats: readonly string[]): Promise<Map<string, string>> {
    const sources = (await this.rows.findAll(project, 'source')).filter((source) => formats.includes(source.format));
    sources.sort((a, b) => Date.parse(b.importedAt) - Date.parse(a.importedAt));
    return new Map(sources.flatMap(({ collectionId, lineageId, id }) => (collectionId === null ? [] : [[collectionId, lineageId ?? id] as const])));
  }

  /**
   * Items by id as they stand, as much of them as goes out, in any order; ids that do not exist are left out. One JSON text of ExportRow[]: rows of
   * values one by one take the database four times as long, and the text is read where it is needed only. Identifier and base are those of the
   * partner that they go to, else of the first that knows them. `seq` is the change that they are of, the present one or an earlier one.
   */
  async findRows(project: string, seq: number, ids: readonly string[], partner: string | undefined): Promise<string> {
    if (this.staged.momentOf(project) !== undefined) return this.findRowsAt(project, seq, ids, partner);
    const of = (key: string) =>
      partner === undefined
        ? sql`bindings -> 0 ->> ${key}::text`
        : sql`(select one ->> ${key}::text from jsonb_array_elements(bindings) one where one ->> 'partner' = ${partner})`;
    const { rows } = await this.db.execute<{ seq: number; text: string }>(sql`
      select (select seq from project where id = ${project}) as seq, coalesce(json_agg(json_build_object(
        'id', id, 'reference', reference, 'externalId', ${of('externalId')}, 'title', title, 'html', html, 'kind', kind,
        'heading', heading, 'fields', fields, 'base', exchanged -> coalesce(${partner ?? null}::text, bindings -> 0 ->> 'partner') -> 'base'
      )), '[]')::text as text from item where id = any(${`{${ids.join(',')}}`}::uuid[])`);
    // What is committed reaches the database before the memory.
    return rows[0]!.seq === seq ? rows[0]!.text : this.findRowsAt(project, seq, ids, partner);
  }

  private async findRowsAt(project: string, seq: number, ids: readonly string[], partner: string | undefined): Promise<string> {
    return JSON.stringify([...(await this.past.findRows(project, seq, 'item', ids)).values()].map((row) => asExportRow(row, partner)));
  }

  /** Drawings that came with a model, as they stand at the moment that is asked about. */
  async findDrawings(project: string, collection: string): Promise<KeptDrawing[]> {
    const rows = await this.rows.findAll(project, 'drawing');
    return rows.flatMap(({ collectionId, externalId, body }) => (collectionId === collection && !body.made ? [{ id: externalId, body }] : []));
  }

  /** What links are in the models that they came with, by kind and items. */
  async findLinkSorts(project: string): Promise<Map<string, string>> {
    const { links } = schema;
    const rows = await this.db
      .select({ kind: links.kind, from: links.fromId, to: links.toId, origin: links.origin })
      .from(links)
      .where(and(eq(links.projectId, project), eq(links.withdrawn, false), like(links.origin, importedAs('%'))));
    return new Map(rows.map(({ kind, from, to, origin }) => [`${kind} ${from} ${to}`, origin.slice(importedAs('').length)]));
  }

  /** Links that somebody removed, by the item that they led from. */
  async findRemovedLinks(project: string): Promise<Map<string, { linkKind: string; other: string }[]>> {
    const { links } = schema;
    const moment = this.staged.momentOf(project);
    const rows =
      moment === undefined
        ? await this.db
            .select()
            .from(links)
            .where(and(eq(links.projectId, project), eq(links.withdrawn, true)))
        : [...(await this.past.findAll(project, moment, 'link')).values()].filter((link) => link.withdrawn);
    const found = new Map<string, { linkKind: string; other: string }[]>();
    for (const { fromId, kind, toId } of rows) found.set(fromId, [...(found.get(fromId) ?? []), { linkKind: kind, other: toId }]);
    return found;
  }

  async findFiles(project: string, ids: readonly string[]): Promise<{ id: string; name: string; mediaType: string; bytes: Uint8Array }[]> {
    const { files } = schema;
    if (ids.length === 0) return [];
    const rows = await this.db
      .select({ id: files.id, name: files.name, mediaType: files.mediaType, bytes: files.bytes, parts: files.parts })
      .from(files)
      .where(and(eq(files.projectId, project), inArray(files.id, [...ids])));
    return Promise.all(rows.map(async (row) => ({ ...row, bytes: await readWhole(this.db, row) })));
  }

  /** Names that stored pictures have in their file, by their stored id. */
  async findPictureNames(project: string, lineage: string): Promise<Map<string, string>> {
    const { files, sources } = schema;
    const rows = await this.db
      .select({ id: files.id, name: files.name })
      .from(files)
      .innerJoin(sources, eq(sources.id, files.sourceId))
      .where(and(eq(files.projectId, project), eq(sources.lineageId, lineage), ne(files.id, sql`${files.sourceId}`)));
    return new Map(rows.map((row) => [row.id, row.name]));
  }
}

/** No more than goes out: a worker is given it. */
function asExportRow({ id, reference, title, html, kind, heading, fields, bindings, exchanged }: ItemValue, partner: string | undefined): ExportRow {
  const binding = partner === undefined ? bindings[0] : findBinding(bindings, partner);
  const base = exchanged[partner ?? bindings[0]?.partner ?? '']?.base ?? null;
  return { id, reference, externalId: binding?.externalId ?? null, title, html, kind, heading, fields, base };
}
