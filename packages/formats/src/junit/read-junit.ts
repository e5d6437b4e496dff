import { tableOf, type Outcome } from '@coomb/core';
import type { ResultCase, ResultsReading } from '../format/results-reading.js';
import { ReadError } from '../read-error.js';
import { inChunks, localName, walkXml } from '../xml/walk-xml.js';

const OUTCOMES = tableOf<Outcome>({ failure: 'failed', error: 'broken', skipped: 'skipped' });
/** What a case is that has none of these elements but says so in an attribute, as several test runners write it. */
const SAID = tableOf<Outcome>({
  ...Object.fromEntries(['notrun', 'not run', 'disabled', 'suppressed', 'skipped', 'ignored', 'pending', 'inactive'].map((word) => [word, 'skipped' as const])),
  ...Object.fromEntries(['failed', 'failure', 'fail'].map((word) => [word, 'failed' as const])),
  ...Object.fromEntries(['error', 'broken', 'errored', 'aborted', 'timeout'].map((word) => [word, 'broken' as const])),
});
/** The worse outcome counts where a case has several. */
const WORSE: readonly Outcome[] = ['passed', 'skipped', 'broken', 'failed'];
const MOST_LETTERS = 4000;
/** Most cases have no properties: a million of them share this. */
const NONE: readonly string[] = [];

interface OpenSuite {
  name: string;
  line: number;
  /** Numbers that it gives of itself, and what of them was met in it and below. */
  says: number;
  met: number;
}

/** Reads JUnit XML with one or many suites, nested or empty. A failure of a suite itself is a broken result of its own. Throws ReadError for something else. */
export async function readJunit(bytes: Uint8Array): Promise<ResultsReading> {
  const reader = new JunitReader();
  await walkXml(inChunks(bytes), {
    open: (name, attributes, line) => reader.open(localName(name), attributes, line),
    close: (name) => reader.close(localName(name)),
    text: (text) => reader.text(text),
  });
  return reader.finish();
}

class JunitReader {
  private readonly reading: ResultsReading = { name: '', at: null, cases: [], issues: [] };
  private readonly suites: OpenSuite[] = [];
  private current: ResultCase | undefined;
  /** A failure beside the cases, while it is read. */
  private suiteFailure: ResultCase | undefined;
  private body: string | undefined;
  private said = '';
  /** Those of the present case, once it has any. */
  private properties: string[] = [];
  private root = '';

  open(local: string, attributes: Record<string, string>, line: number): void {
    this.root ||= local;
    if (local === 'testsuites' || local === 'testsuite') this.openSuite(attributes, line);
    else if (local === 'testcase') this.openCase(attributes, line);
    else if (OUTCOMES[local]) this.openOutcome(local, attributes, line);
    else if (local === 'property' && this.current && attributes.value) this.addProperty(this.current, attributes.value);
  }

  close(local: string): void {
    if (OUTCOMES[local] && this.body !== undefined) this.closeOutcome();
    else if (local === 'testcase' && this.current) this.keep(this.current);
    else if (local === 'testsuite' || local === 'testsuites') this.closeSuite();
  }

  text(text: string): void {
    if (this.body !== undefined && this.body.length < MOST_LETTERS) this.body += text;
  }

  finish(): ResultsReading {
    if (this.root !== 'testsuites' && this.root !== 'testsuite')
      throw new ReadError('not-junit', `The file is XML, but starts with <${this.root}>, not with <testsuites> or <testsuite>.`);
    if (this.reading.cases.length === 0)
      this.reading.issues.push({
        severity: 'warning',
        code: 'cases-none',
        at: 'the whole file',
        message: 'The file reports no test case: nothing ran, or its results lie in another file',
      });
    return this.reading;
  }

  private openSuite(attributes: Record<string, string>, line: number): void {
    this.reading.name ||= attributes.name ?? '';
    this.reading.at ??= attributes.timestamp ?? null;
    const says = (Number(attributes.errors) || 0) + (Number(attributes.failures) || 0);
    this.suites.push({ name: attributes.name ?? '', line, says, met: 0 });
  }

  private closeSuite(): void {
    const suite = this.suites.pop();
    if (!suite) return;
    // A run that could not start often says so in a number only.
    if (suite.says > suite.met) {
      const missing = suite.says - suite.met;
      this.keep({
        ...this.newCase(suite.name || 'Test run', suite.line),
        outcome: 'broken',
        message: `The suite counts ${missing} ${missing === 1 ? 'failure or error' : 'failures or errors'} that no case of it tells of`,
      });
    }
    const above = this.suites.at(-1);
    if (above) above.met += Math.max(suite.met, suite.says);
  }

  private openCase(attributes: Record<string, string>, line: number): void {
    const duration = attributes.time ? Number(attributes.time) : Number.NaN;
    const one = this.newCase(attributes.name ?? '', line);
    one.suite = attributes.classname || one.suite;
    one.outcome = saidBy(attributes);
    if (Number.isFinite(duration)) one.duration = duration;
    this.current = one;
    if (!attributes.name)
      this.reading.issues.push({
        severity: 'warning',
        code: 'case-unnamed',
        at: `line ${line}`,
        message: 'A test case has no name; it can be matched by its properties only',
      });
  }

  private openOutcome(local: string, attributes: Record<string, string>, line: number): void {
    const outcome = OUTCOMES[local]!;
    if (!this.current && outcome === 'skipped') return;
    // Beside the cases it is the suite that failed: none of its cases may have run.
    const target = this.current ?? { ...this.newCase(this.suites.at(-1)?.name || 'Test run', line), outcome: 'broken' as const };
    if (this.current && WORSE.indexOf(outcome) > WORSE.indexOf(target.outcome)) target.outcome = outcome;
    this.said = attributes.message ?? '';
    this.body = '';
    if (!this.current) this.suiteFailure = target;
  }

  private closeOutcome(): void {
    const target = this.suiteFailure ?? this.current;
    const body = this.body!.trim();
    this.body = undefined;
    if (!target) return;
    // Many writers say the message twice: once is enough.
    const message = !this.said || this.said === body || isIn(this.said, body) ? body : isIn(body, this.said) ? this.said : `${this.said}\n${body}`.trim();
    target.message = (target.message && message ? `${target.message}\n${message}` : target.message || message).slice(0, MOST_LETTERS);
    if (this.suiteFailure) {
      this.keep(this.suiteFailure);
      this.suiteFailure = undefined;
    }
  }

  private keep(one: ResultCase): void {
    if ((one.outcome === 'failed' || one.outcome === 'broken') && this.suites.length > 0) this.suites.at(-1)!.met++;
    this.reading.cases.push(one);
    this.current = undefined;
  }

  private addProperty(one: ResultCase, value: string): void {
    if (one.properties === NONE) one.properties = this.properties = [value];
    else this.properties.push(value);
  }

  private newCase(name: string, line: number): ResultCase {
    return { suite: this.suites.at(-1)?.name ?? '', name, outcome: 'passed', duration: null, message: '', properties: NONE, line };
  }
}

/** The outcome that a case says in attributes; passed where none does. */
function saidBy({ status, result, outcome, disabled, executed }: Record<string, string>): Outcome {
  for (const word of [status, result, outcome]) {
    const said = word && SAID[word.trim().toLowerCase()];
    if (said) return said;
  }
  return disabled === 'true' || executed === 'false' ? 'skipped' : 'passed';
}

const plain = (text: string) => text.replace(/\s+/g, ' ').trim();
const isIn = (part: string, whole: string) => plain(whole).includes(plain(part));
