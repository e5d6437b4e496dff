import type { BodyOf, clipPassage, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import {
  buildTitle,
  escapeHtml,
  findAllowedLinks,
  findKind,
  type Issue,
  readFieldValue,
  splitReferences,
  deepestRichText,
  measureDepth,
  fieldTypeOf,
} from '@coomb/core';
import { sanitiseRichText } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { asItem } from '../items/item-reading.service.js';
import { getNode } from '../project-state/get-node.js';
import { cleanFields, hiddenFields } from '../items/check-fields.js';
import { UsageFinder } from '../link-rows/usage-finder.js';
import { changesMeaning, ItemsService } from '../items/items.service.js';
import type { Change, ClippingValue, ItemValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LedgerService } from '../changes/ledger.service.js';
import { LinksService } from '../links/links.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { SourcesService } from './sources.service.js';

type Wish = NonNullable<BodyOf<typeof clipPassage>>;

/** Makes items, parts of items and links of passages of stored documents. */
@Injectable()
export class ClipService {
  constructor(
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(LinksService) private readonly links: LinksService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async clip(projectId: string, person: string, sourceId: string, wish: Wish): Promise<ReplyOf<typeof clipPassage>> {
    const source = await this.sources.getSource(projectId, sourceId);
    if (wish.passages.some(({ start, end }) => end <= start)) throw new CoombError('input-invalid', 'Nothing is selected: the passage ends before it begins.');
    let itemId = '';
    let made = 0;
    const issues: Issue[] = [];
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const changes: Change[] = [];
      let row: ItemValue;
      if (wish.as === 'item' || wish.as === 'child') {
        const planned = await this.planItem(state, person, wish);
        row = { ...planned.row, origin: 'clipped', bindings: [{ partner: source.lineageId ?? source.id, externalId: null, tag: null }] };
        changes.push({ entity: 'item', before: null, after: row }, ...planned.moved);
      } else {
        const before = await this.getCurrent(state, wish);
        row = before;
        if (wish.as === 'field') {
          row = this.fill(state, person, before, wish, issues);
          changes.push({ entity: 'item', before, after: row });
        } else {
          const links = this.planLinks(state, person, before, wish, issues);
          made = links.length;
          changes.push(...links);
        }
      }
      itemId = row.id;
      for (const passage of wish.passages)
        changes.push({ entity: 'clipping', before: null, after: this.buildClipping(projectId, sourceId, row.id, wish, passage) });
      return { person, action: `Clip ${row.reference} from ${source.name}`, changes };
    });
    const state = await this.states.get(projectId);
    const row = (await this.rows.findRows('item', [itemId])).get(itemId)!;
    return { seq, item: asItem(state, state.nodeOf.get(itemId)!, row), links: made, issues };
  }

  remove(projectId: string, person: string, id: string): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async () => {
      const before = (await this.rows.findRows('clipping', [id])).get(id);
      if (!before || before.projectId !== projectId || before.withdrawn) throw new CoombError('not-found', 'This clipping is not there any more.');
      return {
        person,
        action: 'Let a clipped passage go',
        changes: [{ entity: 'clipping', before, after: { ...before, withdrawn: true, revision: before.revision + 1 } }],
      };
    });
  }

  private planItem(state: ProjectState, person: string, wish: Wish): Promise<{ row: ItemValue; moved: Change[] }> {
    const current = wish.item === undefined ? undefined : state.items[getNode(state, wish.item)]!;
    if (wish.as === 'child' && !current) throw new CoombError('input-invalid', 'Say which item the new one goes below: none is current.');
    const fits = current !== undefined && (wish.collection === undefined ? wish.kind === undefined : current.collectionId === wish.collection);
    return this.items.planCreate(state, person, {
      ...(wish.collection !== undefined && { collection: wish.collection }),
      title: buildTitle(wish.passages[0]!.quote),
      html: htmlOf(wish),
      ...(wish.kind && { kind: wish.kind }),
      ...(fits && (wish.as === 'child' ? { parent: current!.id } : { after: current!.id })),
    });
  }

  private async getCurrent(state: ProjectState, wish: Wish): Promise<ItemValue> {
    if (wish.item === undefined) throw new CoombError('input-invalid', 'Say which item the passage belongs to: none is current.');
    const { id } = state.items[getNode(state, wish.item)]!;
    return (await this.rows.findRows('item', [id])).get(id)!;
  }

  private fill(state: ProjectState, person: string, before: ItemValue, wish: Wish, issues: Issue[]): ItemValue {
    const after: ItemValue = { ...before, revision: before.revision + 1, changedAt: this.clock.now().toISOString(), changedBy: person };
    if (wish.field === 'title') after.title = quoteOf(wish).replace(/\s+/g, ' ').slice(0, 500);
    else if (wish.field === undefined || wish.field === 'text') after.html = before.html + htmlOf(wish);
    else {
      const field = findKind(state.scheme, before.kind)?.fields.find((one) => one.id === wish.field);
      if (!field) throw new CoombError('input-invalid', `${before.reference} has no field "${wish.field}".`);
      const read = fieldTypeOf(field.type).rich ? { value: htmlOf(wish) } : readFieldValue(field, quoteOf(wish));
      if ('problem' in read && read.problem) issues.push({ severity: 'warning', code: 'field-value', at: field.label, message: read.problem });
      after.fields = {
        ...hiddenFields(state.scheme, before.kind, before.fields),
        ...cleanFields(state.scheme, before.kind, { ...before.fields, [field.id]: read.value }),
      };
    }
    if (changesMeaning(state.scheme, before, after)) after.meaningSeq = state.seq + 1;
    return after;
  }

  private planLinks(state: ProjectState, person: string, item: ItemValue, wish: Wish, issues: Issue[]): Change[] {
    const references = splitReferences(quoteOf(wish).replace(/\p{L}[\p{L}\s]*:/gu, ' '));
    const usages = new UsageFinder(state, this.clock.newId);
    const changes = references.flatMap((reference): Change[] => {
      const node = state.byReference.get(reference.toLowerCase());
      const other = node === undefined ? undefined : state.items[node]!;
      const allowed = other && findAllowedLinks(state.scheme, item.kind, other.kind).find((one) => !wish.linkKind || one.linkKind.id === wish.linkKind);
      if (!other || !allowed) {
        issues.push({
          severity: 'warning',
          code: 'link-target-unknown',
          at: reference,
          message: other ? `No link kind joins ${item.reference} with ${reference}` : `${reference} is in no collection of the project`,
        });
        return [];
      }
      const [from, to] = allowed.reversed ? [other.id, item.id] : [item.id, other.id];
      return [{ entity: 'link', before: null, after: this.links.build(state, person, { linkKind: allowed.linkKind.id, from, to }, 'clipped', usages) }];
    });
    if (changes.length === 0) throw new CoombError('input-invalid', `No reference in “${quoteOf(wish).slice(0, 80)}” can be linked to ${item.reference}.`);
    return changes;
  }

  private buildClipping(
    projectId: string,
    sourceId: string,
    itemId: string,
    wish: Wish,
    { block, start, end, quote }: Wish['passages'][number],
  ): ClippingValue {
    const field = wish.as === 'field' ? (wish.field ?? 'text') : wish.as === 'link' ? 'link' : 'text';
    return { id: this.clock.newId(), projectId, revision: 1, withdrawn: false, sourceId, itemId, field, block, start, end, quote };
  }
}

/** The words of all passages, as plain text. */
function quoteOf({ passages }: Wish): string {
  return passages.map(({ quote }) => quote).join('\n');
}

/** Formatting that came along is cleaned like any other; without it, a line is a paragraph. */
function htmlOf(wish: Wish): string {
  if (wish.html !== undefined && measureDepth(wish.html) > deepestRichText)
    throw new CoombError('input-invalid', `html: the passage has elements more than ${deepestRichText} deep in one another. Clip a smaller part of it.`);
  if (wish.html !== undefined) return sanitiseRichText(wish.html);
  return quoteOf(wish)
    .split(/\n+/)
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => `<p>${escapeHtml(line)}</p>`)
    .join('');
}
