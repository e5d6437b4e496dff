import { type BodyOf, CoombError, type pasteLinks, pastedOutcomes, type ReplyOf } from '@coomb/contract';
import { counted, findAllowedLinks, findLinkKind, type PastedLink, phraseAt, readPastedLinks } from '@coomb/core';
import { readCsv, ReadError } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, LinkValue, WaitingEndValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LinkEnds, type LinkEnd } from '../link-rows/link-ends.js';
import { UsageFinder } from '../link-rows/usage-finder.js';
import type { ProjectState } from '../project-state/project-state.js';
import { LinksService } from './links.service.js';

type Wish = NonNullable<BodyOf<typeof pasteLinks>>;
type Reply = ReplyOf<typeof pasteLinks>;
type Row = Reply['rows'][number];
interface Planned extends Row {
  change?: Change;
}

const MOST_ROWS = 20_000;

/** Links from cells of a spreadsheet: what becomes of every row is said before anything is stored. */
@Injectable()
export class PasteLinksService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(LinksService) private readonly links: LinksService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async paste(projectId: string, person: string, wish: Wish): Promise<Reply> {
    const cells = readCells(wish.text);
    const counts = Object.fromEntries(pastedOutcomes.map((outcome) => [outcome, 0])) as Reply['counts'];
    const reply: Reply = { seq: 0, ids: [], shape: 'pairs', counts, rows: [], passed: [] };
    const made = await this.ledger.change(projectId, async (state) => {
      reply.seq = state.seq;
      const phrases = new Map(
        state.scheme.linkKinds.filter(({ retired }) => !retired).flatMap(({ phrase, reverse }) => [phrase, reverse].map((one) => [one.toLowerCase(), one])),
      );
      const ends = new LinkEnds(state, [], projectId);
      const known = new Map<string, LinkEnd | undefined>();
      const find = (text: string) => {
        if (!known.has(text)) {
          const end = ends.find({ target: text });
          known.set(text, 'count' in end ? undefined : end);
        }
        return known.get(text);
      };
      const read = readPastedLinks(cells, { isKnown: (text) => find(text) !== undefined, isPhrase: (text) => phrases.has(text.toLowerCase()) });
      if (read.links.length > MOST_ROWS)
        throw new CoombError('input-invalid', `${counted(read.links.length, 'link')} are too many to be pasted at once; at most ${MOST_ROWS} are.`);
      Object.assign(reply, { shape: read.shape, passed: read.left });
      const usages = new UsageFinder(state, this.clock.newId);
      const waiting = new Set((await this.rows.findAll(projectId, 'waitingEnd')).map(({ itemId, target }) => `${itemId} ${target}`));
      const taken = new Set<string>();
      const changes: Change[] = [];
      for (const link of read.links) {
        const { change, ...row } = this.plan(state, person, wish, link, { left: find(link.left), right: find(link.right), usages, waiting, taken });
        reply.rows.push(row);
        counts[row.outcome]!++;
        if (change) changes.push(change);
      }
      return { person, action: `Paste ${counted(changes.length, 'link')}`, changes: wish.dryRun ? [] : changes };
    });
    return { ...reply, seq: Math.max(reply.seq, made.seq), ids: made.ids };
  }

  private plan(
    state: ProjectState,
    person: string,
    wish: Wish,
    link: PastedLink,
    context: { left: LinkEnd | undefined; right: LinkEnd | undefined; usages: UsageFinder; waiting: Set<string>; taken: Set<string> },
  ): Planned {
    const { line, left, right } = link;
    const row = { line, left, right };
    if (!context.left || !context.right) return { ...row, ...this.planWaiting(state, wish, link, context) };
    const ways = waysOf(state, wish, link, context.left.kind, context.right.kind);
    const [a, b] = [context.left, context.right];
    if (ways.length === 0)
      return { ...row, outcome: 'refused', says: link.kind || wish.linkKind ? 'this kind of link does not join them' : 'no kind of link joins them' };
    if (ways.length > 1) return { ...row, outcome: 'asks', says: `several kinds could be meant: ${ways.map(({ says }) => says).join(', ')}` };
    const [{ linkKind, reversed, says }] = ways as [Way];
    const [from, to] = reversed ? [b, a] : [a, b];
    try {
      const after: LinkValue = this.links.build(state, person, { linkKind, from: from.id, to: to.id }, 'made', context.usages);
      const key = `${linkKind} ${from.id} ${to.id}`;
      if (context.taken.has(key)) return { ...row, outcome: 'stands', says: 'it stands in the cells twice' };
      context.taken.add(key);
      return { ...row, outcome: 'makes', says: `${a.reference} ${says} ${b.reference}`, change: { entity: 'link', before: null, after } };
    } catch (refusal) {
      if (!(refusal instanceof CoombError)) throw refusal;
      return { ...row, outcome: refusal.code === 'link-exists' ? 'stands' : 'refused', says: refusal.message };
    }
  }

  /** Where one of the ends is not there, the other may wait for it. */
  private planWaiting(
    state: ProjectState,
    wish: Wish,
    { left, right, kind }: PastedLink,
    { left: a, right: b, waiting }: { left: LinkEnd | undefined; right: LinkEnd | undefined; waiting: Set<string> },
  ): Pick<Planned, 'outcome' | 'says' | 'change'> {
    const own = a ?? b;
    if (!own) return { outcome: 'unknown', says: `neither ${left} nor ${right} is there` };
    const target = a ? right : left;
    const missing = `there is no ${target}`;
    if (!kind && !wish.linkKind) return { outcome: 'unknown', says: `${missing}; choose a kind of link, and ${own.reference} can wait for it` };
    const isOther = a === undefined;
    const kinds = state.scheme.linkKinds.flatMap((one) => {
      if (one.retired) return [];
      const wanted = kind
        ? [one.phrase, one.reverse].some((phrase) => phrase.toLowerCase() === kind.toLowerCase())
        : !wish.linkKind || one.id === wish.linkKind;
      const turned = kind ? one.reverse.toLowerCase() === kind.toLowerCase() : (wish.linkKind ?? '') === one.id && wish.reversed;
      const isTo = turned !== isOther;
      return wanted && (isTo ? one.toKinds : one.fromKinds).includes(own.kind) ? [{ id: one.id, isTo }] : [];
    });
    const [first] = kinds;
    if (!first) return { outcome: 'unknown', says: missing };
    if (waiting.has(`${own.id} ${target}`)) return { outcome: 'stands', says: `${own.reference} waits for ${target} already` };
    if (!wish.wait) return { outcome: 'unknown', says: `${missing}; ${own.reference} could wait for it` };
    waiting.add(`${own.id} ${target}`);
    const linkKinds = kinds.filter(({ isTo }) => isTo === first.isTo).map(({ id }) => id);
    const after: WaitingEndValue = {
      ...{ id: this.clock.newId(), projectId: state.id, revision: 1, withdrawn: false },
      ...{ itemId: own.id, linkKinds, reversed: first.isTo, target, partner: state.id },
    };
    return { outcome: 'waits', says: `${own.reference} waits for ${target}`, change: { entity: 'waitingEnd', before: null, after } };
  }
}

