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
  decision: 'Decision',
  inputData: 'InputData',
  knowledgeSource: 'KnowledgeSource',
  businessKnowledgeModel: 'BusinessKnowledgeModel',
  decisionService: 'DecisionService',
  textAnnotation: 'TextAnnotation',
  itemDefinition: 'ItemDefinition',
});
const NEEDS = tableOf<{ type: string; ends: string[] }>({
  informationRequirement: { type: 'InformationRequirement', ends: ['requiredDecision', 'requiredInput'] },
  knowledgeRequirement: { type: 'KnowledgeRequirement', ends: ['requiredKnowledge'] },
  authorityRequirement: { type: 'AuthorityRequirement', ends: ['requiredDecision', 'requiredInput', 'requiredAuthority'] },
});

/** Reads decisions of DMN 1.1 to 1.5: requirements between them, decision tables, and their drawing. Throws ReadError. */
export async function readDmn(bytes: Uint8Array): Promise<{ model: ModelDocument; issues: Issue[] }> {
  const root = await readXmlTree(bytes);
  const issues = new ModelIssues();
  const elements: ModelElement[] = [];
  const relations: ModelRelation[] = [];
  const byId = new Map<string, ModelElement | ModelRelation>();
  let unnamed = 0;
  const idOf = (node: XmlNode) => (node.attributes.id ||= `~${node.tag}.${++unnamed}`);
  for (const node of root.children) {
    const type = NAMES[node.tag];
    if (!type) continue;
    let id = idOf(node);
    if (byId.has(id)) {
      issues.add('warning', 'id-twice', `line ${node.line}`, `The id ${id} is used twice; the second ${type} is kept as ${id}~2`);
      id = node.attributes.id = `${id}~2`;
    }
    const element: ModelElement = {
      id,
      type,
      stereotypes: [],
      name: (node.attributes.name ?? node.attributes.label ?? '').trim(),
      parent: null,
      typedBy: null,
      text: [textOf(childOf(node, 'description')), textOf(childOf(node, 'text'))].filter(Boolean).join('\n'),
      reference: null,
      values: valuesOf(node),
      line: node.line,
    };
    const table = findTable(node);
    if (table) element.table = table;
    const typeRef = childOf(node, 'variable')?.attributes.typeRef;
    if (typeRef) element.typeName = typeRef;
    byId.set(id, element);
    elements.push(element);
  }
  for (const owner of root.children)
    for (const node of owner.children) {
      const need = NEEDS[node.tag];
      if (!need) continue;
      for (const end of node.children) {
        if (!need.ends.includes(end.tag)) continue;
        const needed = refOf(end.attributes.href ?? '');
        const relation: ModelRelation = {
          ...{ id: idOf(node), type: need.type, stereotypes: [], name: '', values: newRecord(), line: node.line },
          // What needs depends on what it needs.
          ...{ from: [idOf(owner)], to: byId.has(needed) ? [needed] : [] },
        };
        if (relation.to.length === 0) {
          if (/\.\w+#/.test(end.attributes.href ?? '')) relation.waiting = [{ end: 'to', target: end.attributes.href! }];
          else
            issues.add(
              'warning',
              'relation-dangling',
              `line ${node.line}`,
              `${need.type} of "${owner.attributes.name ?? ''}" leads to ${needed || 'nothing'}, which is not in the file; it makes no link`,
            );
        }
        byId.set(relation.id, relation);
        relations.push(relation);
      }
    }
  for (const node of root.children)
    if (node.tag === 'association') {
      const ends = ['sourceRef', 'targetRef'].map((tag) => refOf(childOf(node, tag)?.attributes.href ?? ''));
      const relation: ModelRelation = {
        ...{ id: idOf(node), type: 'TextAssociation', stereotypes: [], name: '', values: newRecord(), line: node.line },
        ...{ from: [ends[0]!].filter(Boolean), to: [ends[1]!].filter(Boolean) },
      };
      byId.set(relation.id, relation);
      relations.push(relation);
    }
  const drawings = [...walkTree(root)].filter(({ tag }) => tag === 'DMNDiagram').map((node) => readDrawing(node, root, byId, idOf));
  const known = new Set([
    ...Object.keys(NAMES),
    'association',
    'import',
    'DMNDI',
    'description',
    'extensionElements',
    'elementCollection',
    'artifact',
    'businessContextElement',
    'performanceIndicator',
    'organizationUnit',
    'group',
  ]);
  const unknown = new Map<string, number>();
  for (const { tag } of root.children) if (!known.has(tag)) unknown.set(tag, (unknown.get(tag) ?? 0) + 1);
  for (const [what, count] of unknown)
    issues.add('note', 'content-unknown', what, `${count} × ${what} has no place in Coomb yet; it stays in the stored file and goes out again`);
  return {
    model: { notation: 'dmn', exporter: root.attributes.exporter ?? '', elements, relations, drawings, unknown, missing: [] },
    issues: issues.finish(),
  };
}

const refOf = (href: string) => href.slice(href.indexOf('#') + 1);

function valuesOf(node: XmlNode): Record<string, string> {
  const values = newRecord<string>();
  for (const tag of ['question', 'allowedAnswers', 'type', 'locationURI']) {
    const text = textOf(childOf(node, tag)) || node.attributes[tag] || '';
    if (text) values[tag] = text;
  }
  const table = childOf(node, 'decisionTable') ?? childOf(node, 'encapsulatedLogic')?.children.find(({ tag }) => tag === 'decisionTable');
  if (table) values['hit policy'] = table.attributes.hitPolicy ?? 'UNIQUE';
  const literal = childOf(node, 'literalExpression');
  if (literal) values.expression = textOf(childOf(literal, 'text'));
  return values;
}

/** A decision table as rows: its inputs, its outputs, what is annotated; then a row for each rule. */
function findTable(node: XmlNode): string[][] | undefined {
  const table = childOf(node, 'decisionTable') ?? childOf(node, 'encapsulatedLogic')?.children.find(({ tag }) => tag === 'decisionTable');
  if (!table) return undefined;
  const inputs = childrenOf(table, 'input').map((one) => one.attributes.label || textOf(childOf(childOf(one, 'inputExpression') ?? one, 'text')));
  const outputs = childrenOf(table, 'output').map((one) => one.attributes.label || one.attributes.name || node.attributes.name || 'Result');
  const notes = childrenOf(table, 'annotation').map((one) => one.attributes.name || 'Annotation');
  const rules = childrenOf(table, 'rule').map((rule, index) => [
    String(index + 1),
    ...childrenOf(rule, 'inputEntry').map((one) => textOf(childOf(one, 'text')) || '–'),
    ...childrenOf(rule, 'outputEntry').map((one) => textOf(childOf(one, 'text'))),
    ...notes.map((_, at) => textOf(childOf(childrenOf(rule, 'annotationEntry')[at] ?? rule, 'text'))),
  ]);
  return [['Rule', ...inputs, ...outputs, ...notes], ...rules];
}

function readDrawing(node: XmlNode, root: XmlNode, byId: ReadonlyMap<string, ModelElement | ModelRelation>, idOf: (node: XmlNode) => string): ModelDrawing {
  const placed = node.children.flatMap((one): ModelShape[] => {
    const box = one.tag === 'DMNShape' ? readBounds(one) : undefined;
    if (!box) return [];
    const element = refOf(one.attributes.dmnElementRef ?? '').replace(/^\w+:/, '');
    const style = readLook(one);
    return [
      {
        id: one.attributes.id || `shape of ${element}`,
        element,
        ...box,
        inside: -1,
        ...(style && { style }),
        ...(one.attributes.isCollapsed === 'true' && { folded: true }),
      },
    ];
  });
  const shapes = nestByBounds(placed, ({ element }) => byId.get(element)?.type === 'DecisionService');
  const shapeOf = new Map(shapes.map((shape, index) => [shape.element, index]));
  const routes = node.children.flatMap((one): ModelRoute[] => {
    if (one.tag !== 'DMNEdge') return [];
    const id = refOf(one.attributes.dmnElementRef ?? '').replace(/^\w+:/, '');
    const relation = byId.get(id);
    const [own, needed] = relation && 'from' in relation ? [relation.from[0] ?? '', relation.to[0] ?? ''] : ['', ''];
    // The arrow leads from what is needed to what needs it: the end that depends comes last.
    return [{ id: one.attributes.id || `edge of ${id}`, element: id, from: shapeOf.get(needed) ?? -1, to: shapeOf.get(own) ?? -1, points: readWaypoints(one) }];
  });
  return { id: idOf(node), name: node.attributes.name || root.attributes.name || 'Decisions', sort: 'decisions', owner: null, shapes, routes, line: node.line };
}
