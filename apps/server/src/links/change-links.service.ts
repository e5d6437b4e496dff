import { type BodyOf, type changeLinks, CoombError, type ReplyOf } from '@coomb/contract';
import { counted, findLinkKind, getKind, isAllowed } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { checkFields, cleanFields, hiddenFields } from '../items/check-fields.js';
import type { Change, LinkValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { isLinked } from '../link-rows/build-link.js';
import { referencesOf } from '../link-rows/edit-link.js';
import { UsageFinder } from '../link-rows/usage-finder.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';

type Wish = NonNullable<BodyOf<typeof changeLinks>>;
type Outcome = ReplyOf<typeof changeLinks>;

/** Changes many links at once: another kind, values of fields, another item at one end. A link stays who it is. */
@Injectable()
export class ChangeLinksService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Refuses, unless told to skip them, where any of the links cannot be changed so. A dry run says what would become of each and changes nothing. */
  async change(projectId: string, person: string, { links: ids, change, dryRun, skipRefused }: Wish): Promise<Outcome> {
    const outcome: Outcome = { seq: 0, ids: [], changed: 0, refused: [] };
    const made = await this.ledger.change(projectId, async (state) => {
      outcome.seq = state.seq;
      if (change.sort === 'kind' && !findLinkKind(state.scheme, change.linkKind))
        throw new CoombError('input-invalid', `There is no link kind "${change.linkKind}".`);
      const found = await this.rows.findRows('link', ids);
      const usages = new UsageFinder(state, this.clock.newId);
      const changes: Change[] = [];
      const taken = new Set<string>();
      for (const id of ids) {
        const before = found.get(id);
        const after =
          before && before.projectId === projectId && !before.withdrawn ? this.plan(state, person, before, change, usages) : 'is not there any more';
        if (typeof after === 'string')
          outcome.refused.push({ link: id, says: before ? `${referencesOf(state, before).join(' – ')} ${after}` : `A link ${after}` });
        else if (change.sort !== 'fields' && taken.has(sameness(after)))
          outcome.refused.push({ link: id, says: `${referencesOf(state, after).join(' – ')} would be said twice` });
        else if (!isSame(before!, after)) {
          taken.add(sameness(after));
          changes.push({ entity: 'link', before: before!, after: { ...after, revision: before!.revision + 1 } });
        }
      }
      outcome.changed = changes.length;
      if (outcome.refused.length > 0 && !skipRefused && !dryRun)
        throw new CoombError(
          'link-not-allowed',
          `${counted(outcome.refused.length, 'link')} cannot be changed so: ${outcome.refused
            .slice(0, 3)
            .map(({ says }) => says)
            .join('; ')}.`,
          { refused: outcome.refused },
        );
      return { person, action: sayAction(state, change, changes.length), changes: dryRun ? [] : changes.length > 0 ? [...changes, ...usages.made] : [] };
    });
    return { ...outcome, seq: Math.max(outcome.seq, made.seq), ids: made.ids };
  }

  /** The changed row, or why it cannot be: in words that go on from its two references. */
  private plan(state: ProjectState, person: string, link: LinkValue, change: Wish['change'], usages: UsageFinder): LinkValue | string {
    if (change.sort === 'fields') return planFields(state, link, change.fields);
    if (change.sort === 'kind') {
      const kind = findLinkKind(state.scheme, change.linkKind)!;
      const known = new Set(kind.fields?.map(({ id }) => id));
      const fields = Object.fromEntries(Object.entries(link.fields).filter(([id]) => known.has(id)));
      return this.check(state, { ...link, kind: kind.id, fields }, link);
    }
    const node = getNode(state, change.item);
    const item = state.items[node]!;
    if (item.withdrawn) throw new CoombError('link-not-allowed', `${item.reference} is withdrawn. Restore it before linking it.`);
    const usage = usages.find(item, change.usage) ?? null;
    const hung = change.end === 'from' ? { ...link, fromId: item.id, fromUsage: usage } : { ...link, toId: item.id, toUsage: usage };
    const planned = this.check(state, hung, link);
    if (typeof planned === 'string') return planned;
    // The end that is new is confirmed by hanging it there; the other keeps what was known of it.
    const seq = state.meaningOf(item, change.usage);
    const confirmed = { ...planned, confirmedBy: person, confirmedAt: this.clock.now().toISOString() };
    return change.end === 'from' ? { ...confirmed, fromSeq: seq } : { ...confirmed, toSeq: seq };
  }

  private check(state: ProjectState, after: LinkValue, before: LinkValue): LinkValue | string {
    if (isSame(before, after)) return after;
    const kind = findLinkKind(state.scheme, after.kind)!;
    const [from, to] = [state.items[getNode(state, after.fromId)]!, state.items[getNode(state, after.toId)]!];
    if (from.id === to.id) return `would link ${from.reference} to itself`;
    if (!isAllowed(kind, from.kind, to.kind)) {
      const [a, b] = [from, to].map((one) => getKind(state.scheme, one.kind).label.toLowerCase());
      return `cannot be so: "${kind.phrase}" does not join ${a} with ${b}`;
    }
    return isLinked(state, after.kind, after.fromId, after.toId, { from: after.fromUsage, to: after.toUsage })
      ? `would be said twice: ${from.reference} ${kind.phrase} ${to.reference} already`
      : after;
  }
}

function planFields(state: ProjectState, link: LinkValue, fields: LinkValue['fields']): LinkValue | string {
  const kind = findLinkKind(state.scheme, link.kind);
  const own = { ...state.scheme, kinds: [{ id: link.kind, label: '', plural: '', layer: '', fields: kind?.fields ?? [] }] };
  if (Object.keys(fields).some((field) => !kind?.fields?.some(({ id }) => id === field))) return `has no such field: it reads "${kind?.phrase ?? link.kind}"`;
  checkFields(own, link.kind, fields);
  return { ...link, fields: { ...hiddenFields(own, link.kind, link.fields), ...cleanFields(own, link.kind, { ...link.fields, ...fields }) } };
}

const sameness = ({ kind, fromId, toId, fromUsage, toUsage }: LinkValue) => `${kind} ${fromId} ${toId} ${fromUsage} ${toUsage}`;
const isSame = (a: LinkValue, b: LinkValue) => sameness(a) === sameness(b) && JSON.stringify(a.fields) === JSON.stringify(b.fields);

function sayAction(state: ProjectState, change: Wish['change'], count: number): string {
  const links = counted(count, 'link');
  if (change.sort === 'kind') return `Let ${links} read "${findLinkKind(state.scheme, change.linkKind)!.phrase}"`;
  if (change.sort === 'fields') return `Change fields of ${links}`;
  return `Hang ${links} on ${state.items[getNode(state, change.item)]!.reference}`;
}
