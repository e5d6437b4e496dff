import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { Constants } from './constants.js';
import type { Draft } from './draft.js';

const draft = (change: Partial<Draft> = {}): Draft => ({
  key: 0,
  parent: -1,
  role: 'item',
  kind: 'requirement',
  reference: null,
  externalId: null,
  title: '',
  html: '',
  fields: {},
  place: { says: '' },
  ...change,
});
function give(wanted: Record<string, string>, ...drafts: Draft[]) {
  const constants = new Constants(defaultScheme, wanted);
  for (const one of drafts) constants.giveTo(one);
  return { fields: drafts.map((one) => one.fields), issues: constants.issues };
}

describe('values of every item', () => {
  it('go to items, not to sections, and not over what the file says', () => {
    const { fields } = give({ priority: 'high', method: 'Test, Analysis' }, draft(), draft({ role: 'section' }), draft({ fields: { priority: 'Low' } }));
    expect(fields).toEqual([{ priority: 'High', method: ['Test', 'Analysis'] }, {}, { priority: 'Low', method: ['Test', 'Analysis'] }]);
  });

  it('are escaped where a field holds rich text', () => {
    expect(give({ steps: 'a < b' }, draft({ kind: 'testCase' })).fields).toEqual([{ steps: '<p>a &lt; b</p>' }]);
  });

  it('are complained of once, however many items there are', () => {
    const { fields, issues } = give({ priority: 'Urgent', riddle: 'x' }, draft(), draft(), draft());
    expect(fields[2]).toEqual({ priority: 'Urgent' });
    expect(issues.map((issue) => [issue.code, issue.at])).toEqual([
      ['field-value', 'the recipe'],
      ['field-unknown', 'the recipe'],
    ]);
  });
});
