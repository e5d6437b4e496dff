import { tableOf } from '../records/table-of.js';
import { findKindOfRole, kindsOfRole, linkKindsOfRole } from '../scheme/roles.js';
import type { KindRole, LinkRole } from '../scheme/role-names.js';
import type { Scheme } from '../scheme/scheme.js';
import type { ModelDocument, ModelElement, ModelRelation } from '../source/model.js';
import { labelOfSort, sortOf } from './element-sort.js';
import type { ElementRule, ModelRecipe, RelationRule } from './model-recipe.js';

type Usual = KindRole | 'detail' | 'file';

/** What stereotypes make of an element, whatever its metaclass; names in lower case. */
const BY_STEREOTYPE: [RegExp, Usual][] = [
  [/requirement$|^designconstraint$/, 'requirement'],
  [/^testcase$/, 'test'],
  [/^interfaceblock$|^interfacedefinition$/, 'interface'],
  [/^constraintblock$/, 'component'],
  [/^block$|^system$|^subsystem$|^hardware$|^external$/, 'component'],
  [/^valuetype$|^quantitykind$|^unit$|^stereotype$/, 'file'],
  [/^flowproperty$|^adjunctproperty$|^constraintparameter$/, 'detail'],
  [/^view$/, 'package'],
  [/^viewpoint$|^stakeholder$|^problem$|^rationale$/, 'information'],
];

/** What metaclasses become when no stereotype says more. Those that are not named stay in the file. */
const BY_TYPE = tableOf<Usual>({
  Model: 'package',
  Package: 'package',
  Class: 'component',
  Component: 'component',
  AssociationClass: 'component',
  Node: 'component',
  Device: 'component',
  ExecutionEnvironment: 'component',
  Artifact: 'component',
  Interface: 'interface',
  Signal: 'interface',
  InformationItem: 'interface',
  Actor: 'actor',
  UseCase: 'useCase',
  Activity: 'function',
  StateMachine: 'function',
  ProtocolStateMachine: 'function',
  Interaction: 'function',
  State: 'function',
  OpaqueBehavior: 'function',
  FunctionBehavior: 'function',
  OpaqueAction: 'function',
  CallBehaviorAction: 'function',
  CallOperationAction: 'function',
  SendSignalAction: 'function',
  AcceptEventAction: 'function',
  StructuredActivityNode: 'function',
  Port: 'port',
  Operation: 'detail',
  Reception: 'detail',
  EnumerationLiteral: 'detail',
  ExtensionPoint: 'detail',
  Constraint: 'detail',
  Comment: 'detail',
  // BPMN
  Process: 'function',
  SubProcess: 'function',
  Transaction: 'function',
  AdHocSubProcess: 'function',
  Task: 'function',
  UserTask: 'function',
  ServiceTask: 'function',
  ManualTask: 'function',
  ScriptTask: 'function',
  SendTask: 'function',
  ReceiveTask: 'function',
  BusinessRuleTask: 'function',
  CallActivity: 'function',
  Participant: 'actor',
  Lane: 'actor',
  Message: 'interface',
  DataObject: 'interface',
  DataStore: 'interface',
  TextAnnotation: 'detail',
  // DMN
  Definitions: 'package',
  Decision: 'function',
  BusinessKnowledgeModel: 'function',
  DecisionService: 'function',
  InputData: 'interface',
  KnowledgeSource: 'information',
  ItemDefinition: 'file',
  // SSP
  System: 'component',
  SystemComponent: 'component',
  Connector: 'port',
  Parameter: 'detail',
  // Ecore
  EPackage: 'package',
  EClass: 'component',
  EAttribute: 'detail',
  EOperation: 'detail',
  EEnumLiteral: 'detail',
});

const BY_ROLE = tableOf<Usual>({ part: 'part', reference: 'detail', value: 'detail', constraint: 'part', end: 'file' });

