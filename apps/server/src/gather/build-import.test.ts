import { defaultScheme, type Draft, type DraftLink, finish, type RecipeOutcome, takeApart } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import type { CollectionValue, ItemValue, LinkValue } from '../ledger/change.js';
import { ProjectState } from '../project-state/project-state.js';
import { buildPartRows } from '../project-state/scheme-parts.js';
import type { LightItem } from '../project-state/light-item.js';
import { buildImport, checkImport } from './build-import.js';

const collection: CollectionValue = {
  id: 'c',
  projectId: 'p',
  revision: 1,
  withdrawn: false,
  name: 'Requirements',
  holds: 'specification',
  prefix: 'SYS',
  kind: 'requirement',
  rank: 1,
  setId: null,
};
const known = (reference: string, more: Partial<LightItem> = {}): LightItem => ({
  id: `id ${reference}`,
  collectionId: 'c',
  kind: 'requirement',
  reference,
  title: reference,
  heading: false,
  parentId: null,
  rank: 5000,
  withdrawn: false,
  meaningSeq: 2,
  revision: 1,
  bindings: [],
  node: 0,
  ...more,
});

let part = 0;

function stateOf(items: LightItem[]): ProjectState {
  const none = new Uint32Array(0);
  return new ProjectState({
    id: 'p',
    name: 'P',
    createdAt: '',
    day: '2026-11-27',
    contentSeq: 9,
    life: 'one',
    schemeParts: buildPartRows('p', takeApart(defaultScheme), () => `part ${part++}`),
    seq: 9,
    collections: [collection],
    sets: [],
    archived: false,
    out: false,
    items,
    links: { id: new Uint8Array(0), from: none, to: none, kind: new Uint8Array(0), fromSeq: none, toSeq: none, inUsage: new Map() },
    waivers: [],
    usages: [],
    latest: new Map(),
    sources: 0,
    foundFields: [],
    kept: { ruleFields: new Map(), numbers: new Map() },
  });
}

const draft = (key: number, more: Partial<Draft> = {}): Draft => ({
  key,
  parent: -1,
  role: 'item',
  kind: 'requirement',
  reference: null,
  externalId: null,
  title: `Draft ${key}`,
  html: '',
  fields: {},
  place: { says: `row ${key}` },
  ...more,
});
const link = (from: number, target: string, more: Partial<DraftLink> = {}): DraftLink => ({
  draft: from,
  linkKind: 'derives',
  reversed: false,
  target,
  place: { says: `row ${from}` },
  ...more,
});

function build(items: LightItem[], drafts: Draft[], links: DraftLink[] = [], pictureAddress = new Map<string, string>()) {
  let next = 0;
  const outcome: RecipeOutcome = { drafts, links, issues: [] };
  const newId = () => `new ${next++}`;
  const context = { state: stateOf(items), person: 'Ada', now: '2026-11-01T08:00:00.000Z', newId, collection, sourceId: 's', pictureAddress };
  const built = finish(buildImport(context, outcome));
  const rows = built.changes.flatMap((change) => (change.entity === 'item' ? [change.after as ItemValue] : []));
  const made = built.changes.flatMap((change) => (change.entity === 'link' ? [change.after as LinkValue] : []));
  return { ...built, rows, made };
}

