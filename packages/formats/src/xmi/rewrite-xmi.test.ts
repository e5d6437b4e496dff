import { applyModelRecipe, defaultScheme, type ModelDocument, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import type { ModelEdits } from '../model-out/model-edits.js';
import { canonicalXml } from '../testing/canonical-xml.js';
import { type Mark, type Part, plainDialect, writeXmi, xmiDialects } from '../testing/xmi-files.js';
import { readXmi } from './read-xmi.js';
import { rewriteXmi } from './rewrite-xmi.js';

const none: ModelEdits = {
  names: new Map(),
  texts: new Map(),
  references: new Map(),
  values: new Map(),
  types: new Map(),
  removed: new Set(),
  added: [],
  removedRelations: [],
  addedRelations: [],
  boxes: new Map(),
  points: new Map(),
};

const weir: Part = {
  type: 'Model',
  id: 'm',
  name: 'Weir',
  inside: [
    {
      type: 'Package',
      id: 'p',
      name: 'Structure',
      inside: [
        {
          type: 'Class',
          id: 'gate',
          name: 'Gate',
          inside: [
            { type: 'Property', tag: 'ownedAttribute', id: 'gd', name: 'drive', values: { aggregation: 'composite' }, ends: { type: ['drive'] } },
            { type: 'Comment', tag: 'ownedComment', id: 'gc', values: { body: 'Lifts.' }, ends: { annotatedElement: ['gate'] } },
          ],
        },
        { type: 'Class', id: 'drive', name: 'Drive', inside: [{ type: 'Generalization', tag: 'generalization', id: 'gen', ends: { general: ['gate'] } }] },
        { type: 'Class', id: 'lamp', name: 'Lamp' },
        { type: 'Class', id: 'r1', name: 'Travel' },
        { type: 'Class', id: 'r2', name: 'Load' },
      ],
    },
    { type: 'Abstraction', id: 'sat', ends: { client: ['gate', 'drive'], supplier: ['r1'] } },
    { type: 'Dependency', id: 'dep', ends: { client: ['gate'], supplier: ['lamp'] } },
  ],
};
const marks: Mark[] = [
  { stereotype: 'Requirement', base: 'Class', on: 'r1', values: { id: 'R-1', text: 'The gate shall move.' } },
  { stereotype: 'Requirement', base: 'Class', on: 'r2', values: { id: 'R-2', text: 'The gate shall bear.' } },
  { stereotype: 'Block', base: 'Class', on: 'gate', values: { isEncapsulated: 'true' } },
  { stereotype: 'Satisfy', base: 'Abstraction', on: 'sat' },
];
const drawing =
  '<umldi:UMLClassDiagram xmi:id="dg" name="Gates" xmlns:xmi="http://www.omg.org/spec/XMI/20131001"><ownedElement xmi:type="umldi:UMLClassifierShape" xmi:id="s1" modelElement="gate"><bounds x="1" y="2" width="3" height="4"/></ownedElement><ownedElement xmi:type="umldi:UMLClassifierShape" xmi:id="s2" modelElement="lamp"><bounds x="1" y="2" width="3" height="4"/></ownedElement><ownedElement xmi:type="umldi:UMLEdge" xmi:id="e1" modelElement="dep" source="s1" target="s2"><waypoint x="1" y="2"/><waypoint x="3" y="4"/></ownedElement></umldi:UMLClassDiagram>';

/** All that a model says, without where it stands in its file. */
const said = (model: ModelDocument) => ({
  elements: model.elements.map(({ line: _, file: __, ...element }) => element),
  relations: model.relations.map(({ line: _, file: __, ...relation }) => relation),
  drawings: model.drawings.map(({ name, shapes, routes }) => ({
    name,
    shapes: shapes.map(({ element }) => element),
    routes: routes.map(({ element }) => element),
  })),
});

describe.each(Object.entries(xmiDialects))('a model in the dialect: %s', (_, dialect) => {
  const file = writeXmi(weir, marks, dialect, drawing);
  const encoding = dialect.encoding === 'utf8' ? 'utf8' : 'utf16le';
  const textOf = (bytes: Buffer) => (dialect.encoding === 'utf16be' ? Buffer.from(bytes).swap16() : bytes).toString(encoding).replace(/^\ufeff/, '');
  const rewrite = async (edits: Partial<ModelEdits>) => {
    const bytes = await rewriteXmi(file, { ...none, ...edits });
    return { bytes, text: textOf(bytes), ...(await readXmi(bytes)) };
  };
  const find = (model: ModelDocument, id: string) => model.elements.find((element) => element.id === id);

  it('goes out byte for byte where nothing was changed', async () => expect((await rewrite({})).bytes.equals(file)).toBe(true));

  it('takes new names, texts and values where the old ones stood, and changes nothing else', async () => {
    const before = await readXmi(file);
    const { model, text } = await rewrite({
      names: new Map([
        ['gate', 'Sluice & <gate>'],
        ['dg', 'All gates'],
      ]),
      texts: new Map([
        ['gate', 'Lifts\nand lowers "slowly".'],
        ['r1', 'The gate shall move by 3 m.'],
      ]),
      values: new Map([['gate', new Map([['Block.isEncapsulated', 'false']])]]),
    });
    const expected = said(before.model);
    Object.assign(expected.elements.find(({ id }) => id === 'gate')!, { name: 'Sluice & <gate>', text: 'Lifts\nand lowers "slowly".' });
    expected.elements.find(({ id }) => id === 'gate')!.values['Block.isEncapsulated'] = 'false';
    expected.elements.find(({ id }) => id === 'gc')!.text = 'Lifts\nand lowers "slowly".';
    expected.elements.find(({ id }) => id === 'r1')!.text = 'The gate shall move by 3 m.';
    expected.drawings[0]!.name = 'All gates';
    expect(said(model)).toEqual(expected);
    // Lines that differ: the two names, two texts and the value, and no more.
    const lines = (xml: string) => canonicalXml(xml.replace(/^<\?xml[^>]*>/, ''));
    const old = lines(textOf(file));
    const changed = lines(text).filter((line, index) => line !== old[index]);
    expect(changed).toHaveLength(5);
  });

  it('gets a text where there was none', async () => {
    const { model } = await rewrite({ texts: new Map([['lamp', 'Shines.']]) });
    expect(find(model, 'lamp')!.text).toBe('Shines.');
  });

  it('gets elements with stereotypes, and relations of the right sort', async () => {
    const added = { type: 'Class', role: undefined, values: new Map<string, string>() };
    const { model, issues } = await rewrite({
      added: [
        { ...added, id: 'new1', stereotypes: ['Requirement'], name: 'Noise', text: 'The gate shall be quiet.', reference: 'R-3', parent: 'p' },
        { ...added, id: 'new2', stereotypes: ['Block'], name: 'Horn', text: 'Sounds.', reference: '', parent: 'p' },
        { ...added, id: 'new3', type: 'Port', stereotypes: [], name: 'mains', text: '', reference: '', parent: 'new2' },
      ],
      addedRelations: [
        { id: 'rel1', type: 'Abstraction', stereotypes: ['Satisfy'], from: 'new2', to: 'new1' },
        { id: 'rel2', type: 'Abstraction', stereotypes: ['Verify'], from: 'lamp', to: 'r2' },
      ],
    });
    expect(issues.filter(({ severity }) => severity !== 'note')).toEqual([]);
    expect(find(model, 'new1')).toMatchObject({ name: 'Noise', text: 'The gate shall be quiet.', reference: 'R-3', stereotypes: ['Requirement'], parent: 'p' });
    expect(find(model, 'new2')).toMatchObject({ name: 'Horn', text: 'Sounds.', stereotypes: ['Block'], parent: 'p' });
    expect(find(model, 'new3')).toMatchObject({ type: 'Port', name: 'mains', parent: 'new2' });
    expect(model.relations.slice(-2)).toMatchObject([
      { id: 'rel1', stereotypes: ['Satisfy'], from: ['new2'], to: ['new1'] },
      { id: 'rel2', stereotypes: ['Verify'], from: ['lamp'], to: ['r2'] },
    ]);
  });

  it('loses an element with all that rests on it, and keeps the rest', async () => {
    const before = said((await readXmi(file)).model);
    const { model, issues, text } = await rewrite({ removed: new Set(['lamp', 'drive']) });
    expect(issues.filter(({ severity }) => severity !== 'note')).toEqual([]);
    expect(text).not.toContain('"lamp"');
    const after = said(model);
    expect(after.elements.map(({ id }) => id)).toEqual(before.elements.map(({ id }) => id).filter((id) => id !== 'lamp' && id !== 'drive'));
    expect(after.elements.find(({ id }) => id === 'gd')).toMatchObject({ name: 'drive', typedBy: null });
    expect(after.relations.map(({ id, from, to }) => [id, from, to])).toEqual([['sat', ['gate'], ['r1']]]);
    expect(after.drawings).toEqual([{ name: 'Gates', shapes: ['gate'], routes: [] }]);
  });

  it('loses a relation whole, or only the ends that lead nowhere any more', async () => {
    const { model } = await rewrite({
      removedRelations: [
        { relation: 'dep', from: 'gate', to: 'lamp' },
        { relation: 'sat', from: 'drive', to: 'r1' },
      ],
    });
    expect(model.relations.map(({ id, from, to }) => [id, from, to])).toEqual([
      ['gen', ['drive'], ['gate']],
      ['sat', ['gate'], ['r1']],
    ]);
    expect(model.drawings[0]!.routes).toEqual([]);
  });

  it('reads back with the recipe that it was read by', async () => {
    const { model } = await rewrite({ names: new Map([['gate', 'Sluice']]) });
    const { drafts } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
    expect(drafts.map(({ title }) => title)).toContain('Sluice');
  });
});

it('keeps an archive whose parts refer to each other', async () => {
  const { zipSync, unzipSync } = await import('fflate');
  const parts = {
    'a/main.xmi': writeXmi(weir, marks, plainDialect),
    'a/notes.txt': Buffer.from('kept'),
    'b.uml': writeXmi({ type: 'Model', id: 'lib', name: 'Library' }, []),
  };
  const back = unzipSync(await rewriteXmi(zipSync(parts), { ...none, names: new Map([['lib', 'Parts']]) }));
  expect(Object.keys(back).toSorted()).toEqual(['a/main.xmi', 'a/notes.txt', 'b.uml']);
  expect(Buffer.from(back['a/main.xmi']!).equals(parts['a/main.xmi'])).toBe(true);
  expect(Buffer.from(back['b.uml']!).toString()).toContain('name="Parts"');
});
