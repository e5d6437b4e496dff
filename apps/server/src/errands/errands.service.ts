import { type BodyOf, CoombError, type giveErrands, type listErrands, type ReplyOf } from '@coomb/contract';
import { counted } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { FindingsService } from '../findings/findings.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, ErrandValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { PersonsService } from '../persons/persons.service.js';
import { getNode } from '../project-state/get-node.js';
import { ProjectStates } from '../project-state/project-states.js';
import { describeErrand } from '../project-state/describe-errand.js';

type About = NonNullable<BodyOf<typeof giveErrands>>['about'][number];

const nameOf = ({ sort, itemId, linkId, finding }: Pick<ErrandValue, 'sort' | 'itemId' | 'linkId' | 'finding'>) => `${sort} ${itemId} ${linkId} ${finding}`;

/** What people took on or were handed. One thing is in one hand at a time. */
@Injectable()
export class ErrandsService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly reader: LedgerReader,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(FindingsService) private readonly findings: FindingsService,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(projectId: string, { owner, done }: { owner?: string | undefined; done: 'no' | 'all' }): Promise<ReplyOf<typeof listErrands>> {
    const state = await this.states.get(projectId);
    const all = await this.reader.findAll(projectId, 'errand');
    const wanted = owner === undefined ? undefined : this.persons.findByName(owner);
    const keys = new Set((await this.findings.find(state)).flatMap(({ found }) => found.map(({ key }) => key)));
    const { rowOf } = state.outline();
    const rankOf = ({ itemId }: ErrandValue) => rowOf[state.nodeOf.get(itemId) ?? -1] ?? 0;
    return all
      .filter((one) => (done === 'all' || !one.done) && (owner === undefined || one.owner === wanted))
      .sort((a, b) => Date.parse(b.at) - Date.parse(a.at) || rankOf(a) - rankOf(b))
      .map((one) => ({ ...describeErrand(one), about: state.brief(getNode(state, one.itemId)), stands: one.finding === null ? null : keys.has(one.finding) }));
  }

  async give(
    projectId: string,
    person: string,
    { sort, owner: name, note, about }: Required<Omit<NonNullable<BodyOf<typeof giveErrands>>, 'about'>> & { about: About[] },
  ): Promise<{ seq: number; ids: string[] }> {
    const owner = await this.persons.getByName(name);
    return this.ledger.change(projectId, async (state) => {
      const open = (await this.reader.findAll(projectId, 'errand')).filter((one) => !one.done);
      const known = new Map(open.map((one) => [nameOf(one), one]));
      const at = this.clock.now().toISOString();
      const changes = new Map<string, Change>();
      for (const { item, link = null, finding = null } of about) {
        const { id: itemId } = state.items[getNode(state, item)]!;
        if (link !== null && state.linkIds.find(link) === undefined) throw new CoombError('not-found', `There is no link ${link} in this project.`);
        const said = { sort, itemId, linkId: link, finding };
        const before = known.get(nameOf(said)) ?? null;
        if (before?.owner === owner && before.note === note) continue;
        const after: ErrandValue = before
          ? { ...before, owner, note, giver: person, at, revision: before.revision + 1 }
          : { id: this.clock.newId(), projectId, revision: 1, withdrawn: false, ...said, owner, note, giver: person, at, done: false };
        changes.set(nameOf(said), { entity: 'errand', before, after });
      }
      const first = state.items[getNode(state, about[0]!.item)]!.reference;
      const what = about.length === 1 ? first : counted(about.length, 'thing');
      return { person, action: owner === person ? `Take on ${what}` : `Hand ${what} to ${name}`, changes: [...changes.values()] };
    });
  }

  settle(projectId: string, person: string, ids: readonly string[], done: boolean): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async () => {
      const rows = [...(await this.rows.findRows('errand', ids)).values()].filter((row) => row.projectId === projectId && !row.withdrawn);
      if (rows.length < ids.length) throw new CoombError('not-found', `${ids.length - rows.length} of ${ids.length} are not there any more. Look again.`);
      const changes = rows
        .filter((row) => row.done !== done)
        .map((before): Change => ({ entity: 'errand', before, after: { ...before, done, revision: before.revision + 1 } }));
      return { person, action: `${done ? 'Done' : 'Not done after all'}: ${counted(rows.length, 'thing')} in hand`, changes };
    });
  }
}
