import { defaultScheme, type Draft, type DraftLink } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import type { ReqifItem } from '../reqif/build-reqif-edits.js';
import { compareBack } from './compare-back.js';

const item = (reference: string, change: Partial<ReqifItem> = {}): ReqifItem => ({
  id: `id of ${reference}`,
  reference,
  externalId: null,
  title: 'Gate',
  html: '<p>It shall <strong>stop</strong>.</p>',
  kind: 'requirement',
  heading: false,
  parent: null,
  depth: 0,
  fields: {},
  links: [],
  changed: new Set(),
  parentAt: -1,
  ends: [],
  ...change,
});
const draft = (key: number, reference: string | null, change: Partial<Draft> = {}): Draft => {
  const { title, html, kind, fields } = item('');
  return { key, parent: -1, role: 'item', kind, reference, externalId: null, title, html, fields, place: { says: `row ${key}` }, ...change };
};
const compare = (items: ReqifItem[], drafts: Draft[], links: DraftLink[] = []) => compareBack(defaultScheme, items, { drafts, links, issues: [] });
const told = (items: ReqifItem[], drafts: Draft[], links: DraftLink[] = []) =>
  compare(items, drafts, links).differences.map(({ what, items: where, before, after }) => [what, where.map((one) => one.reference).join(), before, after]);

describe('compareBack', () => {
  it('finds nothing where all is as it was, whatever the addresses of pictures and the wrappers of rows', () => {
    const table = (rows: string) => `<table>${rows}</table>`;
    const out = item('A-1', { html: `${table('<thead><tr><th>a</th></tr></thead>')}<p><img src="/api/x" alt="" /></p>` });
    const back = draft(0, 'a-1', { html: `${table('<tbody><tr><th>a</th></tr></tbody>')}<p><img src="coomb-picture:x" alt="" /></p>` });
    expect(compare([out], [back])).toEqual({ items: { out: 1, back: 1 }, links: { out: 0, back: 0 }, pictures: { out: 1, back: 1 }, differences: [] });
  });

  it.each<[string, Partial<ReqifItem>, Partial<Draft>, [string, string, string][]]>([
    ['a title', {}, { title: 'Gates' }, [['Title', 'Gate', 'Gates']]],
    ['words', {}, { html: '<p>It shall <strong>start</strong>.</p>' }, [['Text', 'It shall stop.', 'It shall start.']]],
    ['formatting', {}, { html: '<p>It shall stop.</p>' }, [['Formatting of the text', '<p>It shall <strong>stop</strong>.</p>', '<p>It shall stop.</p>']]],
    [
      'a picture, and formatting beside it',
      { html: '<p><b>a</b></p><img src="/api/x" alt="" />' },
      { html: '<p>a</p>' },
      [
        ['Formatting of the text', '<p><b>a</b></p>', '<p>a</p>'],
        ['Pictures', '1', '0'],
      ],
    ],
    ['what it is', {}, { role: 'section' }, [['Section or item', 'item', 'section']]],
    ['a kind', { kind: 'testCase' }, {}, [['Kind', 'Test case', 'Requirement']]],
    ['a field', { fields: { priority: 'High' } }, { fields: { priority: 'Low' } }, [['Priority', 'High', 'Low']]],
    [
      'a rich field',
      { kind: 'testCase', fields: { steps: '<ol><li>a</li></ol>' } },
      { kind: 'testCase', fields: { steps: '<p>a</p>' } },
      [['Formatting of steps', '<ol><li>a</li></ol>', '<p>a</p>']],
    ],
  ])('tells of %s', (_, out, back, differences) => {
    expect(told([item('A-1', out)], [draft(0, 'A-1', back)])).toEqual(differences.map(([what, before, after]) => [what, 'A-1', before, after]));
  });

  it('tells of items that are missing, added, or stand elsewhere', () => {
    const items = [item('A-1', { heading: true }), item('A-2', { parent: 'A-1' }), item('A-3')];
    const drafts = [draft(0, 'A-1', { role: 'section' }), draft(1, 'A-2'), draft(2, null, { title: 'Stray' })];
    expect(told(items, drafts)).toEqual([
      ['Parent', 'A-2', 'A-1', 'none'],
      ['Item', 'A-3', 'Gate', ''],
      ['Item that did not go out', 'row 2', '', 'Stray'],
    ]);
  });

  it('counts a link once, by whichever end it was told, and tells of those that are missing or added', () => {
    const end = (other: string, reversed: boolean) => ({ linkKind: 'derives', reversed, other: `id of ${other}`, reference: other });
    const items = [item('A-1', { ends: [end('A-2', true), end('N-1', false)] }), item('A-2', { ends: [end('A-1', false)] })];
    const drafts = [draft(0, 'A-1', { externalId: 'x1' }), draft(1, 'A-2')];
    const link = (from: number, target: string, reversed = false): DraftLink => ({ draft: from, linkKind: 'derives', reversed, target, place: { says: '' } });
    expect(compare(items, drafts, [link(1, 'x1'), link(0, 'n-1')])).toMatchObject({ links: { out: 2, back: 2 }, differences: [] });
    expect(told(items, drafts, [link(0, 'A-2', true), link(0, 'N-9')])).toEqual([
      ['Link: is derived from', 'A-1', 'N-1', ''],
      ['Link that did not go out', 'a-1 to n-9', '', 'derives a-1 n-9'],
    ]);
  });
});
