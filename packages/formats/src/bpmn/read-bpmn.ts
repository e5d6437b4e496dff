import {
  newRecord,
  tableOf,
  type Issue,
  type ModelDocument,
  type ModelDrawing,
  type ModelElement,
  type ModelRelation,
  type ModelRoute,
  type ModelShape,
} from '@coomb/core';
import { nestByBounds, readBounds, readLook, readWaypoints } from '../xml/diagram-parts.js';
import { ModelIssues } from '../xml/model-issues.js';
import { childOf, childrenOf, readXmlTree, textOf, walkTree, type XmlNode } from '../xml/xml-tree.js';

const NAMES = tableOf<string>({
  process: 'Process',
  collaboration: 'Collaboration',
  participant: 'Participant',
  lane: 'Lane',
  task: 'Task',
  subProcess: 'SubProcess',
  transaction: 'Transaction',
  adHocSubProcess: 'AdHocSubProcess',
  callActivity: 'CallActivity',
  startEvent: 'StartEvent',
  endEvent: 'EndEvent',
  intermediateCatchEvent: 'IntermediateCatchEvent',
  intermediateThrowEvent: 'IntermediateThrowEvent',
  boundaryEvent: 'BoundaryEvent',
  dataObject: 'DataObject',
  dataObjectReference: 'DataObjectReference',
  dataStore: 'DataStore',
  dataStoreReference: 'DataStoreReference',
  dataInput: 'DataInput',
  dataOutput: 'DataOutput',
  message: 'Message',
  textAnnotation: 'TextAnnotation',
  group: 'Group',
});
const named = (tag: string): string | undefined => NAMES[tag] ?? (/(?:Task|Gateway)$/.test(tag) ? tag[0]!.toUpperCase() + tag.slice(1) : undefined);

const FLOWS = tableOf<string>({ sequenceFlow: 'SequenceFlow', messageFlow: 'MessageFlow', association: 'TextAssociation' });
/** Told by others, or of the serialisation. */
const SILENT = new Set(
  [
    'definitions',
    'import',
    'extensionElements',
    'documentation',
    'incoming',
    'outgoing',
    'flowNodeRef',
    'laneSet',
    'childLaneSet',
    'text',
    'sourceRef',
    'targetRef',
  ].concat(
    [
      'conditionExpression',
      'BPMNDiagram',
      'BPMNPlane',
      'BPMNShape',
      'BPMNEdge',
      'BPMNLabel',
      'BPMNLabelStyle',
      'Bounds',
      'waypoint',
      'ioSpecification',
      'inputSet',
      'outputSet',
    ],
    [
      'dataInputRefs',
      'dataOutputRefs',
      'property',
      'timeDuration',
      'timeDate',
      'timeCycle',
      'condition',
      'dataState',
      'Font',
      'category',
      'categoryValue',
      'extension',
    ],
    [
      'dataInputAssociation',
      'dataOutputAssociation',
      'script',
      'loopCardinality',
      'completionCondition',
      'standardLoopCharacteristics',
      'multiInstanceLoopCharacteristics',
    ],
    ['itemDefinition', 'error', 'signal', 'escalation', 'interface', 'operation', 'inMessageRef', 'outMessageRef', 'resource', 'performer', 'potentialOwner'],
  ),
);

/** Reads a process of BPMN 2.0 with its diagram interchange. What is unknown is counted and named. Throws ReadError. */
export async function readBpmn(bytes: Uint8Array): Promise<{ model: ModelDocument; issues: Issue[] }> {
  return new BpmnReader(await readXmlTree(bytes)).read();
}

class BpmnReader {
  private readonly elements: ModelElement[] = [];
  private readonly relations: ModelRelation[] = [];
  private readonly unknown = new Map<string, number>();
  private readonly issues = new ModelIssues();
  private readonly byId = new Map<string, ModelElement | ModelRelation>();
  private readonly nodeOf = new Map<string, XmlNode>();
  /** Lane of each flow node. */
  private readonly laneOf = new Map<string, string>();
  private unnamed = 0;

  constructor(private readonly root: XmlNode) {}

