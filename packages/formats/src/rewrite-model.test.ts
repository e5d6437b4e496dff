import { describe, expect, it } from 'vitest';
import { readBpmn } from './bpmn/read-bpmn.js';
import { readDmn } from './dmn/read-dmn.js';
import type { AddedElement, AddedRelation, ModelEdits } from './model-out/model-edits.js';
import { rewriteModel } from './rewrite-model.js';
import { readEcore } from './ecore/read-ecore.js';
import { readSsp } from './ssp/read-ssp.js';

const edits = (more: Partial<ModelEdits>): ModelEdits => ({
  ...{ names: new Map(), texts: new Map(), references: new Map(), values: new Map(), types: new Map() },
  ...{ removed: new Set(), added: [], removedRelations: [], addedRelations: [], boxes: new Map(), points: new Map() },
  ...more,
});
const added = (id: string, type: string, parent: string | null, name = id, text = ''): AddedElement => ({
  ...{ id, type, role: undefined, stereotypes: [], name, text, reference: '', parent, values: new Map() },
});
const joined = (type: string, from: string, to: string): AddedRelation => ({ id: `${from}-${to}`, type, stereotypes: [], from, to });

const shape = (id: string, x: number) => `<di:BPMNShape id="s_${id}" bpmnElement="${id}"><dc:Bounds x="${x}" y="10" width="100" height="80"/></di:BPMNShape>`;
const PROCESS = `<?xml version="1.0"?>
<b:definitions xmlns:b="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:di="http://www.omg.org/spec/BPMN/20100524/DI" xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" xmlns:l="http://www.omg.org/spec/DD/20100524/DI" xmlns:own="urn:own">
  <b:collaboration id="c"><b:participant id="pa" name="Lock" processRef="p"/><b:participant id="pb" name="Boat" processRef="q"/><b:messageFlow id="m1" sourceRef="q1" targetRef="t1"/></b:collaboration>
  <b:process id="p">
    <b:laneSet id="ls"><b:lane id="lane" name="Keeper"><b:flowNodeRef>t1</b:flowNodeRef><b:flowNodeRef>t2</b:flowNodeRef></b:lane></b:laneSet>
    <b:task id="t1" name="Open"><b:extensionElements><own:note by="t2"/></b:extensionElements><b:outgoing>f1</b:outgoing></b:task>
    <b:exclusiveGateway id="g" default="f2"><b:incoming>f1</b:incoming><b:outgoing>f2</b:outgoing><b:outgoing>f3</b:outgoing></b:exclusiveGateway>
    <b:task id="t2" name="Wait"><b:incoming>f2</b:incoming></b:task>
    <b:task id="t3" name="Close"/>
    <b:boundaryEvent id="e" attachedToRef="t2"/>
    <b:sequenceFlow id="f1" sourceRef="t1" targetRef="g"/>
    <b:sequenceFlow id="f2" sourceRef="g" targetRef="t2"/>
    <b:sequenceFlow id="f3" sourceRef="g" targetRef="t3"/>
    <b:textAnnotation id="a"><b:text>Slowly.</b:text></b:textAnnotation>
    <b:association id="as" sourceRef="a" targetRef="t2"/>
  </b:process>
  <b:process id="q"><b:task id="q1" name="Call"/></b:process>
  <di:BPMNDiagram id="d"><di:BPMNPlane id="pl" bpmnElement="c">${shape('t1', 10)}${shape('g', 150)}${shape('t2', 300)}${shape('t3', 450)}${shape('e', 380)}<di:BPMNEdge id="s_f2" bpmnElement="f2"><l:waypoint x="1" y="2"/><l:waypoint x="3" y="4"/></di:BPMNEdge><di:BPMNEdge id="s_f3" bpmnElement="f3"><l:waypoint x="1" y="2"/><l:waypoint x="3" y="4"/></di:BPMNEdge></di:BPMNPlane></di:BPMNDiagram>
</b:definitions>
`;

