import { applyModelRecipe, defaultScheme, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readXmi } from './read-xmi.js';

const xmi = (body: string, outside = '') =>
  Buffer.from(
    `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="u" xmlns:umldi="d" xmlns:sysml="s"><xmi:Documentation exporter="Desk"/><uml:Model xmi:type="uml:Model" xmi:id="m" name="Weir">${body}</uml:Model>${outside}</xmi:XMI>`,
  );
const element = (type: string, id: string, name: string, inner = '', more = '') =>
  `<packagedElement xmi:type="uml:${type}" xmi:id="${id}" name="${name}" ${more}>${inner}</packagedElement>`;
const read = async (body: string, outside = '') => (await readXmi(xmi(body, outside))).model;
const harvest = async (body: string, outside = '') => {
  const model = await read(body, outside);
  return applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
};

const blocks =
  element(
    'Class',
    'gate',
    'Gate',
    '<ownedAttribute xmi:type="uml:Property" xmi:id="gate_d" name="drive" aggregation="composite" type="drive"/><ownedAttribute xmi:type="uml:Port" xmi:id="gate_p" name="power"/>',
  ) + element('Class', 'drive', 'Drive');

describe('readXmi', () => {
  it('reads elements with their owner, type and text', async () => {
    const model = await read(
      element(
        'Package',
        'p',
        'Gates',
        `${blocks}<ownedComment xmi:type="uml:Comment" xmi:id="c" body="Moves."><annotatedElement xmi:idref="drive"/></ownedComment>`,
      ),
    );
    expect(model.exporter).toBe('Desk');
    expect(model.elements.map((one) => [one.id, one.type, one.parent, one.typedBy])).toEqual([
      ['m', 'Model', null, null],
      ['p', 'Package', 'm', null],
      ['gate', 'Class', 'p', null],
      ['gate_d', 'Property', 'gate', 'drive'],
      ['gate_p', 'Port', 'gate', null],
      ['drive', 'Class', 'p', null],
      ['c', 'Comment', 'p', null],
    ]);
    expect(model.elements.find((one) => one.id === 'drive')!.text).toBe('Moves.');
  });

  it('reads a comment by its body element, and one without a target as its owner’s', async () => {
    const model = await read(element('Class', 'gate', 'Gate', '<ownedComment xmi:type="uml:Comment" xmi:id="c"><body>Lifts.</body></ownedComment>'));
    expect(model.elements[1]!.text).toBe('Lifts.');
  });

  it('reads ends of relations as attributes or as elements', async () => {
    const model = await read(
      `${blocks}<packagedElement xmi:type="uml:Dependency" xmi:id="d1" client="gate" supplier="drive"/><packagedElement xmi:type="uml:Usage" xmi:id="d2"><client xmi:idref="drive"/><supplier xmi:idref="gate"/></packagedElement>`,
    );
    expect(model.relations.map((one) => [one.type, one.from, one.to])).toEqual([
      ['Dependency', ['gate'], ['drive']],
      ['Usage', ['drive'], ['gate']],
    ]);
  });

  it('applies stereotypes of plain XML, with id and text of requirements', async () => {
    const model = await read(element('Class', 'r', 'Level'), '<sysml:Requirement xmi:id="s1" base_Class="r" id="SYS-001" text="Hold the level."/>');
    expect(model.elements[1]).toMatchObject({ stereotypes: ['Requirement'], reference: 'SYS-001', text: 'Hold the level.' });
  });

  it('reads drawings with positions and routes', async () => {
    const model = await read(
      blocks,
      '<umldi:UMLClassDiagram xmi:id="g" name="Gates"><ownedElement xmi:type="umldi:UMLClassifierShape" modelElement="gate"><bounds x="10" y="20.5" width="100" height="50"/></ownedElement><ownedElement xmi:type="umldi:UMLEdge" modelElement="d1"><waypoint x="1" y="2"/><waypoint x="3" y="4"/></ownedElement></umldi:UMLClassDiagram>',
    );
    expect(model.drawings).toEqual([
      {
        id: 'g',
        name: 'Gates',
        sort: 'class',
        owner: null,
        line: 1,
        shapes: [{ id: 'g/@ownedElement.0', element: 'gate', inside: -1, x: 10, y: 20.5, width: 100, height: 50 }],
        routes: [
          {
            id: 'g/@ownedElement.1',
            element: '',
            from: -1,
            to: -1,
            points: [
              { x: 1, y: 2 },
              { x: 3, y: 4 },
            ],
          },
        ],
      },
    ]);
  });

  it('counts and names what it does not know', async () => {
    const { model, issues } = await readXmi(xmi(`${element('Ticker', 't1', 'tick')}${element('Ticker', 't2', 'tock')}<mystery xmi:type="uml:Riddle"/>`));
    expect([...model.unknown]).toEqual([
      ['Ticker', 2],
      ['Riddle', 1],
    ]);
    expect(issues).toMatchObject([{ code: 'content-unknown', message: expect.stringContaining('2 × Ticker') }, { at: 'Riddle' }]);
  });

  it('names what is broken and reads on', async () => {
    const { model, issues } = await readXmi(
      xmi(
        `${blocks}${element('Class', 'gate', 'Twin')}<packagedElement xmi:type="uml:Class" name="Nobody"/><packagedElement xmi:type="uml:Dependency" xmi:id="d" client="gate" supplier="gone"/>`,
        '<sysml:Block base_Class="gone"/>',
      ),
    );
    expect(issues.map((issue) => issue.code).toSorted()).toEqual(['element-without-id', 'id-twice', 'relation-dangling', 'stereotype-dangling']);
    expect(model.elements.map(({ id, name }) => [id, name]).slice(-2)).toEqual([
      ['gate~2', 'Twin'],
      ['m/@packagedElement.3', 'Nobody'],
    ]);
  });
});