interface Way {
  linkKind: string;
  reversed: boolean;
  says: string;
}

/** Kinds of link that a row may mean: what its cell says, else what was chosen for all, else what the two allow. */
function waysOf({ scheme }: ProjectState, wish: Wish, { kind }: PastedLink, a: string, b: string): Way[] {
  const allowed = findAllowedLinks(scheme, a, b).map(({ linkKind, reversed }) => ({
    linkKind: linkKind.id,
    reversed,
    says: phraseAt(linkKind, reversed ? 'to' : 'from'),
  }));
  if (kind) return allowed.filter(({ says }) => says.toLowerCase() === kind.toLowerCase());
  if (!wish.linkKind) return allowed;
  if (!findLinkKind(scheme, wish.linkKind)) throw new CoombError('input-invalid', `There is no link kind "${wish.linkKind}".`);
  const own = allowed.filter(({ linkKind }) => linkKind === wish.linkKind);
  return own.length > 1 ? own.filter(({ reversed }) => reversed === wish.reversed) : own;
}

/** Cells as spreadsheets put them on the clipboard: parted by tabs; from elsewhere by whatever they use. */
function readCells(text: string): string[][] {
  try {
    const dialect = text.includes('\t') ? { separator: '\t', quote: '"' } : undefined;
    return readCsv(new TextEncoder().encode(text), 'pasted', dialect).sheets[0]?.rows ?? [];
  } catch (error) {
    if (error instanceof ReadError) throw new CoombError('input-invalid', error.message);
    throw error;
  }
}
