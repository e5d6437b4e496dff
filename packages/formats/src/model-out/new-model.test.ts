import { applyModelRecipe, defaultScheme, proposeModelRecipe, type Scheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import type { ItemEnd, ReqifItem } from '../reqif/build-reqif-edits.js';
import { writeStandardModel } from '../rewrite-model.js';
import { readXmi } from '../xmi/read-xmi.js';
import { readXmlTree, walkTree } from '../xml/xml-tree.js';
import { buildModelEdits } from './model-edits.js';
import { openNewModel } from './new-model.js';

const item = (id: string, kind: string, title: string, parentAt = -1, more: Partial<ReqifItem> = {}): ReqifItem => ({
  ...{ id, reference: id.toUpperCase(), externalId: null, title, html: '', kind, heading: false, parent: null, depth: 0, fields: {}, links: [] },
  ...{ changed: new Set(), parentAt, ends: [], ...more },
});
const to = (linkKind: string, other: string): ItemEnd => ({ linkKind, reversed: false, other, reference: other.toUpperCase() });

async function write(items: readonly ReqifItem[], scheme: Scheme = defaultScheme) {
  const { bytes, model, recipe } = openNewModel(scheme, 'Weir & "lock"');
  const written = await writeStandardModel(bytes, buildModelEdits(scheme, recipe, model, items));
  const read = await readXmi(written);
  return { written, read, back: applyModelRecipe(scheme, recipe, read.model) };
}

const scene = [
  item('s', 'requirement', 'Gates', -1, { heading: true }),
  item('r1', 'requirement', 'Travel', 0, { html: '<p>The gate shall move by 3.60 m.</p><p>No more.</p>', fields: { priority: 'High' } }),
  item('r2', 'need', 'Let the water pass', 0),
  item('c', 'component', 'Gate', -1, { ends: [to('satisfies', 'r1')] }),
  item('d', 'component', 'Drive'),
  item('p', 'part', 'drive', 3, { ends: [to('typed', 'd')] }),
  item('q', 'part', 'spare', 3),
  item('f', 'function', 'Move', -1, { ends: [to('allocated', 'c')] }),
  item('t', 'testCase', 'Move it', -1, { ends: [to('verifies', 'r1')] }),
];

describe('a model of what came from none', () => {
  it('says in the words of UML and SysML what they have words for', async () => {
    const { read } = await write(scene);
    const by = (name: string) => read.model.elements.find((one) => one.name === name)!;
    expect(by('Travel')).toMatchObject({ type: 'Class', reference: 'R1', text: 'The gate shall move by 3.60 m.\nNo more.' });
    expect(by('Travel').stereotypes).toContain('Requirement');
    expect(by('Gate').stereotypes).toContain('Block');
    expect(by('Move it').stereotypes).toContain('TestCase');
    expect(by('drive')).toMatchObject({ type: 'Property', role: 'part', parent: by('Gate').id, typedBy: by('Drive').id });
    expect(by('Gates').type).toBe('Package');
    expect(by('Travel').parent).toBe(by('Gates').id);
    expect(read.model.relations.map(({ stereotypes, from, to: ends }) => [stereotypes[0], from, ends])).toEqual([
      ['Satisfy', [by('Gate').id], [by('Travel').id]],
      ['Allocate', [by('Move').id], [by('Gate').id]],
      ['Verify', [by('Move it').id], [by('Travel').id]],
    ]);
    expect(read.issues.filter(({ severity }) => severity !== 'note')).toEqual([]);
  });

  it('comes back whole by its recipe: kinds, references, fields, what stands below what, links', async () => {
    const { back } = await write(scene);
    expect(back.drafts.map(({ reference, kind, title, parent, role }) => [reference, kind, title, parent, role])).toEqual([
      ['S', 'package', 'Gates', -1, 'section'],
      ['R1', 'requirement', 'Travel', 0, 'item'],
      ['R2', 'need', 'Let the water pass', 0, 'item'],
      ['C', 'component', 'Gate', -1, 'item'],
      ['P', 'part', 'drive', 3, 'item'],
      ['Q', 'part', 'spare', 3, 'item'],
      ['D', 'component', 'Drive', -1, 'item'],
      ['F', 'function', 'Move', -1, 'item'],
      ['T', 'testCase', 'Move it', -1, 'item'],
    ]);
    expect(back.drafts[1]!.fields).toEqual({ priority: 'High' });
    expect(back.links.map(({ linkKind, draft, target }) => [linkKind, back.drafts[draft]!.reference, target])).toEqual([
      ['typed', 'P', 'coomb-d'],
      ['satisfies', 'C', 'coomb-r1'],
      ['allocated', 'F', 'coomb-c'],
      ['verifies', 'T', 'coomb-r1'],
    ]);
  });

  it('means the same to who has no recipe', async () => {
    const { read } = await write(scene);
    const proposed = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, read.model), read.model);
    const kinds = new Map(proposed.drafts.map(({ title, kind, reference }) => [title, [kind, reference]]));
    expect(kinds.get('Travel')).toEqual(['requirement', 'R1']);
    expect(kinds.get('Gate')).toEqual(['component', null]);
    expect(kinds.get('Move it')).toEqual(['testCase', null]);
    expect(proposed.links.map(({ linkKind }) => linkKind).toSorted()).toEqual(['allocated', 'satisfies', 'typed', 'verifies']);
  });

  it('holds the profile that its stereotypes are of, each applied by the namespace that the profile says', async () => {
    const { written } = await write(scene);
    const nodes = [...walkTree(await readXmlTree(written))];
    const profile = nodes.find(({ attributes }) => attributes.type === 'uml:Profile')!;
    const named = new Set(profile.children.flatMap(({ attributes }) => (attributes.type === 'uml:Stereotype' ? [attributes.name] : [])));
    const applied = nodes.filter(({ attributes }) => Object.keys(attributes).some((name) => name.startsWith('base_')));
    expect(applied.length).toBeGreaterThan(scene.length);
    for (const { tag, space } of applied)
      if (space !== 'http://www.omg.org/spec/SysML/20181001/SysML') expect([space, named.has(tag)]).toEqual([profile.attributes.URI, true]);
    expect(applied.some(({ space }) => space === profile.attributes.URI)).toBe(true);
    // No identifier stands twice, and all that is referred to is there.
    const ids = nodes.flatMap(({ attributes }) => attributes.id ?? []);
    expect(new Set(ids).size).toBe(ids.length);
    for (const { attributes } of nodes)
      for (const name of ['client', 'supplier', 'base_Class', 'memberEnd', 'association', 'appliedProfile'])
        for (const id of attributes[name]?.split(' ') ?? []) expect(ids).toContain(id);
  });

  it('finds names for kinds and fields whatever people call them', async () => {
    const scheme: Scheme = {
      ...defaultScheme,
      kinds: defaultScheme.kinds.map((kind, at) => ({
        ...kind,
        label: at < 3 ? '3 Größen & Maße' : at === 3 ? 'Block' : '???',
        fields: [...kind.fields, { id: 'a', label: 'Text', type: 'text' }, { id: 'b', label: 'text', type: 'text' }, { id: 'c', label: '§', type: 'text' }],
      })) as Scheme['kinds'],
    };
    const fields = { a: 'one', b: 'two <&> "', c: 'three' };
    const items = defaultScheme.kinds.filter(({ id }) => id !== 'drawing').map(({ id }, at) => item(`i${at}`, id, `Of ${id}`, -1, { fields }));
    const { back } = await write(items, scheme);
    const told = back.drafts.map((draft) => [draft.reference, draft.kind, draft.fields.a, draft.fields.b, draft.fields.c]);
    expect(told).toEqual(items.map(({ reference, kind }) => [reference, kind, 'one', 'two <&> "', 'three']));
  });
});