describe('applyModelRecipe', () => {
  it('makes components, parts and ports in their outline, and links parts to what they are a use of', async () => {
    const { drafts, links } = await harvest(blocks);
    expect(drafts.map((draft) => [draft.kind, draft.role, draft.title, draft.parent])).toEqual([
      ['package', 'section', 'Weir', -1],
      ['component', 'item', 'Gate', 0],
      ['part', 'item', 'drive', 1],
      ['port', 'item', 'power', 1],
      ['component', 'item', 'Drive', 0],
    ]);
    expect(links.map((link) => [link.linkKind, link.draft, link.target])).toEqual([['typed', 2, 'drive']]);
  });

  it('knows requirements, functions, use cases and actors', async () => {
    const { drafts } = await harvest(
      element('Class', 'r', 'Level') + element('Activity', 'f', 'Regulate') + element('UseCase', 'u', 'Pass') + element('Actor', 'a', 'Crew'),
      '<sysml:Requirement base_Class="r" id="SYS-001" text="Hold."/>',
    );
    expect(drafts.map((draft) => [draft.kind, draft.reference])).toEqual([
      ['package', null],
      ['requirement', 'SYS-001'],
      ['function', null],
      ['useCase', null],
      ['actor', null],
    ]);
  });

  it('reads satisfying and allocating relations by stereotype', async () => {
    const relation = (id: string, from: string, to: string) => `<packagedElement xmi:type="uml:Abstraction" xmi:id="${id}" client="${from}" supplier="${to}"/>`;
    const body =
      element('Class', 'r', 'Level') +
      element('Class', 'g', 'Gate') +
      element('Activity', 'f', 'Regulate') +
      relation('s', 'g', 'r') +
      relation('al', 'f', 'g');
    const { links } = await harvest(body, '<sysml:Requirement base_Class="r"/><sysml:Satisfy base_Abstraction="s"/><sysml:Allocate base_Abstraction="al"/>');
    expect(links.map((link) => link.linkKind)).toEqual(['satisfies', 'allocated']);
  });

  it('leaves plain data out, counted', async () => {
    const { drafts, issues } = await harvest(
      element('Class', 'g', 'Gate', '<ownedAttribute xmi:type="uml:Property" xmi:id="w" name="width"/>') + element('DataType', 'd', 'Metre'),
    );
    expect(drafts.map((draft) => draft.title)).toEqual(['Weir', 'Gate']);
    expect(issues.map((issue) => issue.message)).toEqual([expect.stringContaining('1 × data type')]);
    expect(drafts[1]!.details).toEqual([{ sort: 'value', text: 'width', element: 'w' }]);
  });

  it('says which relations may not stand between their ends', async () => {
    const { links, issues } = await harvest(
      `${element('Class', 'r', 'Level')}${element('Actor', 'a', 'Crew')}<packagedElement xmi:type="uml:Abstraction" xmi:id="v" client="a" supplier="r"/>`,
      '<sysml:Requirement base_Class="r"/><sysml:Verify base_Abstraction="v"/>',
    );
    expect(links).toEqual([]);
    expect(issues).toMatchObject([{ code: 'relation-not-allowed', at: 'line 1' }]);
  });

  it('gives a nameless part the name of what it is a use of', async () => {
    const { drafts } = await harvest(
      `${element('Class', 'g', 'Gate', '<ownedAttribute xmi:type="uml:Property" xmi:id="x" aggregation="composite" type="d"/>')}${element('Class', 'd', 'Drive')}`,
    );
    expect(drafts[2]!.title).toBe(': Drive');
  });
});