describe('a process that goes home', () => {
  const rewrite = async (more: Partial<ModelEdits>) => {
    const written = (await rewriteModel('bpmn', Buffer.from(PROCESS), edits(more))).toString();
    return { written, ...(await readBpmn(Buffer.from(written))) };
  };

  it('is the same, byte for byte, where nothing was changed', async () => {
    expect((await rewrite({})).written).toBe(PROCESS);
  });

  it('loses what was withdrawn, with what led to it and showed it, and nothing else', async () => {
    const { written, model, issues } = await rewrite({ removed: new Set(['t2']) });
    expect(model.elements.map(({ id }) => id)).toEqual(['c', 'pa', 'pb', 'p', 'lane', 't1', 'g', 't3', 'a', 'q', 'q1']);
    expect(model.relations.map(({ id }) => id)).toEqual(['m1', 'f1', 'f3']);
    expect(model.drawings[0]!.shapes.map(({ element }) => element)).toEqual(['t1', 'g', 't3']);
    expect(model.drawings[0]!.routes.map(({ element }) => element)).toEqual(['f3']);
    expect(issues).toEqual([]);
    // Only in an extension, which is its tool's own.
    expect(written.match(/"t2"|>t2<|f2/g)).toEqual(['"t2"']);
    expect(written).toContain('<b:exclusiveGateway id="g"><b:incoming>f1</b:incoming><b:outgoing>f3</b:outgoing></b:exclusiveGateway>');
  });

  it('takes tasks into the lane or the process that they were made in, before its notes, and shows them', async () => {
    const { written, model, issues } = await rewrite({
      added: [added('n1', 'Task', 'lane', 'Look & listen', 'Both banks.'), added('n2', 'UserTask', 'pb')],
      addedRelations: [
        joined('SequenceFlow', 'n1', 't3'),
        joined('MessageFlow', 'n2', 'n1'),
        joined('MessageFlow', 't1', 't3'),
        joined('SequenceFlow', 'n1', 'nobody'),
      ],
    });
    const by = (id: string) => model.elements.find((one) => one.id === id)!;
    expect(by('n1')).toMatchObject({ type: 'Task', name: 'Look & listen', text: 'Both banks.', parent: 'lane' });
    expect(by('n2')).toMatchObject({ type: 'UserTask', parent: 'q' });
    expect(written.indexOf('id="n1"')).toBeGreaterThan(written.indexOf('id="f3"'));
    expect(written.indexOf('id="n1"')).toBeLessThan(written.indexOf('<b:textAnnotation'));
    expect(model.relations.map(({ type, from, to }) => `${from} ${type} ${to}`).filter((one) => /\bn\d/.test(one))).toEqual([
      'n2 MessageFlow n1',
      'n1 SequenceFlow t3',
    ]);
    const { shapes, routes } = model.drawings[0]!;
    const box = shapes.find(({ element }) => element === 'n1')!;
    expect(Math.min(box.y, shapes.find(({ element }) => element === 'n2')!.y)).toBeGreaterThan(90);
    expect(routes.slice(-2).map(({ element, from, to }) => [element, shapes[from]?.element, shapes[to]?.element])).toEqual([
      ['n1-t3', 'n1', 't3'],
      ['n2-n1', 'n2', 'n1'],
    ]);
    expect(issues).toEqual([]);
  });

  it('takes names, texts and flows that were undone', async () => {
    const { written, model } = await rewrite({
      names: new Map([['t1', 'Open "slowly"']]),
      texts: new Map([
        ['t1', 'By hand.'],
        ['a', 'Fast.'],
      ]),
      removedRelations: [{ relation: 'f3', from: 'g', to: 't3' }],
    });
    expect(model.elements.find(({ id }) => id === 't1')).toMatchObject({ name: 'Open "slowly"', text: 'By hand.' });
    expect(written).toContain('<b:documentation>By hand.</b:documentation><b:extensionElements>');
    expect(written).toContain('<b:text>Fast.</b:text>');
    expect(model.relations.map(({ id }) => id)).not.toContain('f3');
    expect(model.drawings[0]!.routes.map(({ element }) => element)).toEqual(['f2']);
  });
});

