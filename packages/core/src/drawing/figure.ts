import { tableOf } from '../records/table-of.js';
import type { ModelElement, ModelRelation } from '../source/model.js';

/** Shapes that the notations define. What a figure looks like is the painter's business; what it says is the same for all of them. */
export const figures = [
  // UML
  'box',
  'package',
  'rounded',
  'ellipse',
  'actor',
  'note',
  'component',
  'node',
  'artifact',
  'port',
  'lifeline',
  'execution',
  'fragment',
  'operand',
  'partition',
  'pin',
  'bar',
  'diamond',
  'initial',
  'final',
  'flowFinal',
  'history',
  'deepHistory',
  'terminate',
  'point',
  'exit',
  'send',
  'receive',
  'time',
  // BPMN
  'pool',
  'event',
  'interim',
  'end',
  'gateway',
  'data',
  'store',
  'annotation',
  'group',
  // DMN
  'input',
  'knowledge',
  'source',
  'service',
] as const;
export type Figure = (typeof figures)[number];

const BY_TYPE = tableOf<Figure>({
  Package: 'package',
  Model: 'package',
  Profile: 'package',
  UseCase: 'ellipse',
  Actor: 'actor',
  Comment: 'note',
  Component: 'component',
  Node: 'node',
  Device: 'node',
  ExecutionEnvironment: 'node',
  Artifact: 'artifact',
  Port: 'port',
  Lifeline: 'lifeline',
  ActionExecutionSpecification: 'execution',
  BehaviorExecutionSpecification: 'execution',
  CombinedFragment: 'fragment',
  ConsiderIgnoreFragment: 'fragment',
  InteractionUse: 'fragment',
  Interaction: 'fragment',
  InteractionOperand: 'operand',
  ActivityPartition: 'partition',
  InputPin: 'pin',
  OutputPin: 'pin',
  ValuePin: 'pin',
  ActionInputPin: 'pin',
  ForkNode: 'bar',
  JoinNode: 'bar',
  DecisionNode: 'diamond',
  MergeNode: 'diamond',
  InitialNode: 'initial',
  ActivityFinalNode: 'final',
  FinalState: 'final',
  FlowFinalNode: 'flowFinal',
  State: 'rounded',
  StateInvariant: 'rounded',
  Continuation: 'rounded',
  Activity: 'rounded',
  StateMachine: 'rounded',
  StructuredActivityNode: 'rounded',
  ExpansionRegion: 'rounded',
  InterruptibleActivityRegion: 'group',
  DataStoreNode: 'box',
  // BPMN
  Participant: 'pool',
  Lane: 'pool',
  SubProcess: 'rounded',
  Transaction: 'rounded',
  AdHocSubProcess: 'rounded',
  CallActivity: 'rounded',
  Task: 'rounded',
  StartEvent: 'event',
  IntermediateCatchEvent: 'interim',
  IntermediateThrowEvent: 'interim',
  BoundaryEvent: 'interim',
  EndEvent: 'end',
  DataObject: 'data',
  DataObjectReference: 'data',
  DataInput: 'data',
  DataOutput: 'data',
  DataStore: 'store',
  DataStoreReference: 'store',
  TextAnnotation: 'annotation',
  Group: 'group',
  // DMN
  Decision: 'box',
  InputData: 'input',
  BusinessKnowledgeModel: 'knowledge',
  KnowledgeSource: 'source',
  DecisionService: 'service',
  // SSP
  Connector: 'port',
});

const PSEUDOSTATES = tableOf<Figure>({
  initial: 'initial',
  choice: 'diamond',
  junction: 'point',
  fork: 'bar',
  join: 'bar',
  shallowHistory: 'history',
  deepHistory: 'deepHistory',
  terminate: 'terminate',
  entryPoint: 'event',
  exitPoint: 'exit',
});

/** The figure that a notation gives an element; a box with a keyword where it gives none of its own. */
export function figureOf({ type, values, role }: Pick<ModelElement, 'type' | 'values' | 'role'>): Figure {
  if (type === 'Pseudostate') return PSEUDOSTATES[values.kind ?? 'initial'] ?? 'point';
  if (type === 'SendSignalAction' || type === 'BroadcastSignalAction') return 'send';
  if (type === 'AcceptEventAction' || type === 'AcceptCallAction') return 'receive';
  if (role) return 'box';
  const own = BY_TYPE[type];
  if (own) return own;
  if (type.endsWith('Gateway')) return 'gateway';
  if (type.endsWith('Action') || type.endsWith('Task')) return 'rounded';
  return 'box';
}

