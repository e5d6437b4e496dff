import {
  addFields,
  changeScheme,
  compareScheme,
  createItem,
  editItem,
  editLink,
  explainCoverage,
  getItem,
  getProject,
  getReadiness,
  getScheme,
  getSchemeFile,
  getSchemeFileSchema,
  listChanges,
  openFigure,
  openSchemeEffect,
  previewScheme,
  type SchemeEdit,
  type SchemeWish,
  undo,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

type SortEdit<S extends SchemeEdit['sort']> = Extract<SchemeEdit, { sort: S }>;

describe('the scheme of a project', () => {
  const server = useServer();
  const part = async <S extends SchemeEdit['sort']>(project: string, sort: S, key: string) =>
    (await server.client.call(getScheme, { params: { project } })).parts.find((one) => one.sort === sort && one.key === key) as SortEdit<S>;
  const preview = (project: string, wish: SchemeWish) => server.client.call(previewScheme, { params: { project }, body: wish });
  const change = (project: string, wish: SchemeWish) => server.client.call(changeScheme, { params: { project }, body: wish });
  const effectsOf = async (project: string, wish: SchemeWish) => (await preview(project, wish)).effects.map(({ id, count, says }) => [id, count, says]);
  const open = async (project: string, effect: string, wish: SchemeWish) =>
    (await server.client.call(openSchemeEffect, { params: { project, effect }, query: {}, body: wish })).rows.map((row) =>
      [row.item?.reference ?? '', row.phrase, row.other?.reference ?? '', row.note].filter(Boolean).join(' '),
    );
  const notMet = async (project: string, rule: string) =>
    (await server.client.call(getReadiness, { params: { project } })).rules.find((one) => one.rule === rule)?.counts.notMet;

  async function makeLinked() {
    const made = await makeProject(server.client);
    const { project } = made;
    const one = await addItem(server.client, project, made.requirements, 'The gate closes');
    const two = await addItem(server.client, project, made.requirements, 'The gate opens');
    const test = await addItem(server.client, project, made.tests, 'Close the gate');
    await addLink(server.client, project, 'verifies', test, one);
    await addLink(server.client, project, 'derives', two, one);
    return { ...made, one, two, test };
  }

  it('gets other names, which everything shows, also after a restart, and one undo takes back', async () => {
    const { project, test } = await makeLinked();
    const kind = await part(project, 'kind', 'testCase');
    const link = await part(project, 'linkKind', 'verifies');
    await change(project, {
      edits: [
        { ...kind, body: { ...kind.body, label: 'Trial', plural: 'Trials' } },
        { ...link, body: { ...link.body, phrase: 'tries', reverse: 'is tried by' } },
      ],
    });
    await server.restart();
    const { scheme } = await server.client.call(getProject, { params: { project } });
    expect(scheme.kinds.find((one) => one.id === 'testCase')!.label).toBe('Trial');
    const tested = scheme.rules.find((rule) => rule.id === 'tested')!;
    expect(tested.sentence).toBe('Every requirement is tried by or leads to at least one trial, directly or over up to two links.');
    expect(JSON.stringify(await server.client.call(getItem, { params: { project, item: test.id } }))).toContain('"tries"');
    const { action } = await server.client.call(undo, { params: { project } });
    expect(action).toBe('Change kinds and links of the scheme');
    expect((await part(project, 'kind', 'testCase')).body.label).toBe('Test case');
  });

  it('says what a change would do to links before it is done, opens each, and keeps, changes or removes them as answered', async () => {
    const { project, one, two } = await makeLinked();
    const link = await part(project, 'linkKind', 'derives');
    const wish: SchemeWish = { edits: [{ ...link, body: { ...link.body, fromKinds: ['need'] } }] };
    expect(await effectsOf(project, wish)).toContainEqual(['disallowed-links:derives', 1, '1 link "is derived from" would no longer be allowed']);
    expect(await open(project, 'disallowed-links:derives', wish)).toEqual(['REQ-002 is derived from REQ-001']);
    await change(project, wish);
    const linksOf = async (item: string) => JSON.stringify(await server.client.call(getItem, { params: { project, item } }));
    expect(await linksOf(two.id)).toContain(one.id);
    await server.client.call(undo, { params: { project } });
    await change(project, {
      ...wish,
      edits: [{ ...wish.edits[0]!, revision: (await part(project, 'linkKind', 'derives')).revision }],
      answers: { 'disallowed-links:derives': 'remove' },
    });
    expect(await linksOf(two.id)).not.toContain(one.id);
    await server.client.call(undo, { params: { project } });
    expect(await linksOf(two.id)).toContain(one.id);
  });

  it('gives links another kind, which coverage follows at once and after a restart', async () => {
    const { project, one } = await makeLinked();
    const spare = await part(project, 'linkKind', 'verifies');
    await change(project, { edits: [{ ...spare, key: 'watches', revision: null, body: { ...spare.body, phrase: 'watches', reverse: 'is watched by' } }] });
    const before = (await notMet(project, 'tested'))!;
    const link = await part(project, 'linkKind', 'verifies');
    const wish: SchemeWish = { edits: [{ ...link, retired: true }], answers: { 'disallowed-links:verifies': 'change:watches' } };
    expect(await open(project, 'disallowed-links:verifies', wish)).toEqual(['TC-001 verifies REQ-001']);
    await change(project, wish);
    for (const restarted of [false, true]) {
      if (restarted) await server.restart();
      expect(await notMet(project, 'tested')).toBe(before + 1);
      const why = await server.client.call(explainCoverage, { params: { project, rule: 'tested', item: one.id } });
      expect(why.state).toBe('notMet');
      expect(JSON.stringify(await server.client.call(getItem, { params: { project, item: one.id } }))).toContain('is watched by');
    }
  });

  it('renames a choice on the items too, and reads values anew or empties them where a field takes them no more', async () => {
    const { project, one, two } = await makeLinked();
    const set = async (item: typeof one, fields: Record<string, string>) => {
      const { revision } = await server.client.call(getItem, { params: { project, item: item.id } });
      return server.client.call(editItem, { params: { project, item: item.id }, body: { revision, fields } });
    };
    await set(one, { standing: 'Agreed', rationale: '12' });
    await set(two, { standing: 'Draft', rationale: 'because of the floods' });
    const standing = await part(project, 'field', 'standing');
    const renamed: SchemeWish = {
      edits: [{ ...standing, body: { ...standing.body, options: ['Draft', 'Accepted'] } }],
      renames: [{ field: 'standing', from: 'Agreed', to: 'Accepted' }],
    };
    expect(await effectsOf(project, renamed)).toEqual([['renamed-option:standing:Agreed', 1, '1 item will say "Accepted" where it says "Agreed"']]);
    await change(project, renamed);
    const fieldsOf = async (item: typeof one) => (await server.client.call(getItem, { params: { project, item: item.id } })).fields;
    expect((await fieldsOf(one)).standing).toBe('Accepted');
    const rationale = await part(project, 'field', 'rationale');
    const typed: SchemeWish = { edits: [{ ...rationale, body: { ...rationale.body, type: 'number' } }], answers: { 'unfit-values:rationale': 'convert' } };
    expect(await open(project, 'unfit-values:rationale', typed)).toEqual(['REQ-001 12', 'REQ-002 because of the floods']);
    await change(project, typed);
    expect([(await fieldsOf(one)).rationale, (await fieldsOf(two)).rationale]).toEqual([12, 'because of the floods']);
  });

  it('keeps values out of sight with a field that goes out of use, through edits, until it is back', async () => {
    const { project, one } = await makeLinked();
    const owner = await part(project, 'field', 'owner');
    await server.client.call(editItem, { params: { project, item: one.id }, body: { revision: one.revision, fields: { owner: 'Ida Fell' } } });
    await change(project, { edits: [{ ...owner, retired: true }] });
    const hidden = await server.client.call(getItem, { params: { project, item: one.id } });
    await server.client.call(editItem, { params: { project, item: one.id }, body: { revision: hidden.revision, fields: { priority: 'High' } } });
    await change(project, { edits: [{ ...(await part(project, 'field', 'owner')), retired: false }] });
    expect((await server.client.call(getItem, { params: { project, item: one.id } })).fields).toEqual({ owner: 'Ida Fell', priority: 'High' });
  });

  it('gives items of a kind that goes out of use another one, with what that does to links and rules told before', async () => {
    const { project, one, two } = await makeLinked();
    const kind = await part(project, 'kind', 'requirement');
    const wish = {
      edits: [{ ...kind, retired: true }],
      answers: { 'retired-kind:requirement': 'change:need', 'retired-kind-of-new:requirement': 'change:need' },
    };
    const effects = await effectsOf(project, wish);
    expect(effects.find(([id]) => id === 'retired-kind:requirement')).toEqual(['retired-kind:requirement', 2, '2 items are of the kind "Requirement"']);
    expect(effects.map(([id]) => id)).toContain('moved-rule:derived');
    // Needs may be derived from needs and verified: no link breaks.
    expect(effects.map(([id]) => id).filter((id) => String(id).startsWith('disallowed'))).toEqual([]);
    await change(project, wish);
    for (const item of [one, two]) expect((await server.client.call(getItem, { params: { project, item: item.id } })).kind).toBe('need');
    const { collections, scheme } = await server.client.call(getProject, { params: { project } });
    expect(collections.map((collection) => collection.kind)).not.toContain('requirement');
    expect(scheme.kinds.find((entry) => entry.id === 'requirement')!.retired).toBe(true);
    await expect(
      server.client.call(editItem, { params: { project, item: one.id }, body: { revision: one.revision + 1, kind: 'requirement' } }),
    ).rejects.toMatchObject({ message: expect.stringContaining('retired') });
  });

  it('tells how figures of rules move, with the very items, and lets rules look at a field that none looked at before', async () => {
    const { project, one } = await makeLinked();
    await server.client.call(editItem, { params: { project, item: one.id }, body: { revision: one.revision, fields: { priority: 'High' } } });
    const rule = await part(project, 'rule', 'implemented');
    const wish: SchemeWish = { edits: [{ ...rule, body: { ...rule.body, of: { kinds: ['requirement'], field: { id: 'priority', oneOf: ['High'] } } } }] };
    expect(await effectsOf(project, wish)).toEqual([['moved-rule:implemented', 1, '"Implemented": 2 items open now, 1 then']]);
    expect(await open(project, 'moved-rule:implemented', wish)).toEqual(['REQ-002 not met → not asked']);
    await change(project, wish);
    expect(await notMet(project, 'implemented')).toBe(1);
    const item = await server.client.call(getItem, { params: { project, item: one.id } });
    await server.client.call(editItem, { params: { project, item: one.id }, body: { revision: item.revision, fields: { priority: 'Low' } } });
    expect(await notMet(project, 'implemented')).toBe(0);
  });

  it('refuses what makes no scheme, each fault with its part, and what somebody else changed meanwhile', async () => {
    const { project } = await makeLinked();
    const kind = await part(project, 'kind', 'testCase');
    const rule = await part(project, 'rule', 'tested');
    const wrong: SchemeWish = {
      edits: [
        { ...kind, body: { ...kind.body, layer: 'cellar', label: '' } },
        { ...rule, body: { ...rule.body, along: [{ linkKind: 'riddles', direction: 'in' }] } },
      ],
    };
    expect((await preview(project, wrong)).issues.filter((issue) => issue.severity === 'error').map(({ sort, key, message }) => [sort, key, message])).toEqual([
      ['kind', 'testCase', 'This kind has no name.'],
      ['kind', 'testCase', '"" stands in no layer. Choose one for it.'],
      ['rule', 'tested', '"Tested" follows "riddles", which is no link kind of this scheme.'],
    ]);
    await expect(change(project, wrong)).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('riddles') });
    await change(project, { edits: [{ ...kind, body: { ...kind.body, label: 'Trial' } }] });
    await expect(change(project, { edits: [{ ...kind, body: { ...kind.body, label: 'Proof' } }] })).rejects.toMatchObject({
      code: 'changed-meanwhile',
      details: { key: 'testCase', theirs: { body: { label: 'Trial' } } },
    });
  });

  it('goes out as a file, and is compared with that of another project part by part, by key or name, and taken over', async () => {
    const { project } = await makeLinked();
    const layer = await part(project, 'layer', 'tests');
    await change(project, {
      edits: [
        { sort: 'layer', key: 'places', rank: 9, retired: false, revision: null, body: { label: 'Places' } },
        { sort: 'kind', key: 'place', rank: 20, retired: false, revision: null, body: { label: 'Place', plural: 'Places', layer: 'places' } },
        { ...layer, body: { label: 'Trials' } },
      ],
    });
    await server.client.call(addFields, { params: { project }, body: { fields: [{ kind: 'place', label: 'Height', type: 'number', unit: 'm' }] } });
    const file = await server.client.call(getSchemeFile, { params: { project } });
    expect(file.layers.map((one) => one.label)).toEqual(['Needs', 'System requirements', 'Functions', 'Components', 'Trials', 'Places']);
    const { project: other } = await makeProject(server.client, 'Otterby');
    // The other project made the same layer by itself, under a key of its own.
    await change(other, { edits: [{ sort: 'layer', key: 'sites', rank: 9, retired: false, revision: null, body: { label: 'places' } }] });
    const { entries, onlyHere } = await server.client.call(compareScheme, { params: { project: other }, body: { file } });
    const told = entries.filter((entry) => entry.state !== 'same').map(({ sort, key, state, needs }) => [sort, key, state, needs]);
    expect(told).toEqual([
      ['layer', 'tests', 'changed', []],
      ['layer', 'sites', 'changed', []],
      ['kind', 'place', 'new', []],
      ['field', 'height', 'new', ['kind place']],
    ]);
    expect(onlyHere).toEqual([]);
    const chosen = entries.filter((entry) => (entry.sort === 'field' ? entry.key === 'height' : entry.key === 'place')).map((entry) => entry.edit);
    await change(other, { edits: chosen });
    const { scheme } = await server.client.call(getProject, { params: { project: other } });
    expect(scheme.kinds.find((kind) => kind.id === 'place')).toMatchObject({ layer: 'sites', fields: [{ id: 'height', unit: 'm' }] });
    expect(await server.client.call(getSchemeFileSchema, {})).toMatchObject({ type: 'object', required: expect.arrayContaining(['coombScheme', 'kinds']) });
  });

  it('lists as findings what was kept against it, and what comes in against it, until it is mended; also as of an earlier change', async () => {
    const { project, requirements, one, two, test } = await makeLinked();
    const findings = async () =>
      Object.fromEntries(
        (await server.client.call(getReadiness, { params: { project } })).scheme.map((figure) => [figure.id.slice('scheme:'.length), figure.count]),
      );
    const items = async (figure: string, asOf?: number) => {
      const { items: found } = await server.client.call(openFigure, { params: { project, figure }, query: { ...(asOf && { asOf }) } as object });
      return found.map((item) => `${item.reference}: ${item.note}`);
    };
    expect(await findings()).toEqual({ kinds: 0, links: 0, values: 0, required: 0, open: 0 });
    const priority = await part(project, 'field', 'priority');
    const derives = await part(project, 'linkKind', 'derives');
    const tests = await part(project, 'kind', 'testCase');
    const { seq } = await server.client.call(getProject, { params: { project } });
    await change(project, {
      edits: [
        { ...priority, body: { ...priority.body, required: true, default: 'Medium' } },
        { ...derives, body: { ...derives.body, fromKinds: ['need'] } },
        { ...tests, retired: true },
      ],
      answers: { 'retired-kind-of-new:testCase': 'change:need' },
    });
    const later = await addItem(server.client, project, requirements, 'The gate rests');
    await server.client.call(editItem, { params: { project, item: one.id }, body: { revision: one.revision, fields: { priority: 'Urgent' } } });
    for (const restarted of [false, true]) {
      if (restarted) await server.restart();
      expect(await findings()).toEqual({ kinds: 1, links: 2, values: 1, required: 1, open: 3 });
      expect(await items('scheme:open')).toEqual([
        'TC-001: Test case is retired',
        'REQ-001: link not allowed: is derived from; value not taken: Priority',
        'REQ-002: link not allowed: is derived from; empty: Priority',
      ]);
    }
    // What is made by hand has the default.
    expect((await server.client.call(getItem, { params: { project, item: later.id } })).fields).toEqual({ priority: 'Medium' });
    expect(await items('scheme:open', seq)).toEqual([]);
    expect([two.reference, test.reference]).toEqual(['REQ-002', 'TC-001']);
  });

  it('brings items that are made in passing to the home of their kind, else to where such items are made', async () => {
    const { project, design, tests } = await makeLinked();
    const make = async (kind: string) => server.client.call(createItem, { params: { project }, body: { kind, title: 'In passing' } });
    expect((await make('testCase')).collection).toBe(tests);
    await expect(make('actor')).rejects.toMatchObject({ message: expect.stringContaining('home') });
    const actor = await part(project, 'kind', 'actor');
    await change(project, { edits: [{ ...actor, body: { ...actor.body, home: design } }] });
    expect((await make('actor')).collection).toBe(design);
  });

  it('gives links fields of their own, which take what fits and are part of the history', async () => {
    const { project, one, test } = await makeLinked();
    const linkOf = async () => (await server.client.call(getItem, { params: { project, item: test.id } })).upstream.find((link) => link.other.id === one.id)!;
    const body = { label: 'Depth', type: 'choice' as const, options: ['whole', 'part'], kinds: [], linkKinds: ['verifies'] };
    await change(project, { edits: [{ sort: 'field', key: 'depth', rank: 50, retired: false, revision: null, body }] });
    const link = await linkOf();
    const edit = (fields: Record<string, string | number>, revision = link.revision) =>
      server.client.call(editLink, { params: { project, link: link.id }, body: { revision, fields } });
    await expect(edit({ depth: 3 })).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('Depth') });
    await expect(edit({ width: 'x' })).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('width') });
    await edit({ depth: 'part' });
    await expect(edit({ depth: 'whole' })).rejects.toMatchObject({ code: 'changed-meanwhile' });
    await server.restart();
    expect((await linkOf()).fields).toEqual({ depth: 'part' });
    await server.client.call(undo, { params: { project } });
    expect((await linkOf()).fields).toEqual({});
  });

  it('tells of a rule that is new what it applies to', async () => {
    const { project } = await makeLinked();
    const rule = await part(project, 'rule', 'tested');
    const wish: SchemeWish = {
      edits: [{ ...rule, key: 'owned', revision: null, body: { ...rule.body, label: 'Owned', of: { kinds: ['testCase'] }, reach: { kinds: ['need'] } } }],
    };
    expect(await effectsOf(project, wish)).toEqual([['moved-rule:owned', 1, expect.stringContaining('"Owned" applies to 1 item, 1 of them open')]]);
  });

  it('is told in the history part by part', async () => {
    const { project } = await makeLinked();
    const kind = await part(project, 'kind', 'testCase');
    await change(project, { edits: [{ ...kind, body: { ...kind.body, label: 'Trial' } }] });
    expect((await server.client.call(listChanges, { params: { project }, query: {} }))[0]!.action).toBe('Rename the kind "Test case" to "Trial"');
  });
});
