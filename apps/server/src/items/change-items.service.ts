import { type BodyOf, type changeItems, CoombError, type ReplyOf } from '@coomb/contract';
import { counted, fieldTypeOf, getKind, isWithin } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, ItemValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { checkFields, hiddenFields, keepFields } from './check-fields.js';
import { HtmlCleaner } from './clean-html.js';
import { changesMeaning, findSiblings } from './items.service.js';

type Wish = NonNullable<BodyOf<typeof changeItems>>;
type Outcome = ReplyOf<typeof changeItems>;

/** Between two neighbours of an outline. */
const STEP = 1024;

/** Changes many items at once, as one batch. */
@Injectable()
export class ChangeItemsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(HtmlCleaner) private readonly html: HtmlCleaner,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Refuses, unless told to skip them, where any of the items cannot be changed so. A dry run says what would become of each and changes nothing. */
  async change(projectId: string, person: string, { items: ids, change, dryRun, skipRefused }: Wish): Promise<Outcome> {
    const outcome: Outcome = { seq: 0, ids: [], changed: 0, refused: [] };
    const made = await this.ledger.change(projectId, async (state) => {
      outcome.seq = state.seq;
      const known = ids.filter((id) => state.nodeOf.has(id));
      for (const id of ids) if (!state.nodeOf.has(id)) outcome.refused.push({ item: id, says: 'An item is not there any more' });
      // In reading order, so that what is moved keeps its order.
      const { rowOf } = state.outline();
      const inOrder = [...new Set(known)].sort((a, b) => (rowOf[state.nodeOf.get(a)!] ?? 0) - (rowOf[state.nodeOf.get(b)!] ?? 0));
      const rows = await this.rows.findRows('item', inOrder);
      const plan = change.sort === 'field' ? await this.planField(state, change) : planMove(state, change.below, new Set(inOrder));
      const now = this.clock.now().toISOString();
      const changes: Change[] = [];
      for (const id of inOrder) {
        const before = rows.get(id)!;
        const after = before.withdrawn ? `${before.reference} is withdrawn` : plan(before);
        if (typeof after === 'string') outcome.refused.push({ item: id, says: after });
        else if (after !== before) {
          const changed = { ...after, revision: before.revision + 1, changedAt: now, changedBy: person };
          if (changesMeaning(state.scheme, before, changed)) changed.meaningSeq = state.seq + 1;
          changes.push({ entity: 'item', before, after: changed });
        }
      }
      outcome.changed = changes.length;
      if (outcome.refused.length > 0 && !skipRefused && !dryRun)
        throw new CoombError(
          'input-invalid',
          `${counted(outcome.refused.length, 'item')} cannot be changed so: ${outcome.refused
            .slice(0, 3)
            .map(({ says }) => says)
            .join('; ')}.`,
          { refused: outcome.refused },
        );
      const what = counted(changes.length, 'item');
      return { person, action: change.sort === 'field' ? `Set a field of ${what}` : `Move ${what}`, changes: dryRun ? [] : changes };
    });
    return { ...outcome, seq: Math.max(outcome.seq, made.seq), ids: made.ids };
  }

  private async planField(
    state: ProjectState,
    { field: id, value }: Extract<Wish['change'], { sort: 'field' }>,
  ): Promise<(item: ItemValue) => ItemValue | string> {
    const cleaned = new Map<string, typeof value>();
    for (const { fields } of state.scheme.kinds) {
      const field = fields.find((one) => one.id === id);
      if (field && !cleaned.has(field.type))
        cleaned.set(field.type, fieldTypeOf(field.type).rich && typeof value === 'string' ? await this.html.clean(value) : value);
    }
    return (item) => {
      const field = item.heading ? undefined : getKind(state.scheme, item.kind).fields.find((one) => one.id === id);
      if (!field) return `${item.reference} has no such field`;
      try {
        checkFields(state.scheme, item.kind, { [id]: value });
      } catch (refusal) {
        if (refusal instanceof CoombError) return `${item.reference}: ${refusal.message.replace(/^fields\.[^:]*: /, '')}`;
        throw refusal;
      }
      const fields = { ...item.fields, [id]: cleaned.get(field.type)! };
      const kept = { ...hiddenFields(state.scheme, item.kind, fields), ...keepFields(state.scheme, item.kind, fields) };
      return JSON.stringify(kept[id]) === JSON.stringify(item.fields[id]) ? item : { ...item, fields: kept };
    };
  }
}

/** Puts items one after the other behind what stands below a section. */
function planMove(state: ProjectState, below: string | null, moved: ReadonlySet<string>): (item: ItemValue) => ItemValue | string {
  const target = below === null ? undefined : state.items[getNode(state, below)]!;
  if (target?.withdrawn) throw new CoombError('input-invalid', `${target.reference} is withdrawn. Restore it first.`);
  const parentOf = (id: string) => state.items[state.nodeOf.get(id)!]!.parentId;
  const last = new Map<string, number>();
  return (item) => {
    if (target && target.collectionId !== item.collectionId) return `${item.reference} and ${target.reference} stand in different collections`;
    if (target && isWithin(parentOf, target.id, item.id)) return `${item.reference} cannot be moved below itself`;
    // What stands below another one that is moved goes along with it.
    for (let up = item.parentId; up !== null; up = parentOf(up)) if (moved.has(up)) return item;
    if (item.parentId === below) return item;
    const end = last.get(item.collectionId) ?? findSiblings(state, item.collectionId, below).at(-1)?.rank ?? 0;
    last.set(item.collectionId, end + STEP);
    return { ...item, parentId: below, rank: end + STEP };
  };
}
