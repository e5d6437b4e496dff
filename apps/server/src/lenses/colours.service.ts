import { CoombError, readKeyText, type readColours, type ReplyOf } from '@coomb/contract';
import { colourerOf, findLinkOffer, findOffer, linkColourerOf } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LinkFactsKeeper } from '../link-rows/link-facts.js';
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
    @Inject(LinkFactsKeeper) private readonly linkFacts: LinkFactsKeeper,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
  ) {}

  async read(projectId: string, id: string): Promise<ReplyOf<typeof readColours>> {
    const state = await this.states.get(projectId);
    // As it is kept now, whatever moment is looked at.
    const row = (await this.rows.findRows('savedView', [id])).get(id);
    const key = row && !row.withdrawn && row.projectId === projectId && row.sort === 'colourKey' ? readKeyText(String(row.body.key)) : undefined;
    if (!row || !key) throw new CoombError('not-found', 'This colour key is not kept any more. Choose another, or none.');
    const about = key.about ?? 'items';
    const items: string[][] = key.entries.map(() => []);
    const links = { from: [] as number[], to: [] as number[], kind: [] as number[], entry: [] as number[] };
    const counts = key.entries.map(() => 0);
    const unkeyed = new Map<string, number>();
    const count = ({ entry, value }: { entry: number; value: string }): boolean => {
      if (entry >= 0) counts[entry]!++;
      else if (value !== '') unkeyed.set(value, (unkeyed.get(value) ?? 0) + 1);
      return entry >= 0;
    };
    if (about === 'items') {
      const colour = colourerOf(await this.grounds.find(state), key);
      if (colour)
        for (let node = 0; node < state.items.length; node++) {
          const { heading, withdrawn, reference } = state.items[node]!;
          if (heading || withdrawn) continue;
          const told = colour(node);
          if (count(told)) items[told.entry]!.push(reference);
        }
    } else {
      const colour = linkColourerOf(state.scheme, key);
      const { graph } = state;
      const facts = key.shown.sort === 'linkField' ? await this.linkFacts.find(state) : undefined;
      for (let link = 0; colour && link < graph.links; link++) {
        if (!graph.isAlive(link)) continue;
        const [from, to, kind] = [graph.from[link]!, graph.to[link]!, graph.kind[link]!];
        if (!state.isPresent(from) || !state.isPresent(to)) continue;
        const told = colour({ kind, suspect: graph.isSuspect(link), fields: facts?.fields.get(link) ?? {} });
        if (!count(told)) continue;
        links.from.push(from);
        links.to.push(to);
        links.kind.push(kind);
        links.entry.push(told.entry);
      }
    }
    const offer = about === 'items' ? findOffer(state.scheme, key.shown) : findLinkOffer(state.scheme, key.shown);
    return {
      ...{ seq: state.seq, name: row.name, about, of: offer?.label ?? null, items, links },
      entries: key.entries.map(({ label, ...entry }, at) => ({
        ...entry,
        label: label ?? (entry.value || (key.ranges ? 'above' : 'not said')),
        count: counts[at]!,
      })),
      unkeyed: [...unkeyed]
        .map(([value, times]) => ({ value, count: times }))
        .sort((a, b) => b.count - a.count)
        .slice(0, MOST_TOLD),
    };
  }
}
