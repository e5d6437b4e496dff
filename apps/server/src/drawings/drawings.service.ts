import type { BodyOf, getDrawing, listDrawings, ReplyOf, setBoxes } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { LensesService } from '../lenses/lenses.service.js';
import { LedgerService } from '../changes/ledger.service.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import type { DrawingValue } from '../ledger/change.js';
import { MadeDrawingsService, type MadeNow } from './made-drawings.service.js';
import { DrawingsRepo } from '../drawing-rows/drawings.repo.js';

@Injectable()
export class DrawingsService {
  constructor(
    @Inject(DrawingsRepo) private readonly repo: DrawingsRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(MadeDrawingsService) private readonly made: MadeDrawingsService,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LensesService) private readonly lenses: LensesService,
  ) {}

  /** In the order in which their items stand; those that are no items come last. */
  async list(projectId: string, lens?: string): Promise<ReplyOf<typeof listDrawings>> {
    const state = await this.states.get(projectId);
    const present = new Set(state.contents.collections.filter((one) => !one.withdrawn).map((one) => one.id));
    const drawings = (await this.repo.list(projectId)).filter((one) => present.has(one.collectionId) && !isGone(state, one.itemId));
    const placeOf = new Map<string, number>();
    state.outline().nodes.forEach((node, at) => placeOf.set(state.items[node]!.id, at));
    const seen = lens === undefined ? undefined : await this.countSeen(state, lens);
    const at = (itemId: string | null) => (itemId === null ? Infinity : (placeOf.get(itemId) ?? Infinity));
    return drawings
      .toSorted((a, b) => at(a.itemId) - at(b.itemId) || (a.name < b.name ? -1 : 1))
      .map(({ id, itemId, collectionId, name, sort, shapes, routes, made }) => ({
        ...describe(state, id, itemId, name),
        collection: collectionId,
        sort,
        shapes,
        routes,
        made,
        ...(seen && { seen: seen.get(id) ?? 0 }),
      }));
  }

  /** How many shapes of each drawing show items that are seen through a lens. */
  private async countSeen(state: ProjectState, lens: string): Promise<Map<string, number>> {
    const [seen, shown] = [await this.lenses.seen(state, lens), await this.repo.listShown(state.id)];
    const isSeen = (item: string | null) => item !== null && seen[state.nodeOf.get(item) ?? -1] === 1;
    return new Map(shown.map(({ id, items }) => [id, items.filter(isSeen).length]));
  }

  /** Refuses a drawing that is not there. */
  async get(projectId: string, id: string): Promise<ReplyOf<typeof getDrawing>> {
    const state = await this.states.get(projectId);
    const row = await this.repo.find(projectId, id);
    if (!row || row.withdrawn)
      throw new CoombError('not-found', 'This drawing is not there any more; its model may have been imported again without it, or its import undone.');
    const now = row.body.made && (await this.made.show(state, row));
    const body = now?.body ?? row.body;
    // What an item is called today is what its shape says.
    const shapes = body.shapes.map((shape) => {
      const node = shape.item === null ? undefined : state.nodeOf.get(shape.item);
      if (node === undefined) return { ...shape, item: null };
      const { title } = state.items[node]!;
      return isNamedByItem(shape.figure) ? { ...shape, name: renamed(shape.name, title) } : shape;
    });
    return {
      ...describe(state, row.id, row.itemId, row.name),
      collection: row.collectionId,
      sort: row.body.sort,
      shapes,
      routes: body.routes,
      revision: row.revision,
      boxes: describeBoxes(row),
      made: now ? describeMade(row, now) : null,
    };
  }

  /** Refuses a drawing that somebody else changed meanwhile. */
  async setBoxes(projectId: string, person: string, id: string, { revision, boxes }: BodyOf<typeof setBoxes>): Promise<ReplyOf<typeof setBoxes>> {
    await this.ledger.change(projectId, async () => {
      const before = (await this.rows.findRows('drawing', [id])).get(id);
      if (!before || before.projectId !== projectId || before.withdrawn) throw new CoombError('not-found', 'This drawing is not there any more.');
      if (before.revision !== revision)
        throw new CoombError('changed-meanwhile', 'Somebody else changed this drawing meanwhile. It is shown as they left it; keep your boxes again.', {
          revision: before.revision,
        });
      const after = { ...before, body: { ...before.body, boxes }, revision: revision + 1 };
      return { person, action: `Keep the boxes of the drawing "${before.name}"`, changes: [{ entity: 'drawing', before, after }] };
    });
    return { revision: revision + 1 };
  }
}

const NO_BOXES = { shown: [], layers: [], places: {} };

function describeBoxes({ body: { boxes = NO_BOXES } }: DrawingValue): ReplyOf<typeof getDrawing>['boxes'] {
  return { shown: boxes.shown === 'all' ? 'all' : [...boxes.shown], layers: [...boxes.layers], places: { ...boxes.places } };
}

function describeMade({ body }: DrawingValue, { gone, fresh, cut }: MadeNow): ReplyOf<typeof getDrawing>['made'] {
  const { definition, hand } = body.made!;
  const { detail, without, opened, closed, ...rest } = definition;
  return {
    definition: {
      ...rest,
      detail: [...detail],
      ...(without && { without: [...without] }),
      ...(opened && { opened: [...opened] }),
      ...(closed && { closed: [...closed] }),
    },
    hand: { ...hand },
    ...{ gone, fresh, cut },
  };
}

const isGone = (state: ProjectState, itemId: string | null) => itemId !== null && state.items[state.nodeOf.get(itemId) ?? -1]?.withdrawn === true;

function describe(state: ProjectState, id: string, itemId: string | null, name: string) {
  const node = itemId === null ? undefined : state.nodeOf.get(itemId);
  const item = node === undefined ? null : state.brief(node);
  return { id, item, name: item?.title ?? name };
}

/** Notes show their text, fragments their operator. */
const isNamedByItem = (figure: string) => !['note', 'annotation', 'fragment', 'operand'].includes(figure);

/** `drive: Gate Drive` keeps what stands behind the name. */
function renamed(shown: string, title: string): string {
  const at = shown.search(/(?:: | \[)/);
  if (shown === title || title.startsWith('Unnamed ') || title === shown.slice(0, at)) return shown;
  return at > 0 ? title + shown.slice(at) : at === 0 || shown === '' ? shown || title : title;
}
