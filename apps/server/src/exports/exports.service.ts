import type { getExportRecipe, RecipeFile, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { type ExchangeRecipe, findLinkKind, isSame, phraseAt, usualIdentifier } from '@coomb/core';
import {
  buildColumns,
  buildDocumentRecipe,
  buildReqifEdits,
  buildReqifSkeleton,
  buildSheetRecipe,
  type Column,
  inChunks,
  plainText,
  readReqifFile,
  type ReqifEdits,
  type ReqifItem,
  rewriteReqif,
  writeCsv,
  writeMarkdown,
} from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import ExcelJS from 'exceljs';
import { valuesOf } from '../gather/import-again/exchange.js';
import { GatherRepo } from '../gather/gather.repo.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { CollectionRow, ItemRow } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { ExportsRepo } from './exports.repo.js';

export type ExportFormat = 'xlsx' | 'csv' | 'md' | 'reqif';

export interface ExportFile {
  name: string;
  bytes: Buffer;
}

interface Scene {
  state: ProjectState;
  collection: CollectionRow;
  items: ReqifItem[];
  columns: Column[];
}

/** Collections as files that others read, and that Coomb reads back by the recipe that goes with them. */
@Injectable()
export class ExportsService {
  constructor(
    @Inject(ExportsRepo) private readonly repo: ExportsRepo,
    @Inject(GatherRepo) private readonly files: GatherRepo,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async export(projectId: string, collectionId: string, format: ExportFormat, wanted: string | undefined): Promise<ExportFile> {
    const scene = await this.open(projectId, collectionId, wanted);
    const { collection, items, columns } = scene;
    const table = () => [columns.map((column) => column.name), ...items.map((item) => columns.map((column) => column.valueOf(item)))];
    if (format === 'csv') return { name: `${collection.name}.csv`, bytes: Buffer.from(writeCsv(table())) };
    if (format === 'md') return { name: `${collection.name}.md`, bytes: Buffer.from(writeMarkdown(items, columns)) };
    if (format === 'xlsx') return { name: `${collection.name}.xlsx`, bytes: await writeWorkbook(collection.name, table()) };
    return this.exportReqif(scene, wanted !== undefined);
  }

  async getRecipe(projectId: string, collectionId: string, format: ExportFormat, wanted: string | undefined): Promise<ReplyOf<typeof getExportRecipe>> {
    const scene = await this.open(projectId, collectionId, wanted);
    const { collection, columns } = scene;
    const body = await this.buildRecipe(scene, format, columns);
    return { coombRecipe: 1, name: `Export of ${collection.name}`, body };
  }

  private async buildRecipe(scene: Scene, format: ExportFormat, columns: readonly Column[]): Promise<RecipeFile['body']> {
    const { collection } = scene;
    if (format === 'md') return { reads: 'document', recipe: buildDocumentRecipe(columns, collection.name, collection.kind, usualIdentifier) };
    if (format !== 'reqif') return { reads: 'sheet', recipe: buildSheetRecipe(columns, sheetName(collection.name), collection.kind) };
    const partner = await this.findPartnerFile(scene);
    return { reads: 'exchange', recipe: partner?.recipe ?? this.buildSkeleton(scene).recipe };
  }

  /** The partner's own file with what changed here since; a file of our own where the items came from elsewhere. */
  private async exportReqif(scene: Scene, isPart: boolean): Promise<ExportFile> {
    const { state, collection, items } = scene;
    const now = this.clock
      .now()
      .toISOString()
      .replace(/\.\d+Z$/, 'Z');
    const partner = isPart ? undefined : await this.findPartnerFile(scene);
    const name = `${collection.name}.reqif`;
    if (partner) {
      const { exchange } = await readReqifFile(partner.bytes);
      const edits = buildReqifEdits(state.scheme, partner.recipe, exchange, withPictures(items, partner.pictures), now);
      return { name, bytes: await rewrite(partner.bytes, edits) };
    }
    const { xml, recipe } = this.buildSkeleton(scene, now);
    const { exchange } = await readReqifFile(Buffer.from(xml));
    const edits = buildReqifEdits(state.scheme, recipe, exchange, items, now);
    return { name, bytes: await rewrite(Buffer.from(xml), edits) };
  }

  private buildSkeleton({ state, collection, items }: Scene, now = ''): { xml: string; recipe: ExchangeRecipe } {
    const kinds = [...new Set(items.map((item) => item.kind))];
    const linkKinds = [...new Set(items.flatMap((item) => item.ends.map((end) => end.linkKind)))];
    return buildReqifSkeleton(state.scheme, kinds, linkKinds, collection.name, now);
  }

  /** The newest ReqIF file that the collection came from, with the recipe it was read by. Archives go out as files of our own. */
  private async findPartnerFile({ state, collection }: Scene): Promise<{ bytes: Buffer; recipe: ExchangeRecipe; pictures: Map<string, string> } | undefined> {
    const source = await this.repo.findNewestReqif(state.id, collection.id);
    if (!source?.recipe) return undefined;
    const { bytes } = await this.files.getOriginal(state.id, source.id);
    if (bytes[0] === 0x50 && bytes[1] === 0x4b) return undefined;
    return {
      bytes: Buffer.from(bytes),
      recipe: source.recipe as ExchangeRecipe,
      pictures: await this.repo.findPictureNames(state.id, source.lineageId ?? source.id),
    };
  }

  private async open(projectId: string, collectionId: string, wanted: string | undefined): Promise<Scene> {
    const state = await this.states.get(projectId);
    const collection = state.collections.find((one) => one.id === collectionId && !one.withdrawn);
    if (!collection) throw new CoombError('not-found', `There is no collection ${collectionId}.`);
    const nodes = chooseNodes(state, collectionId, wanted);
    const found = await this.rows.findRows(
      'item',
      nodes.map((node) => state.items[node]!.id),
    );
    const items = describe(state, nodes, found);
    return { state, collection, items, columns: buildColumns(state.scheme, items, plainText) };
  }
}

/** The items asked for with all that stand above them; every item of the collection when none is named. Refuses references that are not there. */
function chooseNodes(state: ProjectState, collection: string, wanted: string | undefined): number[] {
  const all = Array.from(state.outline().nodes).filter((node) => state.items[node]!.collectionId === collection);
  if (wanted === undefined) return all;
  const chosen = new Set<number>();
  for (const reference of wanted.split(',').map((one) => one.trim())) {
    const node = state.byReference.get(reference.toLowerCase());
    if (node === undefined || state.items[node]!.collectionId !== collection) throw new CoombError('not-found', `There is no ${reference} in this collection.`);
    for (let at: number | undefined = node; at !== undefined; ) {
      chosen.add(at);
      const up: string | null = state.items[at]!.parentId;
      at = up === null ? undefined : state.nodeOf.get(up);
    }
  }
  return all.filter((node) => chosen.has(node));
}

function describe(state: ProjectState, nodes: readonly number[], rows: ReadonlyMap<string, ItemRow>): ReqifItem[] {
  const at = new Map(nodes.map((node, index) => [state.items[node]!.id, index]));
  const depths: number[] = [];
  return nodes.map((node, index) => {
    const row = rows.get(state.items[node]!.id)!;
    const parentAt = row.parentId === null ? -1 : (at.get(row.parentId) ?? -1);
    depths[index] = parentAt < 0 ? 0 : depths[parentAt]! + 1;
    const ends = readEnds(state, node);
    const links = new Map<string, ReqifItem['links'][number]>();
    for (const { linkKind, reversed, reference } of ends) {
      const kind = findLinkKind(state.scheme, linkKind)!;
      // Links downstream are told by their other ends: once is enough to bring them back.
      if ((kind.upstream === 'to') === reversed) continue;
      const phrase = phraseAt(kind, reversed ? 'to' : 'from');
      const known = links.get(phrase);
      if (known) known.targets.push(reference);
      else links.set(phrase, { linkKind, reversed, phrase, targets: [reference] });
    }
    return {
      id: row.id,
      reference: row.reference,
      externalId: row.externalId,
      title: row.title,
      html: row.html,
      kind: row.kind,
      heading: row.heading,
      parent: row.parentId === null ? null : (state.items[state.nodeOf.get(row.parentId)!]?.reference ?? null),
      depth: depths[index]!,
      fields: row.fields,
      links: [...links.values()],
      changed: findChanged(row),
      parentAt,
      ends: ends.map(({ linkKind, reversed, other }) => ({ linkKind, reversed, other })),
    };
  });
}

function readEnds(state: ProjectState, node: number): { linkKind: string; reversed: boolean; other: string; reference: string }[] {
  const { graph, scheme } = state;
  const read = (direction: 'out' | 'in') =>
    graph.findLinks(node, direction).flatMap((link) => {
      const end = direction === 'out' ? graph.to[link]! : graph.from[link]!;
      const other = state.items[end]!;
      return other.withdrawn
        ? []
        : [{ linkKind: scheme.linkKinds[graph.kind[link]!]!.id, reversed: direction === 'in', other: other.id, reference: other.reference }];
    });
  return [...read('out'), ...read('in')];
}

/** Values that differ from what was last exchanged. */
function findChanged(row: ItemRow): Set<string> {
  const now = valuesOf(row);
  const before = row.base?.values ?? {};
  const names = new Set([...Object.keys(now), ...Object.keys(before)]);
  return new Set([...names].filter((name) => !isSame(now[name] ?? null, before[name] ?? null)));
}

/** Stored pictures under the names that the partner's file has for them. */
function withPictures(items: readonly ReqifItem[], names: ReadonlyMap<string, string>): ReqifItem[] {
  return items.map((item) => ({
    ...item,
    html: item.html.replace(/src="\/api\/projects\/[^/"]+\/files\/([^"]+)"/g, (whole, id: string) => (names.has(id) ? `src="${names.get(id)}"` : whole)),
  }));
}

async function rewrite(bytes: Buffer, edits: ReqifEdits): Promise<Buffer> {
  const parts: string[] = [];
  for await (const part of rewriteReqif(inChunks(bytes), edits)) parts.push(part);
  return Buffer.from(parts.join(''));
}

const sheetName = (name: string) => name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31);

async function writeWorkbook(name: string, table: string[][]): Promise<Buffer> {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRows(table);
  sheet.getRow(1).font = { bold: true };
  table[0]!.forEach((_, index) => {
    const widest = table.slice(0, 200).reduce((most, row) => Math.max(most, row[index]!.length), 8);
    sheet.getColumn(index + 1).width = Math.min(60, widest + 2);
    sheet.getColumn(index + 1).alignment = { wrapText: true, vertical: 'top' };
  });
  return Buffer.from(await workbook.xlsx.writeBuffer());
}
