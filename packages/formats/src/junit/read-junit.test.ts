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
      { outcome: 'failed', message: 'too slowat line 3', duration: null },
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

  it('refuses other XML', async () => {
    await expect(read('<report/>')).rejects.toThrow('starts with <report>');
  });
});
