import type { ExportFormat, getExportRecipe, ReplyOf, tryExport } from '@coomb/contract';
import { alignSheetRecipe, type ExchangeRecipe } from '@coomb/core';
import { compareBack } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { applyRecipe, type RecipeWish } from '../gather/apply-recipe.js';
import { FileReader } from '../gather/file-reader.js';
import { GatherRepo } from '../gather/gather.repo.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { ProjectStates } from '../project-state/project-states.js';
import { openScene, type Scene, type Wanted } from './export-scene.js';
import { ExportsRepo } from './exports.repo.js';
import { writers } from './writers/index.js';
import type { ExportFile, PartnerFile, Shelf, Writer } from './writers/writer.js';

/** Items of one difference that are named; the others are counted. */
const MOST_NAMED = 200;
const MOST_QUOTED = 300;

/** Collections as files that others read, and that Coomb reads back by the recipe that goes with them. */
@Injectable()
export class ExportsService {
  constructor(
    @Inject(ExportsRepo) private readonly repo: ExportsRepo,
    @Inject(GatherRepo) private readonly files: GatherRepo,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(FileReader) private readonly reader: FileReader,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async export(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ExportFile> {
    const { scene, shelf, writer } = await this.open(projectId, wanted, format);
    return writer.write(scene, shelf);
  }

  async getRecipe(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ReplyOf<typeof getExportRecipe>> {
    const { scene, shelf, writer } = await this.open(projectId, wanted, format);
    return { coombRecipe: 1, name: `Export of ${scene.name}`, body: await writer.buildRecipe(scene, shelf) };
  }

  /** Writes the file, reads it by its recipe as anybody would, and compares: what it says is measured, not promised. */
  async try(projectId: string, wanted: Wanted, format: ExportFormat): Promise<ReplyOf<typeof tryExport>> {
    const { scene, shelf, writer } = await this.open(projectId, wanted, format);
    const { name, bytes } = await writer.write(scene, shelf);
    const body = await writer.buildRecipe(scene, shelf);
    const { content } = await this.reader.read(name, bytes);
    if (content.type === 'results') throw new Error(`${name} was read as test results`);
    const wish: RecipeWish =
      body.reads === 'document'
        ? { documentRecipe: body.recipe }
        : body.reads === 'exchange'
          ? { exchangeRecipe: body.recipe }
          : { sheetRecipe: content.type === 'sheets' ? alignSheetRecipe(body.recipe, content.sheets).recipe : body.recipe };
    const { differences, ...counts } = compareBack(scene.state.scheme, scene.items, applyRecipe(scene.state.scheme, content, wish));
    const cut = (text: string) => (text.length > MOST_QUOTED ? `${text.slice(0, MOST_QUOTED)}…` : text);
    return {
      name,
      bytes: bytes.length,
      ...counts,
      differences: differences.map((one) => ({
        what: one.what,
        count: one.items.length,
        items: one.items.slice(0, MOST_NAMED),
        before: one.isMarkup ? one.before : cut(one.before),
        after: one.isMarkup ? one.after : cut(one.after),
        isMarkup: one.isMarkup,
      })),
    };
  }

  private async open(projectId: string, wanted: Wanted, format: ExportFormat): Promise<{ scene: Scene; shelf: Shelf; writer: Writer }> {
    const state = await this.states.get(projectId);
    const scene = await openScene(state, wanted, (ids) => this.rows.findRows('item', [...ids]));
    const shelf: Shelf = {
      now: this.clock.now(),
      findFiles: (ids) => this.repo.findFiles(projectId, ids),
      findPartnerFile: () => this.findPartnerFile(scene),
    };
    return { scene, shelf, writer: writers.find((one) => one.id === format)! };
  }

  private async findPartnerFile({ state, collection }: Scene): Promise<PartnerFile | undefined> {
    const source = collection && (await this.repo.findNewestReqif(state.id, collection.id));
    if (!source?.recipe) return undefined;
    const { bytes } = await this.files.getOriginal(state.id, source.id);
    return {
      bytes: Buffer.from(bytes),
      recipe: source.recipe as ExchangeRecipe,
      pictures: await this.repo.findPictureNames(state.id, source.lineageId ?? source.id),
    };
  }
}
