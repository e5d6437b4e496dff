import { describe, expect, it } from 'vitest';
import { readJunit } from './read-junit.js';

const read = (xml: string) => readJunit(Buffer.from(xml));

describe('readJunit', () => {
  it('reads outcomes, messages, times and properties', async () => {
    const { name, at, cases } = await read(`<?xml version="1.0"?><testsuites name="Rig run"><testsuite name="rig" timestamp="2026-10-12T09:30:00Z">
      <testcase classname="drive" name="TC-001" time="1.5"><properties><property name="test" value="TC-001"/></properties></testcase>
      <testcase classname="drive" name="TC-002"><failure message="too slow">at line 3</failure></testcase>
      <testcase name="TC-003"><error>lost</error></testcase>
      <testcase name="TC-004"><skipped/></testcase></testsuite></testsuites>`);
    expect([name, at]).toEqual(['Rig run', '2026-10-12T09:30:00Z']);
    expect(cases).toMatchObject([
      { suite: 'drive', name: 'TC-001', outcome: 'passed', duration: 1.5, properties: ['TC-001'], line: 2 },
      { outcome: 'failed', message: 'too slow\nat line 3', duration: null },
      { suite: 'rig', outcome: 'broken', message: 'lost' },
      { outcome: 'skipped' },
    ]);
  });

  it('reads a single suite, and suites inside suites', async () => {
    const { cases, name } = await read('<testsuite name="outer"><testsuite name="inner"><testcase name="a"/></testsuite><testcase name="b"/></testsuite>');
    expect(name).toBe('outer');
    expect(cases.map((one) => [one.suite, one.name])).toEqual([
      ['inner', 'a'],
      ['outer', 'b'],
    ]);
  });

  it('names a case without a name by its line', async () => {
    expect((await read('<testsuite>\n<testcase/></testsuite>')).issues).toMatchObject([{ code: 'case-unnamed', at: 'line 2' }]);
  });

  it.each([
    ['status="notrun"', 'skipped'],
    ['status="disabled"', 'skipped'],
    ['status="notrun" result="suppressed"', 'skipped'],
    ['result="skipped"', 'skipped'],
    ['status="run" result="completed"', 'passed'],
    ['status="failed"', 'failed'],
    ['result="error"', 'broken'],
    ['disabled="true"', 'skipped'],
    ['executed="false"', 'skipped'],
  ])('takes %s for %s', async (attributes, outcome) => {
    const { cases } = await read(`<testsuites><testsuite name="s"><testcase name="a" ${attributes}/></testsuite></testsuites>`);
    expect(cases.map((one) => one.outcome)).toEqual([outcome]);
  });

  it('lets what stands in the case decide over its attributes, the worst of several', async () => {
    const { cases } = await read(
      '<testsuite><testcase name="a" status="run"><failure message="one"/><failure message="two"/></testcase><testcase name="b"><skipped/><error>x</error></testcase><testcase name="c" status="failed"><skipped/></testcase></testsuite>',
    );
    expect(cases.map((one) => [one.outcome, one.message])).toEqual([
      ['failed', 'one\ntwo'],
      ['broken', 'x'],
      ['failed', ''],
    ]);
  });

  it('makes a broken result of each failure of a suite itself', async () => {
    const { cases } = await read(
      '<testsuites><testsuite name="empty"/><testsuite name="rig" errors="1"><error message="no power">at start</error></testsuite><testsuite name="outer"><testsuite name="inner"><failure>set-up</failure><testcase name="a"/></testsuite></testsuite></testsuites>',
    );
    expect(cases.map(({ suite, name, outcome, message }) => [suite, name, outcome, message])).toEqual([
      ['rig', 'rig', 'broken', 'no power\nat start'],
      ['inner', 'inner', 'broken', 'set-up'],
      ['inner', 'a', 'passed', ''],
    ]);
  });

  it('sees a run that could not start where only numbers tell of it', async () => {
    const { cases } = await read('<testsuites errors="2" failures="0"><testsuite name="rig" tests="0" errors="2"/></testsuites>');
    expect(cases).toMatchObject([{ name: 'rig', outcome: 'broken', message: expect.stringContaining('2 failures or errors') }]);
    const { cases: counted } = await read(
      '<testsuites failures="1" errors="1"><testsuite name="s" failures="1" errors="1"><testcase name="a"><failure/></testcase><testcase name="b"><error/></testcase></testsuite></testsuites>',
    );
    expect(counted).toHaveLength(2);
  });

  it('shows a message once that stands in attribute and body', async () => {
    const { cases } = await read(
      '<testsuite><testcase name="a"><failure message="3 is not 4">3 is not 4\n  at gate.c:12</failure></testcase><testcase name="b"><error message="whole &#10; message">whole message</error></testcase></testsuite>',
    );
    expect(cases.map((one) => one.message)).toEqual(['3 is not 4\n  at gate.c:12', 'whole message']);
  });

  it('tells a file without any case', async () => {
    expect((await read('<testsuites/>')).issues.map((issue) => issue.code)).toEqual(['cases-none']);
  });

  it('refuses other XML', async () => {
    await expect(read('<report/>')).rejects.toThrow('starts with <report>');
  });
});