describe('buildImport', () => {
  it('gives references after the highest there is, around those the file brings', () => {
    const { rows } = build([known('SYS-004')], [draft(0), draft(1, { reference: 'SYS-006' }), draft(2), draft(3)]);
    expect(rows.map((row) => row.reference)).toEqual(['SYS-005', 'SYS-006', 'SYS-007', 'SYS-008']);
  });

  it('counts sections apart, so that requirements number without holes', () => {
    const { rows } = build([], [draft(0, { role: 'section' }), draft(1), draft(2, { role: 'section' }), draft(3)]);
    expect(rows.map((row) => row.reference)).toEqual(['SYS-S-001', 'SYS-001', 'SYS-S-002', 'SYS-002']);
  });

  it('never takes the reference of a withdrawn item', () => {
    const { rows, issues } = build([known('SYS-001', { withdrawn: true })], [draft(0, { reference: 'sys-001' })]);
    expect(rows[0]!.reference).toBe('SYS-002');
    expect(issues).toMatchObject([{ code: 'reference-taken', at: 'row 0' }]);
  });

  it('keeps order and parents, behind what the collection holds already', () => {
    const { rows } = build([known('SYS-001')], [draft(0, { role: 'section' }), draft(1, { parent: 0 }), draft(2, { parent: 0 }), draft(3)]);
    expect(rows.map((row) => [row.parentId, row.rank])).toEqual([
      [null, 6024],
      ['new 0', 1024],
      ['new 0', 2048],
      [null, 7048],
    ]);
  });

  it('finds the other end of links by reference or external id, in the file and in the project', () => {
    const items = [known('NEED-001', { kind: 'need' }), known('NEED-002', { kind: 'need', bindings: [{ partner: 'b', externalId: 'ext-2', tag: null }] })];
    const { made } = build(
      items,
      [draft(0, { reference: 'SYS-001' }), draft(1, { externalId: 'x-1' })],
      [link(0, 'need-001'), link(0, 'EXT-2'), link(1, 'SYS-001'), link(0, 'X-1')],
    );
    expect(made.map((row) => [row.fromId, row.toId, row.fromSeq, row.toSeq])).toEqual([
      ['new 0', 'id NEED-001', 10, 2],
      ['new 0', 'id NEED-002', 10, 2],
      ['new 1', 'new 0', 10, 10],
      ['new 0', 'new 1', 10, 10],
    ]);
  });

  it('turns links round when the recipe says so, and makes none twice', () => {
    const { made } = build(
      [],
      [draft(0, { reference: 'SYS-001' }), draft(1, { reference: 'SYS-002' })],
      [link(0, 'SYS-002', { reversed: true }), link(1, 'SYS-001'), link(1, 'SYS-001')],
    );
    expect(made.map((row) => [row.fromId, row.toId])).toEqual([['new 1', 'new 0']]);
  });

  it('names links to nothing, to itself, and between kinds that do not go together', () => {
    const { made, issues } = build(
      [known('TC-001', { kind: 'testCase' }), known('OLD-1', { withdrawn: true })],
      [draft(0, { reference: 'SYS-001' })],
      [link(0, 'SYS-900'), link(0, 'SYS-001'), link(0, 'TC-001'), link(0, 'OLD-1')],
    );
    expect(made).toEqual([]);
    expect(issues.map((issue) => issue.code)).toEqual(['link-target-unknown', 'link-not-allowed', 'link-not-allowed', 'link-target-unknown']);
  });

  it('finds ends by title, blanks and case aside, unless several have it', () => {
    const items = [
      known('NEED-001', { kind: 'need', title: 'Dry  Cellars' }),
      known('NEED-002', { kind: 'need', title: 'Quiet' }),
      known('NEED-003', { kind: 'need', title: 'quiet' }),
    ];
    const { made, issues } = build(
      items,
      [draft(0)],
      [link(0, 'dry cellars', { by: 'title' }), link(0, 'Quiet', { by: 'title' }), link(0, 'NEED-002', { by: 'title' })],
    );
    expect(made.map((row) => row.toId)).toEqual(['id NEED-001']);
    expect(issues.map((issue) => [issue.code, issue.message])).toEqual([
      ['link-target-several', expect.stringContaining('2 items')],
      ['link-target-unknown', expect.stringContaining('not in the project')],
    ]);
  });

  it('looks in the collections named, and takes identifiers for identifiers only', () => {
    const items = [
      known('NEED-001', { kind: 'need', collectionId: 'other', bindings: [{ partner: 'b', externalId: 'n1', tag: null }] }),
      known('NEED-002', { kind: 'need', bindings: [{ partner: 'b', externalId: 'n1', tag: null }] }),
    ];
    const { made, issues } = build(
      items,
      [draft(0)],
      [
        link(0, 'NEED-001', { within: ['requirements'] }),
        link(0, 'n1', { within: ['Requirements'] }),
        link(0, 'NEED-002', { by: 'source' }),
        link(0, 'NEED-002', { within: ['Gone'] }),
      ],
    );
    expect(made.map((row) => row.toId)).toEqual(['id NEED-002']);
    expect(issues.map((issue) => issue.message.split(', ').slice(1).join())).toEqual([
      expect.stringContaining('not in requirements'),
      expect.stringContaining('not in the project'),
      expect.stringContaining('not in Gone'),
    ]);
  });

  it('can be told beforehand, without a row made', () => {
    const context = { state: stateOf([known('SYS-001')]), person: 'Ada', now: '', newId: () => '', collection, sourceId: '', pictureAddress: new Map() };
    const outcome = { drafts: [draft(0, { reference: 'SYS-001' }), draft(1)], links: [link(1, 'SYS-001'), link(1, 'SYS-9')], issues: [] };
    expect(finish(checkImport(context, outcome, false))).toMatchObject({ links: 1, issues: [{ code: 'reference-taken' }, { code: 'link-target-unknown' }] });
    expect(finish(checkImport(context, outcome, true)).issues.map((issue) => issue.code)).toEqual(['link-target-unknown']);
  });

  it('sanitises text, puts stored pictures and objects in their place and keeps the names of missing ones', () => {
    const html =
      '<p onclick="x()">a<img src="coomb-picture:media/a&amp;b.png" alt="plan"><img src="coomb-picture:gone.png" alt=""><a href="coomb-file:b">b</a></p><script>x</script>';
    const { rows } = build(
      [],
      [draft(0, { html })],
      [],
      new Map([
        ['media/a&b.png', '/api/files/1'],
        ['b', '/api/files/2'],
      ]),
    );
    expect(rows[0]!.html).toBe('<p>a<img src="/api/files/1" alt="plan" /><img src="coomb-picture:gone.png" alt="" /><a href="/api/files/2">b</a></p>');
  });

  it('keeps only fields that the kind has, and cuts titles that are too long', () => {
    const { rows } = build([], [draft(0, { title: 'x'.repeat(700), fields: { priority: 'High', riddle: 'x', owner: '' } })]);
    expect(rows[0]).toMatchObject({ fields: { priority: 'High' }, origin: 'imported', bindings: [{ partner: 's' }], changedBy: 'Ada', meaningSeq: 10 });
    expect(rows[0]!.title).toHaveLength(500);
  });
});
