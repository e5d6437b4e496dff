import type { Issue, Outcome } from '@coomb/core';

/** One reported case of a JUnit XML file. */
export interface ResultCase {
  suite: string;
  name: string;
  outcome: Outcome;
  /** Seconds, when given. */
  duration: number | null;
  message: string;
  properties: readonly string[];
  line: number;
}

export interface ResultsReading {
  name: string;
  /** ISO time of the first suite, when given. */
  at: string | null;
  cases: ResultCase[];
  issues: Issue[];
}
