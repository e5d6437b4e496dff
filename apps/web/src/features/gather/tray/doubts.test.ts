import type { Draft, Issue } from '@coomb/core';
import { expect, it } from 'vitest';
import { findDoubts } from './doubts';

const draft = (key: number, says: string) => ({ key, place: { says } }) as Draft;
const issue = (severity: Issue['severity'], at: string): Issue => ({ severity, code: 'x', at, message: `${severity} at ${at}` });

it('finds the worst remark about each row, whatever part of it the remark names', () => {
  const drafts = [draft(0, 'paragraph 4'), draft(1, 'Reqs, row 12'), draft(2, 'Reqs, row 13'), draft(3, 'table 2, row 3')];
  const issues = [
    issue('note', 'paragraph 4'),
    issue('note', 'Reqs!B12'),
    issue('warning', 'Reqs!AA12'),
    issue('note', 'Reqs!row 13'),
    issue('error', 'table 2'),
  ];
  expect([...findDoubts(drafts, issues)].map(([key, { severity }]) => [key, severity])).toEqual([
    [0, 'note'],
    [1, 'warning'],
    [2, 'note'],
  ]);
});
