import { CoombError } from '@coomb/contract';
import { presentBase, presentHand } from '../http/caller.js';
import type { PersonsService } from '../persons/persons.service.js';
import type { LedgerRepo } from './ledger.repo.js';

const MOST_NAMED = 5;

/** Refuses to take away what others changed since whoever asks had looked; `things` by id, with what they are called. */
export async function assertSeen(
  { rows, persons }: { rows: LedgerRepo; persons: PersonsService },
  { id, seq }: { id: string; seq: number },
  person: string,
  things: ReadonlyMap<string, string>,
): Promise<void> {
  const base = presentBase();
  if (base === undefined || base >= seq) return;
  const changed = await rows.findChangedByOthers(id, [...things.keys()], base, { person, hand: presentHand() });
  if (changed.size === 0) return;
  const named = [...changed].slice(0, MOST_NAMED).map(([one, by]) => `${things.get(one)} by ${persons.nameOf(by)}`);
  const rest = changed.size > MOST_NAMED ? `, and ${changed.size - MOST_NAMED} more` : '';
  throw new CoombError(
    'changed-meanwhile',
    `Changed since you looked: ${named.join(', ')}${rest}. Nothing was taken away; look at it, and do it again if it still holds.`,
    {
      changed: [...changed].map(([one, by]) => ({ id: one, by: persons.nameOf(by) })),
    },
  );
}
