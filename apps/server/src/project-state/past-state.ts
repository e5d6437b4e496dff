import { CoombError } from '@coomb/contract';
import { dayOf } from '../http/clock.js';
import type { Change, Entities, Entity, LinkValue } from '../ledger/change.js';
import type { LedgerRepo } from '../ledger/ledger.repo.js';
import type { PastRepo } from '../ledger/past.repo.js';
import { ProjectState } from './project-state.js';
import type { ProjectStateRepo } from './project-state.repo.js';

interface Sources {
  states: ProjectStateRepo;
  rows: LedgerRepo;
  past: PastRepo;
}

/** What a project in memory is made of, apart from items and links. */
const few = ['project', 'collection', 'set', 'usage', 'schemePart', 'source', 'waiver'] as const satisfies readonly Entity[];

/**
 * A project as it stood right after a change: a snapshot of the present one, with everything that changed later put back; what changes while
 * that is read was changed later too. Costs what changed since. Waivers hold as they held on the day of that change. Refuses a change that is not there.
 */
export async function loadPast(present: ProjectState, seq: number, { states, rows, past }: Sources): Promise<ProjectState> {
  const { id } = present;
  const parts = present.snapshot();
  const span = { seq, last: present.seq };
  const moment = await past.findMoment(id, seq);
  if (!moment) throw new CoombError('not-found', `There is no change ${seq} in this project.`);
  const changes: Change[] = [];
  for (const entity of few) {
    const then = await past.findChangedLater(id, span, entity);
    const now = await rows.findRows(entity, [...then.keys()]);
    changes.push(...[...then].map(([one, row]) => putBack(entity, now.get(one)!, row)));
  }
  const items = await past.findChangedLater(id, span, 'item', ['html', 'exchanged']);
  const links = await past.findChangedLater(id, span, 'link', ['fields', 'confirmedBy', 'confirmedAt']);
  const live = async <E extends 'run' | 'source'>(entity: E) => [...(await past.findAll(id, seq, entity)).values()].filter((row) => !row.withdrawn);
  const latest = await states.loadLatest(
    id,
    (await live('run')).map((run) => run.id),
  );
  const sources = (await live('source')).length;
  const state = new ProjectState({ ...parts, day: dayOf(new Date(moment.at)) });
  // A rule of that time may have looked at a field that no rule looks at now: what did not change since is what it is now.
  const scheme = changes.filter((change) => change.entity === 'schemePart');
  if (scheme.length > 0) {
    const then = state.schemeNow.after(scheme);
    state.learnFields(await states.loadFields(id, state.findUnknownFields(then)));
    state.learnDoubtful(await states.loadDoubtful(id, then), then);
  }
  const unborn: string[] = [];
  for (const [one, row] of items) {
    const node = state.nodeOf.get(one);
    // What came after the snapshot is not in it.
    if (node === undefined) continue;
    if (!row) unborn.push(one);
    else {
      row.node = node;
      changes.push(putBack('item', row, row));
    }
  }
  for (const [one, row] of links) changes.push(putBack('link', row ?? gone(one), row));
  state.rewind(changes, unborn, { seq, contentSeq: moment.contentSeq });
  state.latest = latest;
  state.sources = sources;
  return state;
}

function putBack<E extends Entity>(entity: E, now: Entities[E], then: Entities[E] | null): Change {
  return { entity, before: now, after: then ?? { ...now, withdrawn: true } } as Change;
}

/** A link that came later: nothing but that it is not there. */
const gone = (id: string) => ({ id, withdrawn: true, fromId: '', toId: '', kind: '' }) as LinkValue;