const DECISIONS = `<definitions xmlns="https://www.omg.org/spec/DMN/20191111/MODEL/" xmlns:dmndi="https://www.omg.org/spec/DMN/20191111/DMNDI/" xmlns:dc="http://www.omg.org/spec/DMN/20180521/DC/" xmlns:di="http://www.omg.org/spec/DMN/20180521/DI/" id="d" name="Levels">
  <decision id="a" name="Stage"><variable name="Stage" typeRef="string"/><informationRequirement id="r1"><requiredDecision href="#b"/></informationRequirement><literalExpression><text>1</text></literalExpression></decision>
  <decision id="b" name="Forecast"><informationRequirement id="r2"><requiredInput href="#i"/></informationRequirement></decision>
  <inputData id="i" name="Level"/>
  <dmndi:DMNDI><dmndi:DMNDiagram id="dr"><dmndi:DMNShape id="s_a" dmnElementRef="a"><dc:Bounds x="0" y="0" width="180" height="80"/></dmndi:DMNShape><dmndi:DMNShape id="s_b" dmnElementRef="b"><dc:Bounds x="0" y="200" width="180" height="80"/></dmndi:DMNShape><dmndi:DMNEdge id="e1" dmnElementRef="r1"><di:waypoint x="90" y="200"/><di:waypoint x="90" y="80"/></dmndi:DMNEdge></dmndi:DMNDiagram></dmndi:DMNDI>
</definitions>
`;

