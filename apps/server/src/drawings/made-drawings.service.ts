import type { BodyOf, keepDrawing, placeDrawing, planDrawing, ReplyOf, TracePlaceReply } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import {
  counted,
  drawMade,
  type DrawnBody,
  fieldTypeOf,
  findKindOfRole,
  findMadeSort,
  getKind,
  type HandPlaces,
  isNoValue,
  type MadeDefinition,
  type MadeGraph,
  type MadeNode,
  offeredLinkKinds,
  placeByHand,
  placeTree,
  sizeOf,
} from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { ItemsRepo } from '../items/items.repo.js';
import { ItemsService } from '../items/items.service.js';
import type { DrawingValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { TraceTreeService } from '../trace-tree/trace-tree.service.js';
import { buildMadeGround } from './made-ground.js';

type Keep = NonNullable<BodyOf<typeof keepDrawing>>;
type Place = NonNullable<BodyOf<typeof placeDrawing>>;

/** A kept drawing as it is now. */
export interface MadeNow {
  body: Pick<DrawnBody, 'shapes' | 'routes'>;
  /** What it showed when it was last placed and shows no more, and what it shows since. */
  gone: string[];
  fresh: string[];
  cut: boolean;
}

/** Drawings that are made here: what they show follows from the project as it is, where people placed things is kept. */
@Injectable()
export class MadeDrawingsService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(ItemsRepo) private readonly repo: ItemsRepo,
    @Inject(TraceTreeService) private readonly traces: TraceTreeService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Refuses what is about something that is not there. */
  async plan(projectId: string, definition: MadeDefinition): Promise<ReplyOf<typeof planDrawing>> {
    const state = await this.states.get(projectId);
    const graph = await this.build(state, definition);
    if (!graph) throw new CoombError('not-found', 'What this drawing would be about is not there any more. Choose again.');
    return graph;
  }

  async keep(projectId: string, person: string, { name, definition, hand = {} }: Keep): Promise<ReplyOf<typeof keepDrawing>> {
    let kept = { drawing: '', item: '' };
    await this.ledger.change(projectId, async (state) => {
      const graph = await this.build(state, definition);
      if (!graph) throw new CoombError('not-found', 'What this drawing would be about is not there any more. Choose again.');
      const kind = findKindOfRole(state.scheme, 'drawing');
      if (!kind) throw new CoombError('input-invalid', 'The scheme has no kind that plays the part of drawings. Give one that part first.');
      const { row, moved } = await this.items.planCreate(state, person, { title: name, kind: kind.id, ...findPlace(state, definition, kind.home) });
      const drawing: DrawingValue = {
        ...{ id: this.clock.newId(), projectId, revision: 1, withdrawn: false },
        ...{
          collectionId: row.collectionId,
          itemId: row.id,
          name,
          externalId: '',
          body: { ...this.draw(state, definition, graph, hand), made: { definition, hand } },
        },
      };
      kept = { drawing: drawing.id, item: row.id };
      return {
        person,
        action: `Keep the drawing "${name}"`,
        changes: [{ entity: 'item', before: null, after: row }, ...moved, { entity: 'drawing', before: null, after: drawing }],
      };
    });
    return kept;
  }

  /** Refuses a drawing that is not made here, and one that somebody else placed meanwhile. */
  async place(projectId: string, person: string, id: string, wanted: Place): Promise<ReplyOf<typeof placeDrawing>> {
    let revision = 0;
    await this.ledger.change(projectId, async (state) => {
      const before = (await this.rows.findRows('drawing', [id])).get(id);
      if (!before?.body.made || before.projectId !== projectId || before.withdrawn)
        throw new CoombError('not-found', 'This drawing is not there any more, or was not made here.');
      if (before.revision !== wanted.revision)
        throw new CoombError('changed-meanwhile', 'Somebody else placed things in this drawing meanwhile. It is shown as they left it; place yours again.', {
          revision: before.revision,
        });
      const definition = wanted.definition ?? before.body.made.definition;
      const graph = await this.build(state, definition);
      if (!graph) throw new CoombError('not-found', 'What this drawing is about is not there any more.');
      revision = before.revision + 1;
      const { boxes } = before.body;
      const body = { ...this.draw(state, definition, graph, wanted.hand), ...(boxes && { boxes }), made: { definition, hand: wanted.hand } };
      return { person, action: `Place the drawing "${before.name}"`, changes: [{ entity: 'drawing', before, after: { ...before, body, revision } }] };
    });
    return { revision };
  }

  /** A kept drawing as the project is now; as it was kept where what it is about is gone. */
  async show(state: ProjectState, { body }: DrawingValue): Promise<MadeNow> {
    const { definition, hand } = body.made!;
    const graph = await this.build(state, definition);
    if (!graph) return { body, gone: body.shapes.map(({ name }) => name), fresh: [], cut: false };
    const now = this.draw(state, definition, graph, hand);
    const [before, after] = [new Set(body.shapes.map(({ id }) => id)), new Set(now.shapes.map(({ id }) => id))];
    return {
      body: now,
      gone: body.shapes.filter(({ id }) => !after.has(id)).map(({ name }) => name),
      fresh: now.shapes.filter(({ id }) => !before.has(id)).map(({ id }) => id),
      cut: graph.cut,
    };
  }

  private draw(state: ProjectState, { sort }: MadeDefinition, graph: MadeGraph, hand: HandPlaces): DrawnBody {
    // What nobody placed yet stands in rows, until somebody has it laid out.
    const rows = graph.nodes.map((node, index) => ({ x: (index % 6) * 300, y: Math.floor(index / 6) * 160, ...sizeOf(node) }));
    const boxes = graph.isTree ? placeTree(graph, hand) : placeByHand(graph, rows, hand);
    return { sort: SORT_OF[sort], ...drawMade(graph, boxes, (node) => state.items[node]!.id) };
  }

  private async build(state: ProjectState, definition: MadeDefinition): Promise<MadeGraph | undefined> {
    const graph = definition.sort === 'trace' ? await this.trace(state, definition) : findMadeSort(definition.sort)?.build(buildMadeGround(state), definition);
    if (graph) await this.fill(state, graph.nodes, definition);
    return graph;
  }

  /** Fields and what their source says, for the nodes that are items. */
  private async fill(state: ProjectState, nodes: readonly MadeNode[], { detail }: MadeDefinition): Promise<void> {
    const wanted = (['fields', 'operations'] as const).filter((one) => detail.includes(one));
    if (wanted.length === 0) return;
    const shown = nodes.filter(({ item }) => item >= 0);
    const rows = await this.repo.findMany(
      state.id,
      shown.map(({ item }) => state.items[item]!.id),
    );
    for (const node of shown) {
      const row = rows.get(state.items[node.item]!.id);
      if (!row) continue;
      if (detail.includes('fields')) {
        const lines = getKind(state.scheme, row.kind).fields.flatMap(({ id, label, type, unit }) => {
          const value = row.fields[id];
          if (value === undefined || isNoValue(value) || fieldTypeOf(type).rich) return [];
          return [`${label}: ${Array.isArray(value) ? value.join(', ') : String(value)}${unit ? ` ${unit}` : ''}`];
        });
        if (lines.length > 0) node.parts.push({ title: '', lines });
      }
      if (detail.includes('operations')) {
        const lines = row.details.filter(({ sort }) => sort === 'operation' || sort === 'reception').map(({ text }) => text);
        if (lines.length > 0) node.parts.push({ title: 'operations', lines });
      }
    }
  }

  private async trace(
    state: ProjectState,
    { about, levels, up, without = [], derived = false, opened, closed, detail }: MadeDefinition,
  ): Promise<MadeGraph | undefined> {
    const root = state.nodeOf.get(about);
    if (root === undefined || !state.isPresent(root)) return undefined;
    const kinds = offeredLinkKinds(state.scheme)
      .filter(({ id }) => !without.includes(id))
      .map(({ id }) => id);
    const grown = await this.traces.grow(state.id, {
      item: about,
      kinds,
      up: up ?? levels,
      down: levels,
      derived,
      opened: [...(opened ?? [])],
      closed: [...(closed ?? [])],
    });
    const labels = new Map(state.scheme.kinds.map(({ id, label }) => [id, label.toLowerCase()]));
    const graph: MadeGraph = { nodes: [], edges: [], isTree: true, cut: grown.isCut };
    for (const side of [1, -1] as const) {
      const places = side > 0 ? grown.downstream : grown.upstream;
      const indexOf: number[] = [];
      for (const [at, place] of places.entries()) {
        if (at === 0 && graph.nodes.length > 0) {
          indexOf.push(0);
          continue;
        }
        const branch = place.parent < 0 ? -1 : indexOf[place.parent]!;
        const words = [detail.includes('reference') ? place.item.reference : '', place.again >= 0 ? 'shown before' : (labels.get(place.item.kind) ?? '')];
        const index =
          graph.nodes.push({
            ...{ key: place.key, item: place.item.node, name: place.item.title, keyword: words.filter(Boolean).join(' · '), figure: 'box' },
            ...{ parts: [], branch, inside: -1, ...(side < 0 && branch >= 0 ? { side: -1 as const } : {}) },
          }) - 1;
        indexOf.push(index);
        if (branch >= 0)
          graph.edges.push({
            from: branch,
            to: index,
            label: sayPlace(place),
            links: [],
            derived: place.through !== null,
            suspect: place.suspect,
            start: 'none',
            end: 'none',
          });
      }
    }
    return graph;
  }
}

/** How a place is reached; what it goes through, where that only follows from what is inside. */
const sayPlace = ({ phrase, through }: TracePlaceReply) =>
  through ? `${phrase}: ${through.length > 2 ? counted(through.length, 'thing inside', 'things inside') : through.join(', ')}` : phrase;

/** Where the item of a drawing goes: to what it is about, or to where drawings are at home, or to a model. */
function findPlace(state: ProjectState, { about }: MadeDefinition, home: string | undefined): { collection?: string } {
  const live = state.contents.liveCollections();
  const item = state.items[state.nodeOf.get(about) ?? -1];
  const own = item?.collectionId ?? live.find(({ id }) => id === about)?.id;
  if (own !== undefined) return { collection: own };
  if (live.some(({ id }) => id === home)) return {};
  const model = live.find(({ holds }) => holds === 'model') ?? live[0];
  return model ? { collection: model.id } : {};
}

/** What the notation calls what comes of each sort. */
const SORT_OF: Record<MadeDefinition['sort'], DrawnBody['sort']> = {
  composition: 'class',
  hierarchy: 'other',
  trace: 'requirement',
  context: 'structure',
  useCases: 'useCase',
  flow: 'activity',
  overview: 'package',
};
