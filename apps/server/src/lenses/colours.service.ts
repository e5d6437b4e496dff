import { CoombError, readKeyText, type readColours, type ReplyOf } from '@coomb/contract';
import { colourerOf, findOffer } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { ProjectStates } from '../project-state/project-states.js';
import { RegisterGrounds } from './register-grounds.js';

/** Values without an entry that are told at most. */
const MOST_TOLD = 50;

/** What kept colour keys colour. */
@Injectable()
export class ColoursService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(RegisterGrounds) private readonly grounds: RegisterGrounds,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
  ) {}

  async read(projectId: string, id: string): Promise<ReplyOf<typeof readColours>> {
    const state = await this.states.get(projectId);
    // As it is kept now, whatever moment is looked at.
    const row = (await this.rows.findRows('savedView', [id])).get(id);
    const key = row && !row.withdrawn && row.projectId === projectId && row.sort === 'colourKey' ? readKeyText(String(row.body.key)) : undefined;
    if (!row || !key) throw new CoombError('not-found', 'This colour key is not kept any more. Choose another, or none.');
    const ground = await this.grounds.find(state);
    const colour = colourerOf(ground, key);
    const items: string[][] = key.entries.map(() => []);
    const unkeyed = new Map<string, number>();
    if (colour)
      for (let node = 0; node < state.items.length; node++) {
        const { heading, withdrawn, reference } = state.items[node]!;
        if (heading || withdrawn) continue;
        const { entry, value } = colour(node);
        if (entry >= 0) items[entry]!.push(reference);
        else if (value !== '') unkeyed.set(value, (unkeyed.get(value) ?? 0) + 1);
      }
    return {
      ...{ seq: state.seq, name: row.name, of: colour ? (findOffer(state.scheme, key.shown)?.label ?? null) : null, items },
      entries: key.entries.map(({ value, label, fill }, at) => ({
        value,
        label: label ?? (value || (key.ranges ? 'above' : 'not said')),
        fill,
        count: items[at]!.length,
      })),
      unkeyed: [...unkeyed]
        .map(([value, count]) => ({ value, count }))
        .sort((a, b) => b.count - a.count)
        .slice(0, MOST_TOLD),
    };
  }
}
