import type { ExportFormat, getExportRecipe, ReplyOf, tryExport } from '@coomb/contract';
import { cleanAllTexts, type ExchangeRecipe } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { GatherRepo } from '../gather/gather.repo.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { ProjectStates } from '../project-state/project-states.js';
import type { WriteAnswer } from './write-file.worker.js';
import { openScene, type Scene, type Wanted } from './export-scene.js';
import { FileWriter } from './file-writer.js';
import { ExportsRepo } from './exports.repo.js';
import { findStored } from './stored-files.js';
import { writers } from './writers/index.js';
import type { ExportFile, PartnerFile, Shelf } from './writers/writer.js';

/** Items of one difference that are named; the others are counted. */
const MOST_NAMED = 200;
const MOST_QUOTED = 300;
const SHARED_FOR_MS = 5000;

/** Collections as files that others read, and that Coomb reads back by the recipe that goes with them. */
@Injectable()
export class ExportsService {
  /** Files that are being written, or just were: who asks for the same of the same change gets the same. */
  private readonly sharing = new Map<string, Promise<ExportFile>>();

  constructor(
    @Inject(ExportsRepo) private readonly repo: ExportsRepo,
    @Inject(GatherRepo) private readonly files: GatherRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(FileWriter) private readonly writer: FileWriter,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async export(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ExportFile> {
    const { seq } = await this.states.get(projectId);
    const key = JSON.stringify([projectId, seq, format, wanted]);
    let file = this.sharing.get(key);
    if (!file) {
      file = this.write(projectId, wanted, format);
      this.sharing.set(key, file);
      const forget = () => void setTimeout(() => this.sharing.delete(key), SHARED_FOR_MS).unref();
      file.then(forget, () => this.sharing.delete(key));
    }
    return file;
  }

  private async write(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ExportFile> {
    const { scene, shelf } = await this.open(projectId, wanted, format);
    const answer = await this.writer.run({ format, scene, shelf, readsBack: false });
    return (answer as Extract<WriteAnswer, { file: ExportFile }>).file;
  }

  async getRecipe(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ReplyOf<typeof getExportRecipe>> {
    const { scene, shelf } = await this.open(projectId, wanted, format);
    return { coombRecipe: 1, name: `Export of ${scene.name}`, body: writers.find((one) => one.id === format)!.buildRecipe(scene, shelf) };
  }

  /** What of a file comes back when it is read by its recipe: measured, not promised. */
  async try(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ReplyOf<typeof tryExport>> {
    const { scene, shelf } = await this.open(projectId, wanted, format);
    const answer = await this.writer.run({ format, scene, shelf, readsBack: true });
    const { name, size, back } = answer as Exclude<WriteAnswer, { file: ExportFile }>;
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

  private async open(projectId: string, wanted: Wanted, format: ExportFormat): Promise<{ scene: Scene; shelf: Shelf }> {
    const state = await this.states.get(projectId);
    const partner = format === 'reqif' && 'collection' in wanted ? await this.findPartnerFile(projectId, wanted.collection) : undefined;
    const scene = await openScene(state, wanted, partner !== undefined, (ids) => this.repo.findItems(ids));
    if (partner) {
      const removed = await this.repo.findRemovedLinks(projectId);
      for (const item of scene.items) item.gone = removed.get(item.id) ?? [];
    }
    // Texts that were stored before they were cleaned on the way in must break no file on the way out.
    cleanAllTexts(scene.items, (property) => property === 'html');
    const files = await this.repo.findFiles(projectId, findStored(scene.items));
    return { scene, shelf: { now: this.clock.now(), files, partner } };
  }

  private async findPartnerFile(projectId: string, collection: string): Promise<PartnerFile | undefined> {
    const source = await this.repo.findNewestReqif(projectId, collection);
    if (!source?.recipe) return undefined;
    const { bytes } = await this.files.getOriginal(projectId, source.id);
    return { bytes, recipe: source.recipe as ExchangeRecipe, pictures: await this.repo.findPictureNames(projectId, source.lineageId ?? source.id) };
  }
}
