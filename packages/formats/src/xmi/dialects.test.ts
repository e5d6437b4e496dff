import { applyModelRecipe, countElementSorts, defaultScheme, type ModelDocument, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { zipSync } from 'fflate';
import { type Mark, type Part, plainDialect, writeXmi, xmiDialects } from '../testing/xmi-files.js';
import { readXmi } from './read-xmi.js';

const requirement = (number: number): Part => ({ type: 'Class', id: `r${number}`, name: `Requirement ${number}` });
const dependency = (type: string, id: string, client: string[], supplier: string[]): Part => ({ type, id, ends: { client, supplier } });

/** A small weir with everything that a trace leads through. */
const weir: Part = {
  type: 'Model',
  id: 'm',
  name: 'Weir',
  inside: [
    { type: 'Package', id: 'pr', name: 'Requirements', inside: [1, 2, 3, 4].map(requirement) },
    {
      type: 'Package',
      id: 'ps',
      name: 'Structure',
      inside: [
        {
          type: 'Class',
          id: 'gate',
          name: 'Gate',
          inside: [
            { type: 'Property', tag: 'ownedAttribute', id: 'gd', name: 'drive', values: { aggregation: 'composite' }, ends: { type: ['drive'] } },
            {
              type: 'Property',
              tag: 'ownedAttribute',
              id: 'gt',
              name: 'travel',
              ends: { type: ['metre'] },
              inside: [
                { type: 'LiteralInteger', tag: 'lowerValue', id: 'gl', values: { value: '1' } },
                { type: 'LiteralUnlimitedNatural', tag: 'upperValue', id: 'gu', values: { value: '*' } },
                { type: 'LiteralReal', tag: 'defaultValue', id: 'gv', values: { value: '3.4' } },
              ],
            },
            { type: 'Port', tag: 'ownedAttribute', id: 'gp', name: 'power' },
            {
              type: 'Operation',
              tag: 'ownedOperation',
              id: 'go',
              name: 'move',
              inside: [
                { type: 'Parameter', tag: 'ownedParameter', id: 'go1', name: 'to', ends: { type: ['metre'] } },
                { type: 'Parameter', tag: 'ownedParameter', id: 'go2', values: { direction: 'return' }, ends: { type: ['metre'] } },
              ],
            },
            { type: 'Comment', tag: 'ownedComment', id: 'gc', values: { body: 'Lifts & lowers.' }, ends: { annotatedElement: ['gate'] } },
            {
              type: 'Constraint',
              tag: 'ownedRule',
              id: 'gr',
              ends: { constrainedElement: ['gate'] },
              inside: [{ type: 'OpaqueExpression', tag: 'specification', id: 'gre', values: { body: 'travel < 4' } }],
            },
          ],
        },
        { type: 'Class', id: 'drive', name: 'Drive', inside: [{ type: 'Generalization', tag: 'generalization', id: 'gen', ends: { general: ['gate'] } }] },
        { type: 'DataType', id: 'metre', name: 'Metre' },
      ],
    },
    {
      type: 'Package',
      id: 'pb',
      name: 'Behaviour',
      inside: [
        {
          type: 'Activity',
          id: 'lower',
          name: 'Lower gate',
          inside: [
            { type: 'CallBehaviorAction', tag: 'node', id: 'call', name: 'Lock it', ends: { behavior: ['test1'] } },
            { type: 'InitialNode', tag: 'node', id: 'ini' },
            { type: 'ControlFlow', tag: 'edge', id: 'flow', ends: { source: ['ini'], target: ['call'] } },
          ],
        },
        { type: 'Activity', id: 'test1', name: 'Gate closes in time' },
        { type: 'UseCase', id: 'pass', name: 'Pass a boat', inside: [{ type: 'Include', tag: 'include', id: 'inc', ends: { addition: ['hold'] } }] },
        { type: 'UseCase', id: 'hold', name: 'Hold the level' },
        { type: 'Actor', id: 'crew', name: 'Crew' },
      ],
    },
    dependency('Abstraction', 'sat', ['gate', 'drive'], ['r1', 'r2']),
    dependency('Abstraction', 'ver', ['test1'], ['r1']),
    dependency('Abstraction', 'der', ['r2'], ['r1']),
    dependency('Abstraction', 'alc', ['lower'], ['drive']),
    dependency('Dependency', 'dep', ['gate'], ['drive']),
  ],
};

const mark = (stereotype: string, base: string, on: string, values?: Record<string, string>, ends?: Record<string, string[]>): Mark => ({
  stereotype,
  base,
  on,
  ...(values && { values }),
  ...(ends && { ends }),
});
const marks: Mark[] = [
  ...[1, 2, 3, 4].map((number) => mark('Requirement', 'Class', `r${number}`, { id: `SYS-00${number}`, text: `The gate shall hold ${number}.` })),
  mark('Block', 'Class', 'gate', { isEncapsulated: 'true' }),
  mark('Risky', 'Class', 'gate', { level: 'high' }, { guardian: ['crew'] }),
  mark('Block', 'Class', 'drive'),
  mark('TestCase', 'Behavior', 'test1'),
  mark('Satisfy', 'Abstraction', 'sat'),
  mark('Verify', 'Abstraction', 'ver'),
  mark('DeriveReqt', 'Abstraction', 'der'),
  mark('Allocate', 'Abstraction', 'alc'),
];

/** What a person sees of a model, whichever way its file was written. */
function gist(model: ModelDocument) {
  const { drafts, links } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
  const titleOf = (id: string) => drafts.find((draft) => draft.externalId === id)?.title ?? id;
  return {
    items: drafts.map(({ kind, title, parent, reference, html, details }) => ({
      kind,
      title,
      reference,
      html,
      under: parent < 0 ? '' : drafts[parent]!.title,
      details,
    })),
    links: links.map(({ draft, linkKind, target }) => `${drafts[draft]!.title} ${linkKind} ${titleOf(target)}`),
    sorts: countElementSorts(model).map(({ id, count, values }) => [id, count, values.map(({ name, samples }) => `${name}=${samples.join('|')}`)]),
  };
}

describe('a model of SysML', () => {
  it.each(Object.keys(xmiDialects))('is the same model in the dialect: %s', async (name) => {
    const { model, issues } = await readXmi(writeXmi(weir, marks, xmiDialects[name]));
    const plain = await readXmi(writeXmi(weir, marks, plainDialect));
    expect(model.exporter).toBe('Some desk');
    expect(gist(model)).toEqual(gist(plain.model));
    expect(issues.filter(({ severity }) => severity !== 'note')).toEqual([]);
  });

  it('gives items, details and links of every sort that engineers trace', async () => {
    const { items, links, sorts } = gist((await readXmi(writeXmi(weir, marks))).model);
    expect(items.filter(({ kind }) => kind === 'requirement').map(({ reference, html }) => [reference, html])).toEqual(
      [1, 2, 3, 4].map((number) => [`SYS-00${number}`, `<p>The gate shall hold ${number}.</p>`]),
    );
    expect(items.find(({ title }) => title === 'Gate')).toMatchObject({
      kind: 'component',
      html: '<p>Lifts &amp; lowers.</p>',
      under: 'Structure',
      details: [
        { sort: 'operation', text: 'move(to: Metre): Metre', element: 'go' },
        { sort: 'constraint', text: '{travel < 4}', element: 'gr' },
      ],
    });
    expect(items.find(({ title }) => title === 'travel')).toMatchObject({
      kind: 'value',
      under: 'Gate',
      details: [{ sort: 'declared as', text: 'travel: Metre [1..*] = 3.4', element: 'gt' }],
    });
    expect(items.find(({ title }) => title === 'Gate closes in time')!.kind).toBe('testCase');
    expect(links.toSorted()).toEqual(
      [
        'drive typed Drive',
        'Gate satisfies Requirement 1',
        'Gate satisfies Requirement 2',
        'Drive satisfies Requirement 1',
        'Drive satisfies Requirement 2',
        'Gate closes in time verifies Requirement 1',
        'Requirement 2 derives Requirement 1',
        'Lower gate allocated Drive',
        'Gate depends Drive',
        'Drive depends Gate',
        'Pass a boat depends Hold the level',
      ].toSorted(),
    );
    expect(sorts).toContainEqual(['«Block» «Risky» Class', 1, ['Block.isEncapsulated=true', 'Risky.level=high', 'Risky.guardian=Crew']]);
  });

  it('stands alone as well as in an XMI root', async () => {
    const { model } = await readXmi(writeXmi(weir, [], { ...plainDialect, root: false }));
    expect(gist(model).items.map(({ title }) => title)).toContain('Drive');
  });
});

describe('a file whose names without prefix', () => {
  const inside = (id: string) => `<packagedElement xmi:type="uml:Class" xmi:id="${id}" name="Gate"/>`;
  it.each([
    [
      'are of UML',
      `<Model xmlns="http://www.omg.org/spec/UML/20161101" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmi:id="m" name="Weir">${inside('g')}</Model>`,
    ],
    [
      'are of XMI',
      `<XMI xmlns="http://www.omg.org/spec/XMI/20131001" xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101"><Documentation><exporter>Desk</exporter></Documentation><uml:Model xmi:id="m" name="Weir">${inside('g')}</uml:Model></XMI>`,
    ],
  ])('%s is read', async (_, text) => {
    const { model } = await readXmi(Buffer.from(text));
    expect(model.elements.map(({ id, type, name }) => [id, type, name])).toEqual([
      ['m', 'Model', 'Weir'],
      ['g', 'Class', 'Gate'],
    ]);
  });
});

describe('a model in several files', () => {
  const library: Part = { type: 'Package', id: 'lib', name: 'Library', inside: [{ type: 'Class', id: 'motor', name: 'Motor' }] };
  const main: Part = {
    type: 'Model',
    id: 'main',
    name: 'Main',
    inside: [
      {
        type: 'Class',
        id: 'unit',
        name: 'Unit',
        inside: [{ type: 'Property', tag: 'ownedAttribute', id: 'part', name: 'motor', values: { aggregation: 'composite' } }],
      },
    ],
  };
  const withLinks = (text: Buffer, address: string) =>
    Buffer.from(
      text
        .toString()
        .replace('name="motor" aggregation="composite"/>', `name="motor" aggregation="composite"><type href="${address}#motor"/></ownedAttribute>`)
        .replace(
          '</uml:Model>',
          `<packagedElement xmi:type="uml:Dependency" xmi:id="out"><client xmi:idref="unit"/><supplier href="${address}#motor"/></packagedElement></uml:Model>`,
        ),
    );
  const files = (address: string) => ({ 'model/main.xmi': withLinks(writeXmi(main, []), address), 'libraries/the motors.uml': writeXmi(library, []) });

  it('is one when it comes as an archive: references lead from file to file', async () => {
    const { model, issues } = await readXmi(zipSync(files('../libraries/the%20motors.uml')));
    expect(model.elements.find(({ id }) => id === 'part')).toMatchObject({ typedBy: 'motor', role: 'part', file: 'model/main.xmi' });
    expect(model.relations).toMatchObject([{ from: ['unit'], to: ['motor'] }]);
    expect(model.missing).toEqual([]);
    expect(issues).toEqual([]);
  });

  it('names the file that is missing, and keeps what leads there as waiting', async () => {
    const { model, issues } = await readXmi(files('lib.uml')['model/main.xmi']);
    expect(model.missing).toEqual([{ part: 'lib.uml', count: 2 }]);
    expect(model.relations).toMatchObject([{ from: ['unit'], to: [], waiting: [{ end: 'to', target: 'lib.uml#motor' }] }]);
    expect(issues).toMatchObject([{ code: 'part-missing', at: 'lib.uml' }]);
    const { links } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
    expect(links).toMatchObject([
      { linkKind: 'typed', target: 'lib.uml#motor', by: 'source', awaits: ['typed'] },
      { linkKind: 'depends', target: 'lib.uml#motor', by: 'source', awaits: ['depends'] },
    ]);
  });

  it('tells elements of the same identifier in different files apart', async () => {
    const twice = { 'a.xmi': writeXmi({ type: 'Model', id: '1', name: 'A' }, []), 'b.xmi': writeXmi({ type: 'Model', id: '1', name: 'B' }, []) };
    const { model } = await readXmi(zipSync(twice));
    expect(model.elements.map(({ id, name }) => [id, name])).toEqual([
      ['1', 'A'],
      ['b.xmi#1', 'B'],
    ]);
  });

  it('finds elements without identifiers by their place', async () => {
    const text = `<uml:Model xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:xmi="http://www.omg.org/spec/XMI/20131001" name="Weir"><packagedElement xmi:type="uml:Class" name="Gate"/><packagedElement xmi:type="uml:Class" name="Drive"><generalization general="//@packagedElement.0"/></packagedElement></uml:Model>`;
    const { model } = await readXmi(Buffer.from(text));
    expect(model.elements.map(({ id, name }) => [id, name])).toEqual([
      ['/', 'Weir'],
      ['//@packagedElement.0', 'Gate'],
      ['//@packagedElement.1', 'Drive'],
    ]);
    expect(model.relations).toMatchObject([{ type: 'Generalization', from: ['//@packagedElement.1'], to: ['//@packagedElement.0'] }]);
  });
});
