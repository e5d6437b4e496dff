import { CoombError } from '@coomb/contract';
import { setImmediate } from 'node:timers/promises';
import type { ExportFormat, getExportRecipe, ReplyOf, tryExport } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { FilesRepo } from '../files/files.repo.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { openScene, SceneReader, type Wanted } from './export-scene.js';
import { ExportsRepo } from './exports.repo.js';
import { FileWriter, type Supply } from './file-writer.js';
import { GrowingFile } from './growing-file.js';
import { OtherFiles } from './other-files.js';
import type { Slice } from './read-scene.js';
import type { WriteAnswer, WriteTask } from './write-file.worker.js';
import type { PartnerFile } from './writers/writer.js';

/** Formats of files that go out as they came, with what changed here. */
const PARTNERS: Partial<Record<ExportFormat, readonly string[]>> = { reqif: ['reqif'], model: ['xmi', 'bpmn', 'dmn', 'ssp', 'ecore'], xmi: ['xmi'] };

/** Items of one difference that are named; the others are counted. */
const MOST_NAMED = 200;
const MOST_QUOTED = 300;
const SHARED_FOR_MS = 5000;

/** Collections as files that others read, and that Coomb reads back by the recipe that goes with them. */
@Injectable()
export class ExportsService {
  /** Files that are being written, or just were: who asks for the same of the same change gets the same. */
  private readonly sharing = new Map<string, GrowingFile>();

  constructor(
    @Inject(ExportsRepo) private readonly repo: ExportsRepo,
    @Inject(FilesRepo) private readonly files: FilesRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(FileWriter) private readonly writer: FileWriter,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** A file that is being written, or just was, for somebody who may go away. Refuses a collection or items that are not there. */
  async export(projectId: string, wanted: Wanted, format: ExportFormat, leaving: AbortSignal): Promise<GrowingFile> {
    const { seq } = await this.states.get(projectId);
    leaving.throwIfAborted();
    // From here to `join` nothing waits: a file that others give up is shared with nobody any more.
    const key = JSON.stringify([projectId, seq, format, wanted]);
    const file = this.sharing.get(key) ?? this.begin(projectId, wanted, format, key);
    file.join(leaving);
    return file;
  }

  /** It is shared until some time after it is whole, or until it fails or nobody is left who wants it. */
  private begin(projectId: string, wanted: Wanted, format: ExportFormat, key: string): GrowingFile {
    const forget = () => {
      if (this.sharing.get(key) === file) this.sharing.delete(key);
    };
    const leaving = new AbortController();
    const file = new GrowingFile(() => {
      forget();
      leaving.abort();
    });
    this.sharing.set(key, file);
    const write = async () => {
      try {
        const { task, supply } = await this.open(projectId, wanted, format);
        await this.writer.run({ ...task, wants: 'file' }, supply, { file, signal: leaving.signal });
        file.end();
        setTimeout(forget, SHARED_FOR_MS).unref();
      } catch (error) {
        forget();
        file.fail(error as Error);
      }
    };
    void write();
    return file;
  }

  async getRecipe(projectId: string, wanted: Wanted, format: ExportFormat, signal?: AbortSignal): Promise<ReplyOf<typeof getExportRecipe>> {
    const { task, supply } = await this.open(projectId, wanted, format);
    const { body } = (await this.writer.run({ ...task, wants: 'recipe' }, supply, { signal })) as Extract<WriteAnswer, { wants: 'recipe' }>;
    return { coombRecipe: 1, name: `Export of ${task.head.name}`, body };
  }

  /** What of a file comes back when it is read by its recipe: measured, not promised. */
  async try(projectId: string, wanted: Wanted, format: ExportFormat, signal?: AbortSignal): Promise<ReplyOf<typeof tryExport>> {
    const { task, supply } = await this.open(projectId, wanted, format);
    const answer = await this.writer.run({ ...task, wants: 'comparison' }, supply, { signal });
    const { name, size, back } = answer as Extract<WriteAnswer, { wants: 'comparison' }>;
    const { differences, ...counts } = back;
    const cut = (text: string) => (text.length > MOST_QUOTED ? `${text.slice(0, MOST_QUOTED)}…` : text);
    return {
      name,
      bytes: size,
      ...counts,
      differences: differences.map(({ what, items, before, after, isMarkup }) => ({
        what,
        count: items.length,
        items: items.slice(0, MOST_NAMED),
        before: isMarkup ? before : cut(before),
        after: isMarkup ? after : cut(after),
        isMarkup,
      })),
    };
  }

  private async open(projectId: string, wanted: Wanted, format: ExportFormat): Promise<{ task: Omit<WriteTask, 'wants'>; supply: Supply }> {
    const state = await this.states.get(projectId);
    const { seq } = state;
    const { head, nodes } = openScene(state, wanted);
    const formats = PARTNERS[format];
    const found = formats && 'collection' in wanted ? await this.findPartnerFile(projectId, wanted, formats) : undefined;
    if (format === 'model' && !found)
      throw new CoombError(
        'input-invalid',
        'collection' in wanted
          ? `${head.name} came from no model file. Save it as UML in XMI, which makes a new model of it.`
          : 'A model file goes out as it came only as a whole collection. Choose "Save as a file" of the collection that came from it, or UML in XMI.',
      );
    const partner = found?.file;
    const { repo } = this;
    const reader = new SceneReader(state, nodes);
    // A new model leads on to those that the other collections go out as.
    const here = new Set(nodes.map((node) => state.items[node]!.id));
    const others = format === 'xmi' && !found ? new OtherFiles(repo, await repo.findPartners(projectId, PARTNERS.xmi!), here) : undefined;
    const readSlice = () => this.readSlice(state, seq, reader, found?.lineage, others);
    const supply = {
      async *slices() {
        for (; !reader.isDone; reader.skip()) {
          yield await readSlice();
          await setImmediate();
        }
      },
      findFiles: (ids: string[]) => repo.findFiles(projectId, ids),
    };
    return { task: { format, head, now: this.clock.now(), partner }, supply };
  }

  /** A file tells of one moment: what somebody changes while it is written is read as it stood before. */
  private async readSlice(state: ProjectState, seq: number, reader: SceneReader, partner: string | undefined, others: OtherFiles | undefined): Promise<Slice> {
    const moment = state.seq === seq ? state : await this.states.getAt(state.id, seq);
    const parts = reader.peek(moment);
    await others?.address(moment, seq, parts);
    const ids = parts.map(({ id }) => id);
    return { parts, rows: await this.repo.findRows(state.id, seq, ids, partner) };
  }

  /** The newest file of a partner that a collection came from, to be written on in, with the line of versions that it belongs to. */
  private async findPartnerFile(
    projectId: string,
    { collection, partner }: { collection: string; partner?: string | undefined },
    formats: readonly string[],
  ): Promise<{ lineage: string; file: PartnerFile } | undefined> {
    const source = await this.repo.findNewest(projectId, collection, formats, partner);
    if (!source && partner !== undefined) throw new CoombError('not-found', 'This partner sent no such file for this collection, or its import was undone.');
    if (!source) return undefined;
    const { bytes } = await this.files.getOriginal(projectId, source.id);
    const lineage = source.lineageId ?? source.id;
    const pictures = await this.repo.findPictureNames(projectId, lineage);
    return {
      lineage,
      file: {
        ...{ bytes, name: source.name, recipe: source.recipe as PartnerFile['recipe'], pictures },
        removedLinks: await this.repo.findRemovedLinks(projectId),
        drawings: await this.repo.findDrawings(projectId, collection),
        linkSorts: await this.repo.findLinkSorts(projectId),
      },
    };
  }
}