  read(): { model: ModelDocument; issues: Issue[] } {
    for (const node of walkTree(this.root)) if (node.attributes.id && !this.nodeOf.has(node.attributes.id)) this.nodeOf.set(node.attributes.id, node);
    for (const lane of walkTree(this.root))
      if (lane.tag === 'lane') for (const ref of childrenOf(lane, 'flowNodeRef')) this.laneOf.set(localRef(textOf(ref)), this.idOf(lane));
    for (const node of walkTree(this.root)) this.add(node);
    this.placeTexts();
    const drawings = [...walkTree(this.root)].filter(({ tag }) => tag === 'BPMNDiagram').map((node) => this.readDrawing(node));
    for (const [what, count] of this.unknown)
      this.issues.add('note', 'content-unknown', what, `${count} × ${what} has no place in Coomb yet; it stays in the stored file and goes out again`);
    const { exporter = '' } = this.root.attributes;
    return {
      model: { notation: 'bpmn', exporter, elements: this.elements, relations: this.relations, drawings, unknown: this.unknown, missing: [] },
      issues: this.issues.finish(),
    };
  }

  private idOf(node: XmlNode): string {
    return (node.attributes.id ||= `~${node.tag}.${++this.unnamed}`);
  }

  private add(node: XmlNode): void {
    const { tag, attributes } = node;
    if (node.parent && inExtension(node)) return;
    const type = named(tag);
    const flow = FLOWS[tag];
    if (type) this.addElement(node, type);
    else if (flow) {
      const condition = textOf(childOf(node, 'conditionExpression'));
      const source = this.nodeOf.get(localRef(attributes.sourceRef ?? ''));
      const relation = this.addRelation(node, flow, [localRef(attributes.sourceRef ?? '')], [localRef(attributes.targetRef ?? '')]);
      if (condition) relation.values.condition = condition;
      if (source?.attributes.default === attributes.id && attributes.id) relation.values.default = 'true';
      if (source?.tag.endsWith('Gateway')) relation.values.gate = 'true';
    } else if (tag === 'dataInputAssociation' || tag === 'dataOutputAssociation') {
      const owner = this.idOf(node.parent!);
      const isIn = tag === 'dataInputAssociation';
      const ends = (name: string) => childrenOf(node, name).map((one) => localRef(textOf(one)));
      this.addRelation(node, isIn ? 'DataInputAssociation' : 'DataOutputAssociation', isIn ? ends('sourceRef') : [owner], isIn ? [owner] : ends('targetRef'));
    } else if (!SILENT.has(tag) && !/EventDefinition$/.test(tag) && node !== this.root) {
      this.unknown.set(tag, (this.unknown.get(tag) ?? 0) + 1);
    }
  }

  private addElement(node: XmlNode, type: string): void {
    const id = this.idOf(node);
    if (this.byId.has(id)) {
      this.issues.add('warning', 'id-twice', `line ${node.line}`, `The id ${id} is used twice; the second ${type} is kept as ${id}~2`);
      node.attributes.id = `${id}~2`;
      return this.addElement(node, type);
    }
    const values = newRecord<string>();
    const definition = node.children.find(({ tag }) => /EventDefinition$/.test(tag));
    if (definition) values.event = definition.tag.replace(/EventDefinition$/, '');
    const timer = definition && ['timeDuration', 'timeDate', 'timeCycle'].map((tag) => textOf(childOf(definition, tag))).find(Boolean);
    if (timer) values.time = timer;
    for (const name of ['isCollection', 'triggeredByEvent', 'cancelActivity', 'isExecutable', 'isForCompensation'])
      if (node.attributes[name]) values[name] = node.attributes[name];
    if (node.children.some(({ tag }) => tag === 'multiInstanceLoopCharacteristics')) values.repeats = 'for each';
    if (node.children.some(({ tag }) => tag === 'standardLoopCharacteristics')) values.repeats = 'until';
    const refers = node.attributes.processRef ?? node.attributes.calledElement ?? node.attributes.dataObjectRef ?? node.attributes.dataStoreRef;
    const target = refers ? this.nodeOf.get(localRef(refers)) : undefined;
    const element: ModelElement = {
      id,
      type,
      stereotypes: [],
      name: (node.attributes.name ?? '').replace(/\s+/g, ' ').trim(),
      parent: this.parentOf(node, id),
      typedBy: target ? this.idOf(target) : null,
      text: [...childrenOf(node, 'documentation'), ...childrenOf(node, 'text')].map(textOf).filter(Boolean).join('\n'),
      reference: null,
      values,
      line: node.line,
    };
    if (refers && !target) element.typeName = refers;
    this.byId.set(id, element);
    this.elements.push(element);
  }