/** Metaclasses that UML says by a keyword rather than by a figure. */
const KEYWORDS = tableOf<string>({
  Interface: 'interface',
  DataType: 'dataType',
  PrimitiveType: 'primitive',
  Enumeration: 'enumeration',
  Signal: 'signal',
  Artifact: 'artifact',
  Device: 'device',
  ExecutionEnvironment: 'executionEnvironment',
  Collaboration: 'collaboration',
  Stereotype: 'stereotype',
  InformationItem: 'information',
  DataStoreNode: 'datastore',
  CentralBufferNode: 'centralBuffer',
});

/** What stands above the name: stereotypes first, as they are applied, with a small letter at the beginning. */
export function keywordOf({ type, stereotypes }: Pick<ModelElement, 'type' | 'stereotypes'>): string {
  const words = stereotypes.length > 0 ? stereotypes.map((name) => name.charAt(0).toLowerCase() + name.slice(1)) : KEYWORDS[type] ? [KEYWORDS[type]] : [];
  return words.length > 0 ? `«${words.join(', ')}»` : '';
}

/** How a relation is drawn: its line, and what stands at the end that depends (`from`) and at the other (`to`). */
export interface RelationLook {
  dashed: boolean;
  from: EndMark;
  to: EndMark;
  label: string;
}
export type EndMark = 'none' | 'arrow' | 'triangle' | 'filled' | 'diamond' | 'filledDiamond' | 'circle' | 'filledCircle' | 'slash';

const look = (dashed: boolean, to: EndMark, label = '', from: EndMark = 'none'): RelationLook => ({ dashed, from, to, label });

/** The notation of UML 2.5.1, SysML 1.7, BPMN 2.0 and DMN 1.5 for a relation. */
export function lookOf({ type, stereotypes, role, name, values }: Pick<ModelRelation, 'type' | 'stereotypes' | 'role' | 'name' | 'values'>): RelationLook {
  const keyword = stereotypes.length > 0 ? `«${stereotypes.map((one) => one.charAt(0).toLowerCase() + one.slice(1)).join(', ')}»` : '';
  const said = [keyword, name].filter(Boolean).join(' ');
  switch (type) {
    case 'Generalization':
      return look(false, 'triangle', said);
    case 'EModelSuperType':
      return look(false, 'triangle');
    case 'Realization':
    case 'InterfaceRealization':
    case 'ComponentRealization':
    case 'Substitution':
      return look(true, stereotypes.length > 0 ? 'arrow' : 'triangle', said);
    case 'Include':
    case 'Extend':
      return look(true, 'arrow', `«${type.toLowerCase()}»`);
    case 'Usage':
      return look(true, 'arrow', said || '«use»');
    case 'PackageImport':
    case 'ElementImport':
      return look(true, 'arrow', '«import»');
    case 'PackageMerge':
      return look(true, 'arrow', '«merge»');
    case 'Deployment':
    case 'Manifestation':
      return look(true, 'arrow', said || (type === 'Deployment' ? '«deploy»' : '«manifest»'));
    case 'InformationFlow':
      return look(true, 'filled', [keyword || '«flow»', values.conveys ?? name].filter(Boolean).join(' '));
    case 'Association':
    case 'AssociationClass':
    case 'CommunicationPath':
      return look(false, 'none', said, role === 'composite' ? 'filledDiamond' : role === 'shared' ? 'diamond' : 'none');
    case 'Connector':
      return look(false, 'none', said);
    case 'ControlFlow':
    case 'ObjectFlow':
      return look(false, 'arrow', [name, values.guard ? `[${values.guard}]` : ''].filter(Boolean).join(' '));
    case 'Transition': {
      const { trigger, guard, effect } = values;
      return look(false, 'arrow', `${trigger ?? name}${guard ? ` [${guard}]` : ''}${effect ? ` / ${effect}` : ''}`.trim());
    }
    case 'Message': {
      const isReply = values.sort === 'reply';
      return look(isReply || values.sort === 'createMessage', isReply || values.sort?.startsWith('asynch') ? 'arrow' : 'filled', name);
    }
    case 'SequenceFlow':
      return look(false, 'filled', name, values.default === 'true' ? 'slash' : values.condition && values.gate !== 'true' ? 'diamond' : 'none');
    case 'MessageFlow':
      return look(true, 'triangle', name, 'circle');
    case 'DataInputAssociation':
    case 'DataOutputAssociation':
      return look(true, 'arrow', name);
    case 'TextAssociation':
      return look(true, 'none');
    // The mark stands at what needs, not at what is needed.
    case 'InformationRequirement':
      return look(false, 'none', '', 'filled');
    case 'KnowledgeRequirement':
      return look(true, 'none', '', 'arrow');
    case 'AuthorityRequirement':
      return look(true, 'none', '', 'filledCircle');
    case 'Connection':
      return look(false, 'filled', name);
    default:
      return look(true, 'arrow', said);
  }
}
