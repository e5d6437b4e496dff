export const severities = ['error', 'warning', 'note'] as const;
export type Severity = (typeof severities)[number];

/** Something doubtful in a file: what, where in the user's own file, and what was done about it. */
export interface Issue {
  severity: Severity;
  code: string;
  /** `paragraph 12`, `table 3, row 4`, `Sheet1!C7`, `line 20`, an element id. */
  at: string;
  message: string;
}
