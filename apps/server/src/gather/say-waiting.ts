import { counted, type Issue } from '@coomb/core';
import type { Change } from '../ledger/change.js';

/** Remarks on ends that wait for a file that may come later, and on those that waited for this one. */
export function sayWaiting(begun: number, joined: number): Issue[] {
  const at = 'the whole file';
  const issues: Issue[] = [];
  if (begun > 0)
    issues.push({
      severity: 'note',
      code: 'ends-wait',
      at,
      message: `${counted(begun, 'link')} ${begun === 1 ? 'waits' : 'wait'} for the files that hold the other end; each becomes a link when its file is imported`,
    });
  if (joined > 0)
    issues.push({
      severity: 'note',
      code: 'ends-joined',
      at,
      message: `${counted(joined, 'end')} that waited for this file ${joined === 1 ? 'is' : 'are'} joined`,
    });
  return issues;
}

/** Ends that changes let wait. */
export const countBegun = (changes: readonly Change[]): number => changes.filter((change) => change.entity === 'waitingEnd' && !change.after.withdrawn).length;
