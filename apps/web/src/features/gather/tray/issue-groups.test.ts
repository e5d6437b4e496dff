import type { Issue } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { groupIssues } from './issue-groups';

const issue = (severity: Issue['severity'], code: string, message = code): Issue => ({ severity, code, at: 'row 1', message });
const many = (count: number, message: (at: number) => string) => Array.from({ length: count }, (_, at) => issue('warning', 'w', message(at)));

describe('remarks', () => {
  it('stand by kind, the worst first', () => {
    const groups = groupIssues([issue('note', 'a'), issue('warning', 'b'), issue('error', 'c'), issue('note', 'a')]);
    expect(groups.map(({ code, issues }) => [code, issues.length])).toEqual([
      ['c', 1],
      ['b', 1],
      ['a', 2],
    ]);
  });

  it('are read one by one while they are few', () => {
    expect(groupIssues(many(6, String))[0]!.summary).toBeUndefined();
  });

  it.each([
    [(at: number) => `"Unit ${at}" is no kind of the project`, '"Unit 0" is no kind of the project …'],
    [() => 'An empty row was skipped', 'An empty row was skipped'],
    [(at: number) => `The field stays empty: ${at}`, 'The field stays empty …'],
    [(at: number) => `${at} x`, '0 x …'],
  ])('are many behind what they have in common', (message, summary) => {
    expect(groupIssues(many(7, message))[0]!.summary).toBe(summary);
  });
});
