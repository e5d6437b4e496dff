import { applyModelRecipe, buildDrawn, defaultScheme, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileContent } from '../reading.js';
import { readBpmn } from './read-bpmn.js';

const process = (prefix = 'bpmn:') =>
  Buffer.from(`<?xml version="1.0" encoding="UTF-8"?>
<${prefix}definitions xmlns${prefix ? ':bpmn' : ''}="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:bpmndi="http://www.omg.org/spec/BPMN/20100524/DI" xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" xmlns:di="http://www.omg.org/spec/DD/20100524/DI" id="defs" exporter="Some desk" targetNamespace="urn:weir">
  <${prefix}collaboration id="co"><${prefix}participant id="pool" name="Weir" processRef="pass"/><${prefix}messageFlow id="mf" sourceRef="ask" targetRef="pool"/></${prefix}collaboration>
  <${prefix}process id="pass" name="Pass a boat">
    <${prefix}laneSet id="ls"><${prefix}lane id="crew" name="Lock crew"><${prefix}flowNodeRef>start</${prefix}flowNodeRef><${prefix}flowNodeRef>ask</${prefix}flowNodeRef></${prefix}lane></${prefix}laneSet>
    <${prefix}startEvent id="start" name="Boat waits"><${prefix}outgoing>f1</${prefix}outgoing><${prefix}messageEventDefinition id="md"/></${prefix}startEvent>
    <${prefix}userTask id="ask" name="Ask for
 the lock"><${prefix}documentation>By radio.</${prefix}documentation><${prefix}extensionElements><tool:colour xmlns:tool="urn:tool" of="7"/></${prefix}extensionElements></${prefix}userTask>
    <${prefix}exclusiveGateway id="free" name="Free?" default="f3"/>
    <${prefix}subProcess id="fill" name="Fill the chamber"><${prefix}task id="open" name="Open paddles"/></${prefix}subProcess>
    <${prefix}sequenceFlow id="f1" sourceRef="start" targetRef="ask"/>
    <${prefix}sequenceFlow id="f2" name="yes" sourceRef="free" targetRef="fill"><${prefix}conditionExpression>chamber = "free"</${prefix}conditionExpression></${prefix}sequenceFlow>
    <${prefix}sequenceFlow id="f3" sourceRef="free" targetRef="gone"/>
    <${prefix}textAnnotation id="note"><${prefix}text>Twelve minutes at most.</${prefix}text></${prefix}textAnnotation>
    <${prefix}association id="as" sourceRef="fill" targetRef="note"/>
  </${prefix}process>
  <bpmndi:BPMNDiagram id="dia"><bpmndi:BPMNPlane id="pl" bpmnElement="co">
    <bpmndi:BPMNShape id="s_ask" bpmnElement="ask"><dc:Bounds x="200" y="80" width="100" height="80"/></bpmndi:BPMNShape>
    <bpmndi:BPMNShape id="s_pool" bpmnElement="pool" isHorizontal="true"><dc:Bounds x="50" y="50" width="600" height="200"/></bpmndi:BPMNShape>
    <bpmndi:BPMNShape id="s_crew" bpmnElement="crew"><dc:Bounds x="80" y="50" width="570" height="200"/></bpmndi:BPMNShape>
    <bpmndi:BPMNShape id="s_start" bpmnElement="start"><dc:Bounds x="120" y="102" width="36" height="36"/><bpmndi:BPMNLabel><dc:Bounds x="110" y="140" width="56" height="14"/></bpmndi:BPMNLabel></bpmndi:BPMNShape>
    <bpmndi:BPMNEdge id="e_f1" bpmnElement="f1"><di:waypoint x="156" y="120"/><di:waypoint x="200" y="120"/></bpmndi:BPMNEdge>
  </bpmndi:BPMNPlane></bpmndi:BPMNDiagram>
</${prefix}definitions>`);

describe('a process of BPMN', () => {
  it.each(['bpmn:', ''])('gives its pools, lanes, steps and flows, with the prefix "%s"', async (prefix) => {
    const { content } = await readFileContent('pass.xml', process(prefix));
    if (content.type !== 'model') throw new Error(content.type);
    const { model } = content;
    expect(model.notation).toBe('bpmn');
    expect(model.exporter).toBe('Some desk');
    expect(model.elements.map(({ id, type, name, parent }) => [id, type, name, parent])).toEqual([
      ['co', 'Collaboration', '', null],
      ['pool', 'Participant', 'Weir', null],
      ['pass', 'Process', 'Pass a boat', null],
      ['crew', 'Lane', 'Lock crew', 'pass'],
      ['start', 'StartEvent', 'Boat waits', 'crew'],
      ['ask', 'UserTask', 'Ask for the lock', 'crew'],
      ['free', 'ExclusiveGateway', 'Free?', 'pass'],
      ['fill', 'SubProcess', 'Fill the chamber', 'pass'],
      ['open', 'Task', 'Open paddles', 'fill'],
      ['note', 'TextAnnotation', '', 'pass'],
    ]);
    expect(model.elements.map(({ text }) => text).filter(Boolean)).toEqual(['By radio.', 'Twelve minutes at most.', 'Twelve minutes at most.']);
    expect(model.relations.map(({ type, from, to, values }) => [type, from, to, values])).toEqual([
      ['MessageFlow', ['ask'], ['pool'], {}],
      ['SequenceFlow', ['start'], ['ask'], {}],
      ['SequenceFlow', ['free'], ['fill'], { condition: 'chamber = "free"', gate: 'true' }],
      ['SequenceFlow', ['free'], ['gone'], { default: 'true', gate: 'true' }],
      ['TextAssociation', ['fill'], ['note'], {}],
    ]);
    expect(content.issues.map(({ code, at, message }) => [code, at, message])).toEqual([
      ['relation-dangling', expect.stringMatching(/^line \d+$/), expect.stringContaining('gone')],
    ]);
  });

  it('gives its drawing as it was placed, what holds others first', async () => {
    const { model } = await readBpmn(process());
    const drawn = buildDrawn(model, model.drawings[0]!, (element) => (element === 'ask' ? 'item' : null));
    expect(drawn.sort).toBe('process');
    expect(drawn.shapes.map(({ element, figure, inside, sign, item }) => [element, figure, inside, sign, item])).toEqual([
      ['pool', 'pool', -1, undefined, null],
      ['crew', 'pool', 0, undefined, null],
      ['ask', 'rounded', 1, 'user', 'item'],
      ['start', 'event', 1, 'message', null],
    ]);
    expect(drawn.routes).toMatchObject([
      {
        element: 'f1',
        from: 3,
        to: 2,
        end: 'filled',
        start: 'none',
        points: [
          { x: 156, y: 120 },
          { x: 200, y: 120 },
        ],
      },
    ]);
  });

  it('becomes functions in lanes', async () => {
    const { model } = await readBpmn(process());
    const { drafts } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
    expect(drafts.map(({ kind, title, parent }) => [kind, title, parent < 0 ? '' : drafts[parent]!.title])).toEqual([
      ['actor', 'Weir', ''],
      ['function', 'Pass a boat', ''],
      ['actor', 'Lock crew', 'Pass a boat'],
      ['function', 'Ask for the lock', 'Lock crew'],
      ['function', 'Fill the chamber', 'Pass a boat'],
      ['function', 'Open paddles', 'Fill the chamber'],
      ['drawing', 'Process', ''],
    ]);
  });
});
