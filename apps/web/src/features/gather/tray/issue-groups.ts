import { groupBy, type Issue } from '@coomb/core';

/** Remarks of one kind. */
export interface IssueGroup {
  severity: Issue['severity'];
  code: string;
  /** What they say in common, where they are too many to be read one by one. */
  summary: string | undefined;
  issues: Issue[];
}

const ORDER = { error: 0, warning: 1, note: 2 };
/** So many remarks of a kind are read one by one. */
const MOST_SINGLE = 6;

/** Remarks by kind, the worst first; kinds as they first occur. */
export function groupIssues(issues: readonly Issue[]): IssueGroup[] {
  const groups = [...groupBy(issues, ({ severity, code }) => `${severity} ${code}`).values()];
  return groups
    .map((own) => ({ severity: own[0]!.severity, code: own[0]!.code, summary: own.length > MOST_SINGLE ? findCommonWords(own) : undefined, issues: own }))
    .sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}

/** Words of a message; what stands in quotation marks is one. */
const WORDS = /"[^"]*"\S*|\S+/g;

/** The words that messages share at their start and end, what differs as an ellipsis; the first message where they share too little. */
function findCommonWords(issues: readonly Issue[]): string {
  const lists = issues.map(({ message }): string[] => message.match(WORDS) ?? []);
  const shortest = Math.min(...lists.map((words) => words.length));
  const first: string[] = lists[0]!;
  let start = 0;
  while (start < shortest && lists.every((words) => words[start] === first[start])) start++;
  let end = 0;
  while (end < shortest - start && lists.every((words) => words.at(-1 - end) === first.at(-1 - end))) end++;
  if (start === 0 || start + end < 3) return `${issues[0]!.message} …`;
  return start === first.length ? first.join(' ') : [...first.slice(0, start), '…', ...first.slice(first.length - end)].join(' ').replace(/[:;]? …$/, ' …');
}
