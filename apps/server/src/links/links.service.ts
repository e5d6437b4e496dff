import type { LinkColumnsReply, planLinks, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { type FieldValue, findAllowedLinks, findLinkKind, getKind, isAllowed, counted } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { checkFields, cleanFields, hiddenFields } from '../items/check-fields.js';
import { getNode } from '../project-state/get-node.js';
import type { Change, LinkValue } from '../ledger/change.js';
import { presentBase } from '../http/caller.js';
import { PersonsService } from '../persons/persons.service.js';
import { assertSeen } from '../ledger/assert-seen.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LedgerService } from '../changes/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { confirmLink, meaningAt } from '../link-rows/edit-link.js';
import { UsageFinder } from '../link-rows/usage-finder.js';
import { ProjectStates } from '../project-state/project-states.js';

/** Links that are planned at once, and refusals of each kind that are told. */
const MOST_PLANNED = 5000;
const MOST_SAID = 20;

export interface WantedLink {
  linkKind: string;
  from: string;
  to: string;
  /** Ids of items from a root down to the end, where the link holds in that usage only. */
  fromUsage?: readonly string[] | undefined;
  toUsage?: readonly string[] | undefined;
}

/** Makes, removes and confirms links. */
@Injectable()
export class LinksService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Live links between two sides, each a list of collection ids or kinds parted by commas; every link when nothing is asked. */
  async list(projectId: string, left: string | undefined, right: string | undefined): Promise<LinkColumnsReply> {
    const state = await this.states.get(projectId);
    const { graph } = state;
    const isLeft = buildSide(state, left);
    const isRight = buildSide(state, right);
    const reply: LinkColumnsReply = {
      seq: state.seq,
      life: state.life,
      id: [],
      from: [],
      to: [],
      kind: [],
      suspect: [],
      usages: [],
      usagePaths: [],
      fromUsage: [],
      toUsage: [],
    };
    const used = new Map<string, number>();
    const placeOf = (usage: string | null | undefined) => {
      if (!usage) return -1;
      if (!used.has(usage)) {
        used.set(usage, reply.usages.push(state.usages.say(usage)) - 1);
        reply.usagePaths.push([...state.usages.pathOf(usage)]);
      }
      return used.get(usage)!;
    };
    const inUsages = state.usages.size > 0;
    for (let link = 0; link < graph.links; link++) {
      if (!graph.isAlive(link)) continue;
      const from = graph.from[link]!;
      const to = graph.to[link]!;
      if (!(isLeft[from]! & isRight[to]!) && !(isLeft[to]! & isRight[from]!)) continue;
      reply.id.push(state.linkIds.at(link));
      reply.from.push(from);
      reply.to.push(to);
      reply.kind.push(graph.kind[link]!);
      reply.suspect.push(graph.isSuspect(link) ? 1 : 0);
      if (!inUsages) continue;
      const usage = state.linkUsage(link);
      reply.fromUsage.push(placeOf(usage?.from));
      reply.toUsage.push(placeOf(usage?.to));
    }
    return reply;
  }

  create(projectId: string, person: string, wanted: readonly WantedLink[], origin: string, skipRefused = false): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const usages = new UsageFinder(state, this.clock.newId);
      const made = new Set<string>();
      const links: Change[] = [];
      for (const one of wanted)
        try {
          const after = this.build(state, person, one, origin, usages);
          const says = `${after.kind} ${after.fromId} ${after.toId} ${after.fromUsage} ${after.toUsage}`;
          if (made.has(says)) throw new CoombError('link-exists', `${referenceOf(state, one.from)} and ${referenceOf(state, one.to)} stand in the list twice.`);
          made.add(says);
          links.push({ entity: 'link', before: null, after });
        } catch (refusal) {
          if (!skipRefused || !(refusal instanceof CoombError)) throw refusal;
        }
      const first = wanted[0]!;
      const action =
        wanted.length === 1 && links.length === 1
          ? `Link ${referenceOf(state, first.from)} ${findLinkKind(state.scheme, first.linkKind)!.phrase} ${referenceOf(state, first.to)}`
          : `Make ${counted(links.length, 'link')}`;
      return { person, action, changes: links.length > 0 ? [...links, ...usages.made] : [] };
    });
  }

  /** What each kind of link would make of some items with others, each with each; kinds that would make none are left out, unless all would. */
  async plan(projectId: string, left: readonly string[], right: readonly string[]): Promise<ReplyOf<typeof planLinks>> {
    if (left.length * right.length > MOST_PLANNED)
      throw new CoombError('input-invalid', `${left.length} × ${right.length} links are too many to be made at once; at most ${MOST_PLANNED} are.`);
    const state = await this.states.get(projectId);
    const usages = new UsageFinder(state, this.clock.newId);
    const kindOf = (id: string) => state.items[getNode(state, id)]!.kind;
    const [leftKinds, rightKinds] = [new Set(left.map(kindOf)), new Set(right.map(kindOf))];
    const ways = new Map<string, { linkKind: string; reversed: boolean }>();
    for (const a of leftKinds)
      for (const b of rightKinds)
        for (const { linkKind, reversed } of findAllowedLinks(state.scheme, a, b)) ways.set(`${linkKind.id} ${reversed}`, { linkKind: linkKind.id, reversed });
    const plans = [...ways.values()].map((way) => {
      const plan = { ...way, makes: 0, refused: 0, says: [] as string[] };
      for (const a of left)
        for (const b of right)
          try {
            const [from, to] = way.reversed ? [b, a] : [a, b];
            this.build(state, '', { linkKind: way.linkKind, from, to }, 'made', usages);
            plan.makes++;
          } catch (refusal) {
            if (!(refusal instanceof CoombError)) throw refusal;
            plan.refused++;
            if (plan.says.length < MOST_SAID) plan.says.push(refusal.message);
          }
      return plan;
    });
    const able = plans.filter(({ makes }) => makes > 0);
    return (able.length > 0 ? able : plans).sort((a, b) => b.makes - a.makes);
  }

  /** A new link row; refuses what is not allowed or stands already. */
  build(state: ProjectState, person: string, { linkKind, from, to, ...wanted }: WantedLink, origin: string, usages: UsageFinder): LinkValue {
    const kind = findLinkKind(state.scheme, linkKind);
    if (!kind)
      throw new CoombError('input-invalid', `There is no link kind "${linkKind}"; there are ${state.scheme.linkKinds.map((one) => one.id).join(', ')}.`);
    const fromNode = getNode(state, from);
    const toNode = getNode(state, to);
    const a = state.items[fromNode]!;
    const b = state.items[toNode]!;
    if (fromNode === toNode) throw new CoombError('link-not-allowed', `${a.reference} cannot be linked to itself.`);
    if (a.withdrawn || b.withdrawn)
      throw new CoombError('link-not-allowed', `${a.withdrawn ? a.reference : b.reference} is withdrawn. Restore it before linking it.`);
    if (!isAllowed(kind, a.kind, b.kind))
      throw new CoombError(
        'link-not-allowed',
        `"${kind.phrase}" does not join ${getKind(state.scheme, a.kind).label.toLowerCase()} ${a.reference} with ${getKind(state.scheme, b.kind).label.toLowerCase()} ${b.reference}.`,
      );
    const kindIndex = state.linkKindIndex(linkKind);
    const [fromUsage, toUsage] = [usages.find(a, wanted.fromUsage), usages.find(b, wanted.toUsage)];
    const standing = state.graph.findLinks(fromNode, 'out', kindIndex).filter((link) => state.graph.to[link] === toNode);
    // A link that holds in all usages, or in the same, says it already; one in another usage is another link.
    const covers = (known: string | null, asked: string | null) => known === null || known === asked;
    if (standing.some((link) => covers(state.linkUsage(link)?.from ?? null, fromUsage) && covers(state.linkUsage(link)?.to ?? null, toUsage)))
      throw new CoombError('link-exists', `${a.reference} ${kind.phrase} ${b.reference} already.`);
    const now = this.clock.now().toISOString();
    return {
      id: this.clock.newId(),
      projectId: state.id,
      revision: 1,
      withdrawn: false,
      kind: linkKind,
      fromId: a.id,
      toId: b.id,
      fromUsage,
      toUsage,
      fields: {},
      origin,
      fromSeq: state.meaningOf(a, wanted.fromUsage),
      toSeq: state.meaningOf(b, wanted.toUsage),
      confirmedBy: person,
      confirmedAt: now,
    };
  }

  /** Changes fields of a link. Refuses fields that its kind has not, values that they do not take, and a link that was changed meanwhile. */
  edit(
    projectId: string,
    person: string,
    id: string,
    wanted: { revision: number; fields: Record<string, FieldValue> },
  ): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const before = (await this.rows.findRows('link', [id])).get(id);
      if (!before || before.projectId !== projectId || before.withdrawn) throw new CoombError('not-found', `There is no link ${id}.`);
      if (before.revision !== wanted.revision)
        throw new CoombError('changed-meanwhile', 'This link was changed by somebody else while you changed it. Look at it again before you keep yours.', {
          revision: before.revision,
          fields: before.fields,
        });
      const kind = findLinkKind(state.scheme, before.kind);
      const own = { ...state.scheme, kinds: [{ id: before.kind, label: '', plural: '', layer: '', fields: kind?.fields ?? [] }] };
      checkFields(own, before.kind, wanted.fields);
      const unknown = Object.keys(wanted.fields).find((field) => !kind?.fields?.some((one) => one.id === field));
      if (unknown !== undefined)
        throw new CoombError('input-invalid', `fields.${unknown}: links that read "${kind?.phrase ?? before.kind}" have no such field.`);
      const fields = { ...hiddenFields(own, before.kind, before.fields), ...cleanFields(own, before.kind, { ...before.fields, ...wanted.fields }) };
      const action = `Change the link from ${referenceOf(state, before.fromId)} to ${referenceOf(state, before.toId)}`;
      return { person, action, changes: [{ entity: 'link', before, after: { ...before, fields, revision: before.revision + 1 } }] };
    });
  }

  /** Refuses links that others changed since they were seen. */
  remove(projectId: string, person: string, ids: readonly string[]): Promise<{ seq: number; ids: string[] }> {
    const plan = (state: ProjectState, rows: LinkValue[]) => ({
      action:
        rows.length === 1
          ? `Remove the link from ${referenceOf(state, rows[0]!.fromId)} to ${referenceOf(state, rows[0]!.toId)}`
          : `Remove ${counted(rows.length, 'link')}`,
      after: (row: LinkValue) => ({ ...row, withdrawn: true }),
    });
    return this.changeRows(projectId, person, ids, plan, (state, rows) =>
      assertSeen(
        { rows: this.rows, persons: this.persons },
        state,
        person,
        new Map(rows.map((row) => [row.id, `the link from ${referenceOf(state, row.fromId)} to ${referenceOf(state, row.toId)}`])),
      ),
    );
  }

  /** Says that links hold against what their ends say now. Refuses where an end came to say something else since whoever confirms had looked. */
  confirm(projectId: string, person: string, ids: readonly string[], reason = ''): Promise<{ seq: number; ids: string[] }> {
    const plan = (state: ProjectState, rows: LinkValue[]) => ({
      action: `Confirm ${
        rows.length === 1 ? `the link from ${referenceOf(state, rows[0]!.fromId)} to ${referenceOf(state, rows[0]!.toId)}` : counted(rows.length, 'link')
      }${reason && `: ${reason}`}`,
      after: (row: LinkValue) => confirmLink(state, row, person, this.clock.now().toISOString()),
    });
    return this.changeRows(projectId, person, ids, plan, (state, rows) => {
      const base = presentBase();
      if (base === undefined) return;
      const ends = rows.flatMap((row) => [
        { id: row.fromId, usage: row.fromUsage },
        { id: row.toId, usage: row.toUsage },
      ]);
      const newer = [...new Set(ends.filter(({ id, usage }) => meaningAt(state, id, usage) > base).map(({ id }) => id))];
      if (newer.length === 0) return;
      throw new CoombError(
        'changed-meanwhile',
        `${newer
          .slice(0, 5)
          .map((id) => referenceOf(state, id))
          .join(', ')} came to say something else since you looked. Nothing was confirmed; read the difference again.`,
        { changed: newer },
      );
    });
  }

  private changeRows(
    projectId: string,
    person: string,
    ids: readonly string[],
    plan: (state: ProjectState, rows: LinkValue[]) => { action: string; after: (row: LinkValue) => LinkValue },
    check: (state: ProjectState, rows: LinkValue[]) => Promise<void> | void,
  ): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const rows = [...(await this.rows.findRows('link', ids)).values()].filter((row) => row.projectId === projectId && !row.withdrawn);
      if (rows.length < ids.length) throw new CoombError('not-found', `${ids.length - rows.length} of ${ids.length} links are not there any more. Look again.`);
      await check(state, rows);
      const { action, after } = plan(state, rows);
      return { person, action, changes: rows.map((row): Change => ({ entity: 'link', before: row, after: { ...after(row), revision: row.revision + 1 } })) };
    });
  }
}

/** 1 for the present items of a side: looked up once per item, not once per link. */
function buildSide(state: ProjectState, side: string | undefined): Uint8Array {
  const wanted = side ? new Set(side.split(',')) : undefined;
  return Uint8Array.from(state.items, ({ withdrawn, collectionId, kind }) => Number(!withdrawn && (!wanted || wanted.has(collectionId) || wanted.has(kind))));
}

function referenceOf(state: ProjectState, id: string): string {
  return state.items[getNode(state, id)]!.reference;
}