describe('decisions that go home', () => {
  const rewrite = async (more: Partial<ModelEdits>) => {
    const written = (await rewriteModel('dmn', Buffer.from(DECISIONS), edits(more))).toString();
    return { written, ...(await readDmn(Buffer.from(written))) };
  };

  it('are the same, byte for byte, where nothing was changed', async () => {
    expect((await rewrite({})).written).toBe(DECISIONS);
  });

  it('lose what was withdrawn with what needed it', async () => {
    const { model, written, issues } = await rewrite({ removed: new Set(['b']) });
    expect(model.elements.map(({ id }) => id)).toEqual(['a', 'i']);
    expect(model.relations).toEqual([]);
    expect(model.drawings[0]).toMatchObject({ shapes: [{ element: 'a' }], routes: [] });
    expect(issues).toEqual([]);
    expect(written).not.toMatch(/#b|r1/);
  });

  it('take what was made here, each need by what the two are, where the standard has it', async () => {
    const { model, written, issues } = await rewrite({
      added: [added('n', 'InputData', null, 'Rain'), added('k', 'KnowledgeSource', null, 'The keeper’s log', 'Since 1911.'), added('x', 'Process', null)],
      addedRelations: [
        joined('InformationRequirement', 'a', 'n'),
        joined('InformationRequirement', 'k', 'n'),
        joined('InformationRequirement', 'a', 'k'),
        joined('InformationRequirement', 'n', 'a'),
      ],
    });
    expect(model.elements.map(({ id, type, text }) => [id, type, text]).slice(-2)).toEqual([
      ['n', 'InputData', ''],
      ['k', 'KnowledgeSource', 'Since 1911.'],
    ]);
    expect(model.relations.map(({ type, from, to }) => `${from} ${type} ${to}`)).toEqual([
      'a InformationRequirement b',
      'a InformationRequirement n',
      'a AuthorityRequirement k',
      'b InformationRequirement i',
      'k AuthorityRequirement n',
    ]);
    // Needs stand before the logic, elements before the drawing.
    expect(written.indexOf('id="a-n"')).toBeLessThan(written.indexOf('<literalExpression>'));
    expect(written.indexOf('<inputData id="n"')).toBeLessThan(written.indexOf('<dmndi:DMNDI>'));
    expect(model.drawings[0]!.shapes.map(({ element }) => element).toSorted()).toEqual(['a', 'b', 'k', 'n']);
    // What the standard has no need for is not drawn either.
    expect(model.drawings[0]!.routes.map(({ element }) => element)).toEqual(['r1', 'a-n', 'k-n', 'a-k']);
    expect(issues).toEqual([]);
  });
});

const STRUCTURE = `<ssd:SystemStructureDescription xmlns:ssd="http://ssp-standard.org/SSP1/SystemStructureDescription" version="1.0" name="S"><ssd:System name="Gate"><ssd:Connectors><ssd:Connector name="order" kind="input"/></ssd:Connectors><ssd:Elements><ssd:Component name="Motor" source="m.fmu"><ssd:Connectors><ssd:Connector name="in" kind="input"/><ssd:Connector name="out" kind="output"/></ssd:Connectors></ssd:Component><ssd:Component name="Brake" source="b.fmu"><ssd:Connectors><ssd:Connector name="in" kind="input"/></ssd:Connectors></ssd:Component></ssd:Elements><ssd:Connections><ssd:Connection startConnector="order" endElement="Motor" endConnector="in"/><ssd:Connection startElement="Motor" startConnector="out" endElement="Brake" endConnector="in"/></ssd:Connections></ssd:System></ssd:SystemStructureDescription>`;

describe('a system structure that goes home', () => {
  const rewrite = async (more: Partial<ModelEdits>) => readSsp(await rewriteModel('ssp', Buffer.from(STRUCTURE), edits(more)));

  it('loses components and connectors that were withdrawn, with their connections', async () => {
    const without = await rewrite({ removed: new Set(['Gate/Brake']), texts: new Map([['Gate/Motor', 'Four poles.']]) });
    expect(without.model.elements.map(({ id }) => id)).toEqual(['Gate', 'Gate.order', 'Gate/Motor', 'Gate/Motor.in', 'Gate/Motor.out']);
    expect(without.model.relations.map(({ to }) => to)).toEqual([['Gate/Motor.in']]);
    expect(without.model.elements[2]!.text).toBe('Four poles.');
    expect(without.issues).toEqual([]);
    const unplugged = await rewrite({ removed: new Set(['Gate/Motor.out']) });
    expect(unplugged.model.relations).toHaveLength(1);
    expect(unplugged.issues).toEqual([]);
  });

  it('tells connections of new names, and takes what was made', async () => {
    const { model, issues } = await rewrite({
      names: new Map([
        ['Gate/Motor', 'Drive motor'],
        ['Gate/Motor.in', 'order'],
      ]),
      added: [
        added('new', 'SystemComponent', 'Gate', 'Hand crank', 'For when all else fails.'),
        added('new.c', 'Connector', 'new', 'shaft'),
        added('c', 'Connector', 'Gate/Brake', 'hold'),
      ],
    });
    expect(model.elements.map(({ id }) => id)).toEqual(
      'Gate, Gate.order, Gate/Drive motor, Gate/Drive motor.order, Gate/Drive motor.out, Gate/Brake, Gate/Brake.in, Gate/Brake.hold, Gate/Hand crank, Gate/Hand crank.shaft'.split(
        ', ',
      ),
    );
    expect(model.relations.map(({ from, to }) => `${from} > ${to}`)).toEqual(['Gate.order > Gate/Drive motor.order', 'Gate/Drive motor.out > Gate/Brake.in']);
    expect(issues).toEqual([]);
  });
});

const CLASSES = `<?xml version="1.0" encoding="UTF-8"?>
<ecore:EPackage xmi:version="2.0" xmlns:xmi="http://www.omg.org/XMI" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xmlns:ecore="http://www.eclipse.org/emf/2002/Ecore" name="lock" nsURI="urn:lock" nsPrefix="lock">
  <eClassifiers xsi:type="ecore:EClass" name="Part"/>
  <eClassifiers xsi:type="ecore:EClass" name="Gate" eSuperTypes="#//Part #//Thing">
    <eStructuralFeatures xsi:type="ecore:EReference" name="drive" containment="true" eType="#//Drive" eOpposite="#//Drive/gate"/>
    <eStructuralFeatures xsi:type="ecore:EAttribute" name="width" eType="ecore:EDataType http://www.eclipse.org/emf/2002/Ecore#//EDouble"/>
  </eClassifiers>
  <eClassifiers xsi:type="ecore:EClass" name="Drive" eSuperTypes="#//Part">
    <eAnnotations source="urn:own"><details key="documentation" value="Moves."/></eAnnotations>
    <eStructuralFeatures xsi:type="ecore:EReference" name="gate" eType="#//Gate" eOpposite="#//Gate/drive"/>
    <eStructuralFeatures xsi:type="ecore:EReference" name="parts" eType="ecore:EClass #//Part" upperBound="-1"/>
  </eClassifiers>
  <eClassifiers xsi:type="ecore:EClass" name="Thing"/>
</ecore:EPackage>
`;

describe('an Ecore model that goes home', () => {
  const rewrite = async (more: Partial<ModelEdits>) => {
    const written = (await rewriteModel('ecore', Buffer.from(CLASSES), edits(more))).toString();
    return { written, ...(await readEcore(Buffer.from(written))) };
  };

  it('is the same, byte for byte, where nothing was changed', async () => {
    expect((await rewrite({})).written).toBe(CLASSES);
  });

  it('tells all that refers to it of a new name', async () => {
    const { written } = await rewrite({
      names: new Map([
        ['//Gate', 'Leaf'],
        ['//Gate/drive', 'mover'],
        ['//Part', 'Piece'],
      ]),
    });
    const expected = CLASSES.replaceAll('"Gate"', '"Leaf"')
      .replaceAll('#//Gate', '#//Leaf')
      .replace('name="drive"', 'name="mover"')
      .replace('#//Leaf/drive', '#//Leaf/mover')
      .replaceAll('"Part"', '"Piece"')
      .replaceAll('#//Part', '#//Piece');
    expect(written).toBe(expected);
  });

  it('loses what was withdrawn; nothing refers to it any more', async () => {
    const { model, issues, written } = await rewrite({
      removed: new Set(['//Part']),
      removedRelations: [{ relation: '//Gate > //Thing', from: '//Gate', to: '//Thing' }],
    });
    expect(model.elements.map(({ name }) => name)).toEqual(['lock', 'Gate', 'drive', 'width', 'Drive', 'gate', 'parts', 'Thing']);
    expect(written).not.toMatch(/Part"|eSuperTypes|ecore:EClass #/);
    expect(model.relations).toEqual([]);
    expect(issues).toEqual([]);
  });

  it('takes documentation, classes and references that were made here', async () => {
    const { model, issues } = await rewrite({
      texts: new Map([
        ['//Drive', 'Moves & holds.'],
        ['//Gate', 'Two leaves.'],
      ]),
      added: [
        added('n', 'EClass', '/', 'Crank', 'By hand.'),
        { ...added('m', 'EReference', 'n', 'shaft'), role: 'part', typedBy: '//Part' },
        { ...added('o', 'EReference', '//Gate', 'crank'), role: 'part', typedBy: 'n' },
        added('x', 'Task', '/', 'nothing'),
      ],
    });
    const by = (id: string) => model.elements.find((one) => one.id === id)!;
    expect(by('//Drive').text).toBe('Moves & holds.');
    expect(by('//Gate').text).toBe('Two leaves.');
    expect(by('//Crank')).toMatchObject({ type: 'EClass', text: 'By hand.' });
    expect(by('//Crank/shaft')).toMatchObject({ role: 'part', typedBy: '//Part' });
    expect(by('//Gate/crank')).toMatchObject({ role: 'part', typedBy: '//Crank' });
    expect(model.elements.map(({ name }) => name)).not.toContain('nothing');
    expect(issues).toEqual([]);
  });
});
