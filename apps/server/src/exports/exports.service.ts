import type { getExportRecipe, RecipeFile, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { type ExchangeRecipe, findLinkKind, isSame, phraseAt, type SourcePicture, usualIdentifier } from '@coomb/core';
import {
  buildColumns,
  buildDocumentRecipe,
  buildReqifEdits,
  buildReqifSkeleton,
  buildSheetRecipe,
  type Column,
  embeddedScheme,
  pictureScheme,
  plainText,
  readReqifFile,
  type ReqifItem,
  rewriteReqifFile,
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

/** A whole collection, or items of any. */
export type Wanted = { collection: string } | { items: readonly string[] };

interface Scene {
  state: ProjectState;
  /** Name of the file. */
  name: string;
  /** Kind of most items: the others say theirs. */
  kind: string;
  /** Where the whole of a collection goes out. */
  collection?: CollectionRow;
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

  async export(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ExportFile> {
    const scene = await this.open(projectId, wanted);
    const { name, items, columns } = scene;
    const table = () => [columns.map((column) => column.name), ...items.map((item) => columns.map((column) => column.valueOf(item)))];
    if (format === 'csv') return { name: `${name}.csv`, bytes: Buffer.from(writeCsv(table())) };
    if (format === 'md') return { name: `${name}.md`, bytes: Buffer.from(writeMarkdown(items, columns)) };
    if (format === 'xlsx') return { name: `${name}.xlsx`, bytes: await writeWorkbook(name, table()) };
    return this.exportReqif(scene);
  }

  async getRecipe(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ReplyOf<typeof getExportRecipe>> {
    const scene = await this.open(projectId, wanted);
    return { coombRecipe: 1, name: `Export of ${scene.name}`, body: await this.buildRecipe(scene, format) };
  }

  private async buildRecipe(scene: Scene, format: ExportFormat): Promise<RecipeFile['body']> {
    const { name, kind, columns } = scene;
    if (format === 'md') return { reads: 'document', recipe: buildDocumentRecipe(columns, name, kind, usualIdentifier) };
    if (format !== 'reqif') return { reads: 'sheet', recipe: buildSheetRecipe(columns, sheetName(name), kind) };
    const partner = await this.findPartnerFile(scene);
    return { reads: 'exchange', recipe: partner?.recipe ?? this.buildSkeleton(scene).recipe };
  }

  /** The partner's own file with what changed here since; a file of our own where the items came from elsewhere, or are a choice of them. */
  private async exportReqif(scene: Scene): Promise<ExportFile> {
    const { state, name, items } = scene;
    const now = this.clock
      .now()
      .toISOString()
      .replace(/\.\d+Z$/, 'Z');
    const partner = await this.findPartnerFile(scene);
    const { bytes, recipe } = partner ?? this.buildOwn(scene, now);
    const { exchange } = await readReqifFile(bytes);
    const { placed, pictures } = await this.takePictures(state.id, items, partner?.pictures ?? new Map());
    const edits = buildReqifEdits(state.scheme, recipe, exchange, placed, now);
    const written = await rewriteReqifFile(bytes, edits, pictures, `${name}.reqif`);
    return { name: `${name}.${written.extension}`, bytes: written.bytes };
  }

  private buildOwn(scene: Scene, now: string): { bytes: Buffer; recipe: ExchangeRecipe } {
    const { xml, recipe } = this.buildSkeleton(scene, now);
    return { bytes: Buffer.from(xml), recipe };
  }

  /** Items whose texts name stored pictures as the partner's file does; those that it does not know get a name of their own, and go along. */
  private async takePictures(
    projectId: string,
    items: readonly ReqifItem[],
    known: ReadonlyMap<string, string>,
  ): Promise<{ placed: ReqifItem[]; pictures: Map<string, SourcePicture> }> {
    const used = new Set(items.flatMap((item) => richTexts(item).flatMap((html) => [...html.matchAll(STORED)].map((match) => match[3]!))));
    const rows = await this.repo.findFiles(projectId, [...used]);
    const names = new Map(rows.map((row) => [row.id, known.get(row.id) ?? `objects/${row.id}${/\.\w+$/.exec(row.name)?.[0] ?? ''}`]));
    const place = (html: string) =>
      html.replace(STORED, (whole, start: string, attribute: string, id: string) =>
        names.has(id) ? `${start}${attribute === 'src' ? pictureScheme : embeddedScheme}${names.get(id)!.replace(/&/g, '&amp;')}"` : whole,
      );
    const placed = items.map((item) => ({
      ...item,
      html: place(item.html),
      fields: Object.fromEntries(Object.entries(item.fields).map(([field, value]) => [field, typeof value === 'string' ? place(value) : value])),
    }));
    return { placed, pictures: new Map(rows.map((row) => [names.get(row.id)!, { mediaType: row.mediaType, bytes: row.bytes }])) };
  }

  private buildSkeleton({ state, name, items }: Scene, now = ''): { xml: string; recipe: ExchangeRecipe } {
    const kinds = [...new Set(items.map((item) => item.kind))];
    const linkKinds = [...new Set(items.flatMap((item) => item.ends.map((end) => end.linkKind)))];
    return buildReqifSkeleton(state.scheme, kinds, linkKinds, name, now);
  }

  /** The newest ReqIF file that the collection came from, with the recipe it was read by. */
  private async findPartnerFile({ state, collection }: Scene): Promise<{ bytes: Buffer; recipe: ExchangeRecipe; pictures: Map<string, string> } | undefined> {
    const source = collection && (await this.repo.findNewestReqif(state.id, collection.id));
    if (!source?.recipe) return undefined;
    const { bytes } = await this.files.getOriginal(state.id, source.id);
    return {
      bytes: Buffer.from(bytes),
      recipe: source.recipe as ExchangeRecipe,
      pictures: await this.repo.findPictureNames(state.id, source.lineageId ?? source.id),
    };
  }

  private async open(projectId: string, wanted: Wanted): Promise<Scene> {
    const state = await this.states.get(projectId);
    const nodes = 'items' in wanted ? chooseNodes(state, wanted.items) : nodesOf(state, wanted.collection);
    const found = await this.rows.findRows(
      'item',
      nodes.map((node) => state.items[node]!.id),
    );
    const items = describe(state, nodes, found);
    const columns = buildColumns(state.scheme, items, plainText);
    if ('items' in wanted) return { state, name: `${state.name}, ${wanted.items.length} chosen`, kind: commonKind(items), items, columns };
    const collection = state.collections.find((one) => one.id === wanted.collection)!;
    return { state, name: collection.name, kind: collection.kind, collection, items, columns };
  }
}

/** In reading order. Refuses a collection that is not there. */
function nodesOf(state: ProjectState, collection: string): number[] {
  if (!state.collections.some((one) => one.id === collection && !one.withdrawn))
    throw new CoombError('not-found', `There is no collection ${collection}; it may have been taken back.`);
  return Array.from(state.outline().nodes).filter((node) => state.items[node]!.collectionId === collection);
}

/** The items asked for with all that stand above them, in reading order. Refuses items that are not there. */
function chooseNodes(state: ProjectState, wanted: readonly string[]): number[] {
  const chosen = new Set<number>();
  for (const id of wanted) {
    const node = state.nodeOf.get(id);
    if (node === undefined || state.items[node]!.withdrawn)
      throw new CoombError(
        'not-found',
        `${node === undefined ? 'One of the chosen items' : state.items[node]!.reference} is not there any more. Choose again.`,
      );
    for (let at: number | undefined = node; at !== undefined; ) {
      chosen.add(at);
      const up: string | null = state.items[at]!.parentId;
      at = up === null ? undefined : state.nodeOf.get(up);
    }
  }
  return Array.from(state.outline().nodes).filter((node) => chosen.has(node));
}

function commonKind(items: readonly ReqifItem[]): string {
  const count = new Map<string, number>();
  for (const item of items) if (!item.heading) count.set(item.kind, (count.get(item.kind) ?? 0) + 1);
  return [...count].toSorted((a, b) => b[1] - a[1])[0]?.[0] ?? items[0]!.kind;
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

/** An address of a stored file in rich text: what stands before it, its attribute, its id. */
const STORED = /(<(?:img|a) (src|href)=")\/api\/projects\/[^/"]+\/files\/([^"]+)"/g;

function richTexts({ html, fields }: ReqifItem): string[] {
  return [html, ...Object.values(fields).filter((value) => typeof value === 'string')];
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
