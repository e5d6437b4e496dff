import { createHash } from 'node:crypto';
import type { readSource, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { carryClippings, type Clipping, labelOfSort, type ModelDocument, type SourceDocument, type SourcePlace } from '@coomb/core';
import { fileFormats, findReqifParts, isArchive, openArchive, type ReadOptions } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { placePictures } from '../gather/build-import.js';
import { buildFiles, buildSource } from '../gather/source-rows.js';
import { FileReader } from '../tray/file-reader.js';
import { FilesRepo } from '../files/files.repo.js';
import { TrayService } from '../tray/tray.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, ClippingValue, SourceValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { asIso, LedgerService } from '../changes/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { SourcesRepo } from '../gather/sources.repo.js';

type Reply = ReplyOf<typeof readSource>;
const READ_KEPT = 6;
const MODELS = ['xmi', 'bpmn', 'dmn', 'ssp', 'ecore'];

/** Stored originals as they read, with what came from them. */
@Injectable()
export class SourcesService {
  private readonly contents = new Map<string, Promise<Reply['content']>>();

  constructor(
    @Inject(SourcesRepo) private readonly repo: SourcesRepo,
    @Inject(FileReader) private readonly reader: FileReader,
    @Inject(FilesRepo) private readonly files: FilesRepo,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(TrayService) private readonly tray: TrayService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async read(projectId: string, id: string, as: 'tree' | 'text' = 'tree'): Promise<Reply> {
    const state = await this.states.get(projectId);
    const source = await this.getSource(projectId, id);
    const content = await this.readContent(projectId, source, as);
    const lineage = source.lineageId ?? source.id;
    const versions = await this.repo.findVersions(projectId, lineage);
    const clippings = await this.repo.findClippings(projectId, [source.id, ...versions.map((one) => one.id)]);
    const own = clippings.filter((clipping) => clipping.sourceId === source.id);
    const before = versions.filter((one) => one.importedAt < source.importedAt).map((one) => one.id);
    const lost = findLost(
      clippings.filter((clipping) => before.includes(clipping.sourceId)),
      own,
    );
    const newest = versions.at(-1);
    return {
      id: source.id,
      name: source.name,
      label: fileFormats.find((format) => format.id === source.format)?.label ?? source.format,
      importedAt: asIso(source.importedAt),
      importedBy: source.importedBy,
      newer: newest && newest.id !== source.id ? newest.id : null,
      content,
      items: (await this.findPlaces(state, source)).map(({ node, place }) => ({ item: state.brief(node), place, line: lineOf(content, place) })),
      clippings: own.flatMap((row) => describeClipping(state, row)),
      lost: lost.flatMap((row) => describeClipping(state, row)),
      issues: source.issues,
    };
  }

  /** Stores a document of the tray to be clipped from. As a newer version (`again`) it takes the clippings of the older one along. */
  async keep(projectId: string, person: string, trayId: string, again: string | undefined): Promise<{ source: string; carried: number; lost: number }> {
    const file = await this.tray.read(projectId, trayId);
    if (file.content.type !== 'document') throw new CoombError('input-invalid', 'Only documents can be clipped from. Import this file by a recipe instead.');
    const { blocks } = file.content.document;
    const older = again === undefined ? undefined : await this.getSource(projectId, again);
    const now = this.clock.now().toISOString();
    const source: SourceValue = {
      ...buildSource(this.clock, projectId, person, now, file, {}),
      issues: file.content.issues,
      ...(older && { lineageId: older.lineageId ?? older.id, collectionId: older.collectionId }),
    };
    const { files } = await buildFiles(this.clock, projectId, source.id, file);
    const clippings = older ? await this.repo.findClippings(projectId, [older.id]) : [];
    const { placed, lost } = carryClippings(clippings as (ClippingValue & Clipping)[], blocks);
    const carried = placed.map(
      (row): Change => ({ entity: 'clipping', before: null, after: { ...row, id: this.clock.newId(), sourceId: source.id, revision: 1 } }),
    );
    await this.files.writeAhead(files);
    await this.ledger.change(projectId, async () => ({
      person,
      action: `Keep ${file.name} to clip from`,
      changes: [{ entity: 'source', before: null, after: source }, ...carried],
      also: (tx) => this.files.insertFiles(tx, files),
      failed: () => this.files.dropAhead(files),
    }));
    this.tray.remove(projectId, trayId);
    return { source: source.id, carried: placed.length, lost: lost.length };
  }

  async getSource(projectId: string, id: string): Promise<SourceValue> {
    const source = (await this.rows.findRows(projectId, 'source', [id])).get(id);
    if (!source || source.projectId !== projectId || source.withdrawn)
      throw new CoombError('not-found', 'This source is not there any more; its import was undone.');
    return source;
  }

  private readContent(projectId: string, source: SourceValue, as: 'tree' | 'text'): Promise<Reply['content']> {
    const key = `${source.id} ${as}`;
    let content = this.contents.get(key);
    if (!content) {
      content = this.parse(projectId, source, as);
      this.contents.set(key, content);
      content.catch(() => this.contents.delete(key));
      for (const old of [...this.contents.keys()].slice(0, Math.max(0, this.contents.size - READ_KEPT))) this.contents.delete(old);
    }
    return content;
  }

  private async parse(projectId: string, source: SourceValue, as: 'tree' | 'text'): Promise<Reply['content']> {
    const original = await this.files.getOriginal(projectId, source.id);
    const bytes = Buffer.from(original.bytes);
    if (['docx', 'pdf', 'markdown', 'html', 'xlsx', 'csv'].includes(source.format)) {
      const { dialect } = (source.recipe ?? {}) as { dialect?: ReadOptions['dialect'] };
      const { content } = await this.reader.read(source.name, bytes, { dialect });
      if (content.type === 'document') return { type: 'document', blocks: await this.placeStored(projectId, source, content.document) };
      if (content.type === 'sheets') return { type: 'sheets', sheets: content.sheets };
    }
    if (as === 'tree' && MODELS.includes(source.format)) {
      const { content } = await this.reader.read(source.name, bytes, {});
      if (content.type === 'model') return layOutTree(content.model);
    }
    const text = await readText(bytes);
    return { type: 'text', lines: text.split(/\r?\n/).slice(0, 200_000) };
  }

  /** Blocks whose pictures have the addresses that they were stored under. */
  private async placeStored(projectId: string, source: SourceValue, { blocks, pictures }: SourceDocument): Promise<SourceDocument['blocks']> {
    if (pictures.size === 0) return blocks;
    const stored = await this.files.findPictures(projectId, source.lineageId ?? source.id);
    const addresses = new Map(
      [...pictures].flatMap(([name, { bytes }]) => {
        const id = stored.get(createHash('sha256').update(bytes).digest('hex'));
        return id === undefined ? [] : [[name, `/api/projects/${projectId}/files/${id}`] as const];
      }),
    );
    const place = <Words extends { html: string }>(words: Words): Words => ({ ...words, html: placePictures(words.html, addresses) });
    return blocks.map((block) => (block.type === 'table' ? { ...block, rows: block.rows.map((row) => row.map(place)) } : place(block)));
  }

  /** Where each item stands in this version: as noted when it was imported, or, for the first version, with the item itself. */
  private async findPlaces(state: ProjectState, source: SourceValue): Promise<{ node: number; place: SourcePlace }[]> {
    const lineage = source.lineageId ?? source.id;
    const noted = source.id === lineage ? await this.repo.findFirstPlaces(state.id, lineage) : await this.repo.findPlaces(source.id);
    return noted.flatMap(({ itemId, place }) => {
      const node = state.nodeOf.get(itemId);
      return node === undefined || state.items[node]!.withdrawn ? [] : [{ node, place }];
    });
  }
}

/** Passages of older versions that stand in none of this one: neither by their words, nor by others that were clipped for the same part of the item instead. */
function findLost(older: readonly ClippingValue[], own: readonly ClippingValue[]): ClippingValue[] {
  const wordsOf = ({ itemId, field, quote }: ClippingValue) => `${itemId} ${field} ${quote.replace(/\s+/g, ' ').trim()}`;
  const here = new Set(own.map(wordsOf));
  const known = new Set(older.map(wordsOf));
  const lost = [...new Map(older.filter((one) => !here.has(wordsOf(one))).map((one) => [wordsOf(one), one])).values()];
  const anew = own.filter((one) => !known.has(wordsOf(one)));
  for (const { itemId, field } of anew) {
    const at = lost.findIndex((one) => one.itemId === itemId && one.field === field);
    if (at >= 0) lost.splice(at, 1);
  }
  return lost;
}

/** The text of an element file; of an archive, of the exchanges in it one below the other, each under its name. */
async function readText(bytes: Buffer): Promise<string> {
  if (!isArchive(bytes)) return bytes.toString('utf8');
  const archive = await openArchive(bytes);
  try {
    const names = findReqifParts(archive);
    const parts = [];
    for (const name of names) parts.push(`${names.length > 1 ? `${name}\n` : ''}${(await archive.read(name)).toString('utf8')}`);
    return parts.join('\n');
  } finally {
    archive.close();
  }
}

export function describeClipping(state: ProjectState, row: ClippingValue): Reply['clippings'] {
  const node = state.nodeOf.get(row.itemId);
  if (node === undefined || state.items[node]!.withdrawn) return [];
  const { id, block, start, end, quote, field } = row;
  return [{ id, block, start, end, quote, field, item: state.brief(node) }];
}

/** A model as the tree that its file is, in columns. */
function layOutTree(model: ModelDocument): Extract<Reply['content'], { type: 'model' }> {
  const tree: Extract<Reply['content'], { type: 'model' }> = {
    type: 'model',
    id: [],
    name: [],
    sort: [],
    sorts: [],
    parent: [],
    line: [],
    file: [],
    files: [],
  };
  const at = new Map<string, number>();
  const numbers = new Map<string, number>();
  const numberIn = (list: string[], text: string) => {
    const key = `${list === tree.sorts ? 's' : 'f'} ${text}`;
    if (!numbers.has(key)) numbers.set(key, list.push(text) - 1);
    return numbers.get(key)!;
  };
  const add = (id: string, name: string, sort: string, parent: string | null, line: number, file: string | undefined) => {
    at.set(id, tree.id.push(id) - 1);
    tree.name.push(name);
    tree.sort.push(numberIn(tree.sorts, sort));
    tree.parent.push(parent === null ? -1 : (at.get(parent) ?? -1));
    tree.line.push(line);
    tree.file.push(file === undefined ? -1 : numberIn(tree.files, file));
  };
  for (const element of model.elements) add(element.id, element.name, labelOfSort(element), element.parent, element.line, element.file);
  for (const { id, name, owner, line } of model.drawings) add(id, name, 'drawing', owner, line, undefined);
  return tree;
}

/** Line of an element file that an item came from: named, or found by its identifier. */
function lineOf(content: Reply['content'], place: SourcePlace): number | null {
  if (content.type === 'model') return Number(/line (\d+)$/.exec(place.says)?.[1] ?? 0) || null;
  if (content.type !== 'text') return null;
  const named = /^line (\d+)$/.exec(place.says)?.[1];
  if (named) return Number(named);
  const found = place.element ? content.lines.findIndex((line) => line.includes(`"${place.element}"`)) : -1;
  return found < 0 ? null : found + 1;
}
