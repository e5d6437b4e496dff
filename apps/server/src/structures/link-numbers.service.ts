import { CoombError, type readLinkNumbers, type ReplyOf } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { LinkFactsKeeper } from '../link-rows/link-facts.js';
import { ProjectStates } from '../project-state/project-states.js';

/** What links say in fields that hold numbers. */
@Injectable()
export class LinkNumbersService {
  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LinkFactsKeeper) private readonly linkFacts: LinkFactsKeeper,
  ) {}

  async read(project: string, field: string): Promise<ReplyOf<typeof readLinkNumbers>> {
    const state = await this.states.get(project);
    if (!state.scheme.linkKinds.some(({ fields = [] }) => fields.some(({ id, type }) => id === field && type === 'number')))
      throw new CoombError('not-found', 'No kind of link has this field with numbers any more. Weigh dependencies by another, or count them.');
    const { graph } = state;
    const found = { seq: state.seq, from: [] as number[], to: [] as number[], kind: [] as number[], number: [] as number[] };
    for (const [link, fields] of (await this.linkFacts.find(state)).fields) {
      const number = fields?.[field];
      if (typeof number !== 'number' || !graph.isAlive(link)) continue;
      const [from, to] = [graph.from[link]!, graph.to[link]!];
      if (!state.isPresent(from) || !state.isPresent(to)) continue;
      found.from.push(from);
      found.to.push(to);
      found.kind.push(graph.kind[link]!);
      found.number.push(number);
    }
    return found;
  }
}