  /** Flow nodes stand in their lane where they have one. */
  private parentOf(node: XmlNode, id: string): string | null {
    if (node.tag === 'participant') return null;
    const lane = this.laneOf.get(id);
    if (lane && lane !== id && this.byId.has(lane)) return lane;
    for (let at = node.parent; at; at = at.parent)
      if (at.attributes.id && this.byId.has(at.attributes.id) && at.tag !== 'collaboration') return at.attributes.id;
    return null;
  }

  private addRelation(node: XmlNode, type: string, from: string[], to: string[]): ModelRelation {
    const relation: ModelRelation = {
      id: this.idOf(node),
      type,
      stereotypes: [],
      from: from.filter(Boolean),
      to: to.filter(Boolean),
      name: (node.attributes.name ?? '').trim(),
      values: newRecord(),
      line: node.line,
    };
    this.byId.set(relation.id, relation);
    this.relations.push(relation);
    for (const end of [...relation.from, ...relation.to])
      if (!this.nodeOf.has(end))
        this.issues.add(
          'warning',
          'relation-dangling',
          `line ${node.line}`,
          `${type} ${relation.id} ends at ${end}, which is not in the file; it makes no link`,
        );
    return relation;
  }

  /** Annotations are the text of what they are tied to. */
  private placeTexts(): void {
    for (const { type, from, to } of this.relations) {
      if (type !== 'TextAssociation') continue;
      const ends = [...from, ...to].map((id) => this.byId.get(id));
      const note = ends.find((one): one is ModelElement => one !== undefined && one.type === 'TextAnnotation');
      for (const one of ends) {
        if (!note || !one || one === note || !('text' in one)) continue;
        (note.about ??= []).push(one.id);
        if (note.text) one.text = one.text ? `${one.text}\n${note.text}` : note.text;
      }
    }
  }

  private readDrawing(node: XmlNode): ModelDrawing {
    const plane = childOf(node, 'BPMNPlane');
    const parts = plane?.children ?? [];
    const owner = plane ? localRef(plane.attributes.bpmnElement ?? '') : '';
    const element = owner ? this.byId.get(owner) : undefined;
    const placed = parts.flatMap((one): ModelShape[] => {
      const box = one.tag === 'BPMNShape' ? readBounds(one) : undefined;
      if (!box) return [];
      const label = readBounds(childOf(one, 'BPMNLabel'));
      const style = readLook(one);
      const { id = '', bpmnElement = '', isHorizontal, isExpanded } = one.attributes;
      return [
        {
          ...{ id: id || `shape of ${bpmnElement}`, element: localRef(bpmnElement), ...box, inside: -1 },
          ...(label && { label }),
          ...(style && { style }),
          ...(isHorizontal === 'false' && { upright: true }),
          ...(isExpanded === 'false' && { folded: true }),
        },
      ];
    });
    const holds = (shape: ModelShape) => {
      const shown = this.byId.get(shape.element);
      return !shape.folded && shown !== undefined && ['Participant', 'Lane', 'SubProcess', 'Transaction', 'AdHocSubProcess', 'Group'].includes(shown.type);
    };
    const shapes = nestByBounds(placed, holds);
    const shapeOf = new Map(shapes.map((shape, index) => [shape.element, index]));
    const routes = parts.flatMap((one): ModelRoute[] => {
      if (one.tag !== 'BPMNEdge') return [];
      const id = localRef(one.attributes.bpmnElement ?? '');
      const relation = this.byId.get(id);
      const [from, to] = relation && 'from' in relation ? [relation.from[0] ?? '', relation.to[0] ?? ''] : ['', ''];
      const label = readBounds(childOf(one, 'BPMNLabel'));
      return [
        {
          id: one.attributes.id || `edge of ${id}`,
          element: id,
          from: shapeOf.get(from) ?? -1,
          to: shapeOf.get(to) ?? -1,
          points: readWaypoints(one),
          ...(label && { labels: [label] }),
        },
      ];
    });
    return {
      id: this.idOf(node),
      name: node.attributes.name || element?.name || 'Process',
      sort: 'process',
      owner: element && 'parent' in element && element.type !== 'Collaboration' ? element.id : null,
      shapes,
      routes,
      line: node.line,
    };
  }
}

function inExtension(node: XmlNode): boolean {
  for (let at = node.parent; at; at = at.parent) if (at.tag === 'extensionElements') return true;
  return false;
}

/** Names of the file itself may carry the prefix of its own namespace. */
const localRef = (text: string) => text.slice(text.indexOf(':') + 1).trim();
