import { CoombError, type getLinkDifference, type ReplyOf } from '@coomb/contract';
import { buildWordDiff, type FieldValue, fieldTypeOf, findKind, isNoValue, type Scheme } from '@coomb/core';
import { plainText } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import type { ItemValue, UsageValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { meets } from '../project-state/use-meanings.js';

type End = ReplyOf<typeof getLinkDifference>['ends'][number];

/** Why a link is suspect: what its ends meant when it was last confirmed, against what they mean now. */
@Injectable()
export class LinkDifferenceService {
  constructor(
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LedgerReader) private readonly reader: LedgerReader,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  async get(projectId: string, id: string): Promise<ReplyOf<typeof getLinkDifference>> {
    const state = await this.states.get(projectId);
    const link = (await this.reader.findRows(projectId, 'link', [id])).get(id);
    if (!link) throw new CoombError('not-found', `There is no link ${id}.`);
    const ends = [await this.compare(state, link.fromId, link.fromUsage, link.fromSeq), await this.compare(state, link.toId, link.toUsage, link.toSeq)];
    return { linkKind: link.kind, confirmedBy: link.confirmedBy, ends: ends.filter((end) => end !== undefined) };
  }

  private async compare(state: ProjectState, itemId: string, usage: string | null, seq: number): Promise<End | undefined> {
    const path = usage ? state.usages.pathOf(usage) : undefined;
    const node = state.nodeOf.get(itemId)!;
    const newest = state.meaningOf(state.items[node]!, path);
    if (newest === seq) return undefined;
    const history = await this.rows.findHistory(state.id, 'item', itemId, state.seq);
    const now = (await this.reader.findRows(state.id, 'item', [itemId])).get(itemId)!;
    const rows = history.map(({ change }) => change.after as ItemValue);
    // What was confirmed may have come to be in a use: then the item said what it said by that time.
    const then = rows.find((row) => row.meaningSeq === seq) ?? (history.find(({ batch }) => batch.seq <= seq)?.change.after as ItemValue | undefined);
    const uses = await this.findUses(state, itemId, path, seq);
    const before = then ? [textOf(state.scheme, then), ...uses.map(({ before }) => sayOwn(state, then.kind, before))] : [];
    const after = [textOf(state.scheme, now), ...uses.map(({ now: own }) => sayOwn(state, now.kind, own))];
    const changed = [...history, ...uses.flatMap(({ history: own }) => own)].find(({ batch }) => batch.seq === newest);
    return { item: state.brief(node), words: buildWordDiff(before.join(''), after.join('')), changedBy: changed?.batch.person ?? null };
  }

  /** What is said of an item in uses that the link holds in, then and now. */
  private async findUses(state: ProjectState, itemId: string, path: readonly string[] | undefined, seq: number) {
    const told = [...state.usages.values()].filter((one) => one.itemId === itemId && one.meaningSeq > 0 && (!path || meets(path, one.path)));
    return Promise.all(
      told.map(async (now) => {
        const history = await this.rows.findHistory(state.id, 'usage', now.id, state.seq);
        return { now, history, before: history.find(({ batch }) => batch.seq <= seq)?.change.after as UsageValue | undefined };
      }),
    );
  }
}

function sayOwn(state: ProjectState, kind: string, usage: UsageValue | undefined): string {
  if (!usage || usage.withdrawn) return '';
  return sayFields(state.scheme, kind, usage.fields, ` as ${state.usages.sayPath(usage.path)}`);
}

function textOf(scheme: Scheme, row: ItemValue): string {
  return `${row.title}\n${plainText(row.html)}${sayFields(scheme, row.kind, row.fields, '')}`;
}

/** Fields that bear meaning, each in a line of its own. */
function sayFields(scheme: Scheme, kind: string, values: Record<string, FieldValue>, where: string): string {
  const fields = findKind(scheme, kind)?.fields.filter((field) => field.meaning && !isNoValue(values[field.id] ?? null)) ?? [];
  return fields
    .map((field) => {
      const { rich, write } = fieldTypeOf(field.type);
      const said = write(values[field.id]!);
      return `\n${field.label}${where}: ${rich ? plainText(said) : said}${field.unit ? ` ${field.unit}` : ''}`;
    })
    .join('');
}
