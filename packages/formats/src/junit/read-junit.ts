import type { Issue, Outcome } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { inChunks, localName, walkXml } from '../xml/walk-xml.js';

/** One reported case of a JUnit XML file. */
export interface JunitCase {
  suite: string;
  name: string;
  outcome: Outcome;
  /** Seconds, when given. */
  duration: number | null;
  message: string;
  properties: string[];
  line: number;
}

export interface JunitReading {
  name: string;
  /** ISO time of the first suite, when given. */
  at: string | null;
  cases: JunitCase[];
  issues: Issue[];
}

const OUTCOMES: Record<string, Outcome> = { failure: 'failed', error: 'broken', skipped: 'skipped' };

/** Reads JUnit XML with one or many suites, nested or not. Throws ReadError when it is something else. */
export async function readJunit(bytes: Uint8Array): Promise<JunitReading> {
  const reading: JunitReading = { name: '', at: null, cases: [], issues: [] };
  const suites: string[] = [];
  let current: JunitCase | undefined;
  let inMessage = false;
  let root = '';
  await walkXml(inChunks(bytes), {
    open(name, attributes, line) {
      const local = localName(name);
      root ||= local;
      if (local === 'testsuites' || local === 'testsuite') {
        reading.name ||= attributes.name ?? '';
        reading.at ??= attributes.timestamp ?? null;
        if (local === 'testsuite') suites.push(attributes.name ?? '');
      } else if (local === 'testcase') {
        const duration = Number(attributes.time);
        current = {
          suite: attributes.classname || suites.at(-1) || '',
          name: attributes.name ?? '',
          outcome: 'passed',
          duration: attributes.time && Number.isFinite(duration) ? duration : null,
          message: '',
          properties: [],
          line,
        };
        if (!attributes.name)
          reading.issues.push({
            severity: 'warning',
            code: 'case-unnamed',
            at: `line ${line}`,
            message: 'A test case has no name; it can be matched by its properties only',
          });
      } else if (current && OUTCOMES[local]) {
        current.outcome = OUTCOMES[local]!;
        current.message = attributes.message ?? '';
        inMessage = true;
      } else if (current && local === 'property' && attributes.value) current.properties.push(attributes.value);
    },
    close(name) {
      const local = localName(name);
      if (local === 'testsuite') suites.pop();
      if (OUTCOMES[local]) inMessage = false;
      if (local === 'testcase' && current) {
        current.message = current.message.trim().slice(0, 4000);
        reading.cases.push(current);
        current = undefined;
      }
    },
    text(text) {
      if (inMessage && current && current.message.length < 4000) current.message += text;
    },
  });
  if (root !== 'testsuites' && root !== 'testsuite')
    throw new ReadError('not-junit', `The file is XML, but starts with <${root}>, not with <testsuites> or <testsuite>.`);
  return reading;
}
