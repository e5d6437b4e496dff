import type { ItemValue, LinkValue } from '../ledger/change.js';
import type { ProjectState } from './project-state.js';

interface Values {
  item: ItemValue;
  link: LinkValue;
}

interface Source<E extends keyof Values, Row, Facts> {
  entity: E;
  /** Facts of nothing yet, and how a row is taken into them: one that is read, or one that changed. */
  begin: (state: ProjectState) => { facts: Facts; take: (row: Row | Values[E]) => void };
  /** Every row as it stands. */
  read: (state: ProjectState) => Promise<Iterable<Row>>;
}

/** What is told of all items or links of a project: read once when somebody first asks, and following every change from then on. */
export class FollowedFacts<E extends keyof Values, Row, Facts> {
  private readonly kept = new WeakMap<ProjectState, Promise<Facts>>();

  constructor(private readonly source: Source<E, Row, Facts>) {}

  find(state: ProjectState): Promise<Facts> {
    const known = this.kept.get(state);
    if (known) return known;
    const facts = this.load(state);
    this.kept.set(state, facts);
    facts.catch(() => this.kept.delete(state));
    return facts;
  }

  private async load(state: ProjectState): Promise<Facts> {
    const { facts, take } = this.source.begin(state);
    // What changes while the others are read is newer than what is read.
    const missed: Values[E][] = [];
    let isRead = false;
    state.follow((changes) => {
      for (const { entity, after } of changes)
        if (entity === this.source.entity) {
          if (isRead) take(after as Values[E]);
          else missed.push(after as Values[E]);
        }
    });
    for (const row of await this.source.read(state)) take(row);
    for (const row of missed) take(row);
    isRead = true;
    return facts;
  }
}
