import type { BodyOf, ComparedEntry, Comparison as ComparisonReply, compareFile, importFile, Job } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import {
  buildDrawn,
  compareDrawn,
  contentTypeOf,
  carryClippings,
  type Clipping,
  findBinding,
  findKind,
  findLinkKind,
  type MergeEntry,
  type ModelDocument,
  phraseAt,
  type Scheme,
} from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../../http/tokens.js';
import { inTurns } from '../../jobs/in-turns.js';
import type { JobHandle } from '../../jobs/jobs.service.js';
import type { Change, ClippingValue, CollectionValue, DrawingValue, ItemValue, SourceValue } from '../../ledger/change.js';
import { LedgerRepo } from '../../ledger/ledger.repo.js';
import { asIso, LedgerService } from '../../changes/ledger.service.js';
import type { ProjectState } from '../../project-state/project-state.js';
import { ProjectStates } from '../../project-state/project-states.js';
import { type ImportContext, joinBrought } from '../build-import.js';
import { countBegun, sayWaiting } from '../say-waiting.js';
import { followRecipe, type RecipeWish, wishedRecipe, wishFor } from '../apply-recipe.js';
import { FilesRepo } from '../../files/files.repo.js';
import { GatherRepo } from '../gather.repo.js';
import { buildDrawings, buildFiles, buildSource, itemsByName } from '../source-rows.js';
import { type TrayFile, TrayService } from '../../tray/tray.service.js';
import { SourcesRepo } from '../sources.repo.js';
import { keepRemarks } from '../kept-remarks.js';
import { buildImportAgain, entryId, type Unlink } from './build-import-again.js';
import { compareVersions, type Comparison, findMine } from './compare-versions.js';
import { readLink } from './exchange.js';
import { fieldOf } from '../../items/item-values.js';

type CompareWish = NonNullable<BodyOf<typeof compareFile>>;
type AgainWish = NonNullable<NonNullable<BodyOf<typeof importFile>>['again']>;
type Outcome = NonNullable<Job['outcome']>;

interface Scene {
  older: SourceValue;
  /** Line of versions whose items it is compared with. */
  lineage: string;
  collection: CollectionValue;
  /** Who the file comes from; nothing while another partner is only compared. */
  partner: string;
}