/** Which part each relation plays, by stereotype or metaclass; the first that the scheme has and that may join the two is taken. */
const LINKS = tableOf<readonly LinkRole[]>({
  satisfy: ['satisfies', 'realises', 'depends'],
  verify: ['verifies', 'depends'],
  refine: ['refines', 'satisfies', 'depends'],
  derivereqt: ['derives', 'depends'],
  derive: ['derives', 'depends'],
  allocate: ['allocates', 'realises', 'depends'],
  trace: ['depends'],
  copy: ['derives', 'depends'],
  conform: ['satisfies', 'depends'],
  dependency: ['depends'],
  usage: ['depends'],
  realization: ['satisfies', 'realises', 'depends'],
  interfacerealization: ['realises', 'depends'],
  componentrealization: ['realises', 'depends'],
  abstraction: ['depends'],
  substitution: ['depends'],
  manifestation: ['depends'],
  deployment: ['allocates', 'depends'],
  generalization: ['depends'],
  include: ['depends'],
  extend: ['depends'],
  informationflow: ['depends'],
  association: ['depends'],
  communicationpath: ['depends'],
  informationrequirement: ['depends'],
  knowledgerequirement: ['depends'],
  authorityrequirement: ['depends'],
  messageflow: ['depends'],
  sequenceflow: ['leads'],
  controlflow: ['leads'],
  objectflow: ['leads'],
  transition: ['leads'],
  emodelsupertype: ['depends'],
});

/** A first recipe for a model: by stereotypes and metaclasses, through the roles of the scheme. */
export function proposeModelRecipe(scheme: Scheme, model: Pick<ModelDocument, 'elements' | 'relations'>): ModelRecipe {
  const elements = new Map<string, ElementRule>();
  const isSystems = model.elements.some(({ stereotypes }) => stereotypes.some((one) => one.toLowerCase() === 'block'));
  for (const element of model.elements) {
    const sort = sortOf(element);
    if (!elements.has(sort)) elements.set(sort, proposeElement(scheme, element, sort, isSystems));
    const rule = elements.get(sort)!;
    for (const name in element.values) if (!rule.values.some((one) => one.name === name)) rule.values.push({ name, meaning: { as: 'ignore' } });
  }
  const relations = new Map<string, RelationRule>();
  for (const relation of model.relations) {
    const sort = sortOf(relation);
    if (!relations.has(sort)) relations.set(sort, proposeRelation(scheme, relation, sort));
  }
  return { name: 'Proposed from the file', elements: [...elements.values()], relations: [...relations.values()] };
}

function proposeElement(scheme: Scheme, element: ModelElement, sort: string, isSystems: boolean): ElementRule {
  const usual = usualOf(scheme, element, isSystems);
  const kind = usual === 'detail' || usual === 'file' ? undefined : findKindOfRole(scheme, usual);
  return {
    sort,
    label: labelOfSort(element),
    becomes: kind ? 'items' : usual === 'detail' ? 'detail' : 'file',
    kind: kind?.id ?? null,
    values: [],
  };
}

function usualOf(scheme: Scheme, { type, role, stereotypes }: ModelElement, isSystems: boolean): Usual {
  for (const stereotype of stereotypes) {
    const found = BY_STEREOTYPE.find(([pattern]) => pattern.test(stereotype.toLowerCase()));
    if (found) return found[1];
  }
  if (role === 'value' && isSystems && kindsOfRole(scheme, 'value').length > 0) return 'value';
  if (role) return BY_ROLE[role] ?? 'file';
  return BY_TYPE[type] ?? (type.endsWith('Task') ? 'function' : 'file');
}

function proposeRelation(scheme: Scheme, relation: ModelRelation, sort: string): RelationRule {
  const name = [...relation.stereotypes, relation.type].find((one) => LINKS[one.toLowerCase()]);
  const roles = relation.role === 'composite' || name === undefined ? undefined : LINKS[name.toLowerCase()];
  const linkKinds = (roles ?? []).flatMap((role) => linkKindsOfRole(scheme, role).map(({ id }) => id));
  return { sort, label: labelOfSort(relation), linkKinds, reversed: false };
}