/** Compares a newer version of a source with what came of the older one, and imports what was chosen of it as one batch. */
@Injectable()
export class ImportAgainService {
  constructor(
    @Inject(TrayService) private readonly tray: TrayService,
    @Inject(GatherRepo) private readonly repo: GatherRepo,
    @Inject(FilesRepo) private readonly files: FilesRepo,
    @Inject(SourcesRepo) private readonly sources: SourcesRepo,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async compare(projectId: string, person: string, trayId: string, wish: CompareWish): Promise<ComparisonReply> {
    const file = await this.tray.read(projectId, trayId);
    const state = await this.states.get(projectId);
    // What changes while it is compared was not looked at: choices are made on the rows as they stood now.
    const { seq } = state;
    const scene = await this.findScene(state, wish.source, wish.other ? '' : undefined);
    const known = await this.files.findPictures(projectId, scene.lineage);
    const { addresses } = await buildFiles(this.clock, projectId, scene.lineage, file, known);
    const fileNames = await this.repo.findFileNames(projectId, scene.partner, file.name);
    const context = { ...this.buildContext(state, person, scene, addresses), fileNames };
    const { comparison, issues } = await this.compareNow(context, scene, file, wish);
    const changed = comparison.merge.entries.filter((entry) => entry.sort !== 'same' || (entry.match && entry.match.reason !== 'key'));
    return {
      seq,
      source: { id: scene.older.id, name: scene.older.name, importedAt: asIso(scene.older.importedAt) },
      file: file.name,
      collection: { id: scene.collection.id, name: scene.collection.name },
      counts: comparison.merge.counts,
      entries: changed.map((entry) => describeEntry(state, comparison, entry)),
      drawings: await this.compareDrawings(file, scene),
      issues,
    };
  }

  async run(
    projectId: string,
    person: string,
    file: TrayFile,
    wish: RecipeWish & { again: AgainWish; recipe?: string | undefined },
    handle: JobHandle,
  ): Promise<Outcome> {
    const outcome: Outcome = { collection: null, items: 0, sections: 0, links: 0, results: 0, issues: [] };
    await this.ledger.change(projectId, async (state) => {
      const id = this.clock.newId();
      const scene = await this.findScene(state, wish.again.source, wish.again.other ? id : undefined);
      await this.assertUntouched(state, scene, wish.again.seq);
      const known = await this.files.findPictures(projectId, scene.lineage);
      const now = this.clock.now().toISOString();
      const source: SourceValue = {
        ...buildSource(this.clock, projectId, person, now, file, {
          ...withOlderRecipe(state.scheme, file, scene.older, wish),
          recipe: wish.recipe ?? scene.older.recipeId ?? undefined,
        }),
        id,
        lineageId: scene.partner,
        collectionId: scene.collection.id,
        choices: wish.again.choices ?? {},
      };
      const { files, addresses } = await buildFiles(this.clock, projectId, source.id, file, known);
      const fileNames = await this.repo.findFileNames(projectId, scene.partner, file.name);
      const context = { ...this.buildContext(state, person, scene, addresses), fileNames };
      await handle.step(0.15, 'Comparing');
      const { comparison, recipe } = await this.compareNow(context, scene, file, { ...wish.again, ...wish });
      const waiting = await this.repo.findWaitingEnds(projectId);
      const built = await inTurns(buildImportAgain(context, comparison, recipe, wish.again.choices ?? {}, waiting));
      const ended = new Set(built.changes.map((change) => change.after.id));
      const joined = joinBrought(
        context,
        built.changes,
        waiting.filter(({ id }) => !ended.has(id)),
      );
      built.issues.push(...sayWaiting(countBegun(built.changes), joined.joined));
      source.issues = keepRemarks([...file.content.issues, ...built.issues]);
      const unlinked = await this.buildUnlinks(state, built.unlink);
      const drawings =
        file.content.type === 'model'
          ? buildDrawings(
              this.clock,
              scene.collection,
              file.content.model,
              this.findByName(state, built, scene),
              await this.findKnownDrawings(scene, file.content.model),
            )
          : [];
      const changes: Change[] = [
        { entity: 'source', before: null, after: source },
        ...built.changes,
        ...joined.changes,
        ...unlinked,
        ...drawings,
        ...(await this.carryClippings(file, scene.older, source)),
      ];
      const { counts } = built;
      Object.assign(outcome, {
        collection: scene.collection.id,
        items: counts.added + counts.changed + counts.moved,
        links: counts.links + joined.joined,
        issues: source.issues,
      });
      await this.files.writeAhead(files);
      const places = [...built.itemOf].map(([draft, itemId]) => ({ sourceId: source.id, itemId, place: recipe.drafts[draft]!.place }));
      await this.repo.writePlaces(places);
      return {
        person,
        action: `Import ${file.name} again`,
        changes,
        also: async (tx) => {
          await this.files.insertFiles(tx, files);
        },
        failed: async () => {
          await this.files.dropAhead(files);
          await this.repo.dropPlaces(source.id);
        },
        step: (done) => handle.step(0.2 + (0.75 * done) / changes.length, `Storing ${done} of ${changes.length}`),
      };
    });
    return outcome;
  }

  /** Drawings that a model may change: its partner's own; those of another only as far as it has them, too. */
  private async findKnownDrawings({ collection, partner, lineage }: Scene, model: Pick<ModelDocument, 'drawings'>): Promise<DrawingValue[]> {
    const known = await this.repo.findDrawings(collection.id);
    if (partner === lineage) return known;
    const told = new Set(model.drawings.map(({ id }) => id));
    return known.filter(({ externalId }) => told.has(externalId));
  }

  /** Drawings that differ from those that stand here, or that only one side has. */
  private async compareDrawings({ content }: TrayFile, scene: Scene): Promise<ComparisonReply['drawings']> {
    if (content.type !== 'model') return [];
    const { model } = content;
    const known = new Map((await this.findKnownDrawings(scene, model)).flatMap((row) => (row.withdrawn ? [] : [[row.externalId, row] as const])));
    const found = model.drawings.flatMap((drawing): ComparisonReply['drawings'] => {
      const after = buildDrawn(model, drawing, () => null);
      const old = known.get(drawing.id);
      known.delete(drawing.id);
      const before = old?.body ?? null;
      const changes = compareDrawn(before ?? { shapes: [], routes: [] }, after);
      return changes.length > 0 || !old || old.name !== drawing.name ? [{ id: drawing.id, name: drawing.name, before, after, changes }] : [];
    });
    const gone = [...known.values()].map(({ externalId, name, body }) => ({
      id: externalId,
      name,
      before: body,
      after: null,
      changes: compareDrawn(body, { shapes: [], routes: [] }),
    }));
    return [...found, ...gone];
  }

  /** Passages clipped from the older version, found again in this one by their words; those that are not found stay with the older. */
  private async carryClippings(file: TrayFile, older: SourceValue, source: SourceValue): Promise<Change[]> {
    if (file.content.type !== 'document') return [];
    const clippings = await this.sources.findClippings(older.projectId, [older.id]);
    const { placed } = carryClippings(clippings as (ClippingValue & Clipping)[], file.content.document.blocks);
    return placed.map((row): Change => ({ entity: 'clipping', before: null, after: { ...row, id: this.clock.newId(), sourceId: source.id, revision: 1 } }));
  }

  private async compareNow(context: ImportContext<ProjectState>, scene: Scene, file: TrayFile, wish: Omit<CompareWish, 'source'>) {
    if (file.content.type === 'results') throw new CoombError('input-invalid', 'Results are not compared: each run stands for itself.');
    const recipe = await inTurns(followRecipe(context.state.scheme, file.content, withOlderRecipe(context.state.scheme, file, scene.older, wish)));
    const ids = findMine(context.state, scene.lineage, scene.collection.id);
    const found = await this.rows.findRows('item', ids);
    const rows = ids.map((id): ItemValue => found.get(id)!);
    const comparison = await inTurns(compareVersions(context, rows, recipe, new Map(wish.pairs ?? []), file.content.type === 'sheets'));
    return { comparison, recipe, issues: [...file.content.issues, ...recipe.issues, ...comparison.issues] };
  }

  private async findScene(state: ProjectState, sourceId: string, other: string | undefined): Promise<Scene> {
    const older = (await this.rows.findRows('source', [sourceId])).get(sourceId);
    if (!older || older.projectId !== state.id || older.withdrawn)
      throw new CoombError('not-found', 'The older version is not there any more; its import was undone.');
    const collection = state.contents.collections.find((one) => one.id === older.collectionId && !one.withdrawn);
    if (!collection) throw new CoombError('not-found', `The collection that ${older.name} went to is not there any more. Import the file into a new one.`);
    const lineage = older.lineageId ?? older.id;
    return { older, lineage, collection, partner: other ?? lineage };
  }

  /** Refuses an import whose choices were made on rows that have changed since; whatever else changed does not matter to it. */
  private async assertUntouched(state: ProjectState, scene: Scene, seq: number): Promise<void> {
    if (state.seq === seq) return;
    const mine = findMine(state, scene.lineage, scene.collection.id);
    const changed = await this.rows.findTouched(state.id, seq, mine);
    if (changed.length === 0) return;
    const named = changed.slice(0, 5).map((id) => state.items[state.nodeOf.get(id)!]!.reference);
    throw new CoombError(
      'changed-meanwhile',
      `Changed since the comparison: ${named.join(', ')}${changed.length > 5 ? ` and ${changed.length - 5} more` : ''}. Nothing was imported; compare again, your choices are kept.`,
      { seq: state.seq },
    );
  }

  /** Items by what the partner calls them: those that it knew, and those that it brought. */
  private findByName(state: ProjectState, built: { changes: readonly Change[] }, { partner }: Scene): Map<string, string> {
    const known = state.items.flatMap(({ id, bindings }) => {
      const name = findBinding(bindings, partner)?.externalId;
      return name ? [[name, id] as const] : [];
    });
    return new Map([...known, ...itemsByName(built.changes, partner)]);
  }

  private buildContext(state: ProjectState, person: string, scene: Scene, pictureAddress: Map<string, string>): ImportContext<ProjectState> {
    return {
      state,
      person,
      now: this.clock.now().toISOString(),
      newId: this.clock.newId,
      collection: scene.collection,
      sourceId: scene.partner,
      pictureAddress,
    };
  }

  private async buildUnlinks(state: ProjectState, wanted: readonly Unlink[]): Promise<Change[]> {
    const isOf = (usage: string | null | undefined, path: readonly string[] | null) => (usage ? state.usages.pathOf(usage).join() : '') === (path ?? []).join();
    const ids = wanted.flatMap(({ linkKind, from, to, fromUse, toUse }) => {
      const [fromNode, toNode] = [state.nodeOf.get(from)!, state.nodeOf.get(to)!];
      const links = state.graph.findLinks(fromNode, 'out', state.linkKindIndex(linkKind)).filter((link) => {
        const usage = state.linkUsage(link);
        return state.graph.to[link] === toNode && isOf(usage?.from, fromUse) && isOf(usage?.to, toUse);
      });
      return links.map((link) => state.linkIds.at(link));
    });
    const rows = await this.rows.findRows('link', ids);
    return [...rows.values()].map((before): Change => ({ entity: 'link', before, after: { ...before, withdrawn: true, revision: before.revision + 1 } }));
  }
}

/** The recipe asked for, else the one that the older version was read by: getting it right once serves every later version. */
function withOlderRecipe(scheme: Scheme, file: TrayFile, older: SourceValue, wish: RecipeWish): RecipeWish {
  if (file.content.type === 'results' || older.recipe === null || typeof older.recipe !== 'object') return wish;
  const type = contentTypeOf(file.content.type);
  if (wishedRecipe(type, wish) || !type.owns(older.recipe)) return wish;
  const recipe = type.inherit?.(scheme, older.recipe, file.content, file.format.id === older.format);
  return recipe ? wishFor(type, recipe) : wish;
}

function describeEntry(state: ProjectState, comparison: Comparison, entry: MergeEntry): ComparedEntry {
  const row = entry.mine < 0 ? undefined : comparison.rows[entry.mine]!;
  const draft = entry.theirs < 0 ? undefined : comparison.drafts[entry.theirs]!;
  const their = entry.theirs < 0 ? undefined : comparison.theirs[entry.theirs]!;
  const node = row && state.nodeOf.get(row.id);
  const links = node === undefined ? 0 : state.graph.findLinks(node, 'out').length + state.graph.findLinks(node, 'in').length;
  return {
    id: entryId(comparison, entry),
    sort: entry.sort,
    conflict: entry.conflict,
    mine: row ? { id: row.id, reference: row.reference, title: row.title, html: row.html, heading: row.heading, links } : null,
    theirs:
      draft && their
        ? {
            draft: entry.theirs,
            key: draft.reference ?? draft.externalId,
            title: their.title,
            html: String(their.values.text ?? ''),
            heading: their.heading,
            place: draft.place.says,
          }
        : null,
    match: entry.match ? { reason: entry.match.reason, likeness: entry.match.likeness } : null,
    fields: entry.fields.map(({ base, ...field }) => ({ ...field, ...(base !== undefined && { base }), label: labelOf(state.scheme, field.field, row?.kind) })),
    linksAdded: entry.linksAdded.map((link) => describeLink(state.scheme, link)),
    linksRemoved: entry.sort === 'removed' ? [] : entry.linksRemoved.map((link) => describeLink(state.scheme, link)),
    place:
      entry.place && row
        ? { from: titleOfParent(comparison, entry, 'mine'), to: titleOfParent(comparison, entry, 'theirs'), conflict: entry.place === 'conflict' }
        : null,
  };
}

const LABELS: Record<string, string> = { title: 'Title', text: 'Text', kind: 'Kind', heading: 'Heading', details: 'Details' };

function labelOf(scheme: Scheme, name: string, kind: string | undefined): string {
  const id = fieldOf(name);
  if (id === undefined) return LABELS[name] ?? name;
  return findKind(scheme, kind ?? '')?.fields.find((field) => field.id === id)?.label ?? id;
}

function describeLink(scheme: Scheme, text: string): string {
  const { linkKind, reversed, target } = readLink(text);
  const kind = findLinkKind(scheme, linkKind);
  return `${kind ? phraseAt(kind, reversed ? 'to' : 'from') : linkKind} ${target.toUpperCase()}`;
}

function titleOfParent({ mine, theirs }: Comparison, entry: MergeEntry, side: 'mine' | 'theirs'): string {
  const list = side === 'mine' ? mine : theirs;
  const own = list[side === 'mine' ? entry.mine : entry.theirs]!;
  return own.parent < 0 ? 'the top' : list[own.parent]!.title;
}
