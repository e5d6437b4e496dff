/** A model as read from an exchange file: what tools agree on, with every identifier kept as it came. */
export interface ModelDocument {
  /** Language that the file is written in; decides what its words mean. */
  notation: ModelNotation;
  /** Name of the tool that wrote it, as the file says. */
  exporter: string;
  /** Owners before what they own. */
  elements: ModelElement[];
  relations: ModelRelation[];
  drawings: ModelDrawing[];
  /** Content that has no place here yet, by name, counted. It stays in the stored file. */
  unknown: Map<string, number>;
  /** Files that the model refers to and that were not handed in, with how often. */
  missing: { part: string; count: number }[];
}

export const modelNotations = ['uml', 'bpmn', 'dmn', 'ssp', 'ecore'] as const;
export type ModelNotation = (typeof modelNotations)[number];

export interface ModelElement {
  /** Identifier of the file, or the place in the tree where it gives none; unique in the model. */
  id: string;
  /** Metaclass without prefix: `Class`, `Property`, `Port`, `UseCase`, `Activity`, `Package`, `Task`, `Decision`. */
  type: string;
  /** What the metaclass leaves open: a property may be a `part`, a `reference`, a `value` or an `end` of an association. */
  role?: ElementRole;
  stereotypes: string[];
  name: string;
  parent: string | null;
  /** Element that types a property or port. */
  typedBy: string | null;
  /** Name of a type that is no element of the model, such as `Real`. */
  typeName?: string;
  /** Where its type lies, as the file names it, when that is a file which was not handed in. */
  typeWaiting?: string;
  /** Text of comments on the element, and of its requirement stereotype. */
  text: string;
  /** Identifier a requirement stereotype gives. */
  reference: string | null;
  /** What else it says: multiplicity, default, unit, direction, guard…; tagged values as `Stereotype.tag`. References to elements by their names. */
  values: Record<string, string>;
  /** Elements that a comment or a constraint is about. */
  about?: string[];
  /** Rows of a decision table, the first its header. */
  table?: string[][];
  line: number;
  /** File of several that it stands in. */
  file?: string;
}

export type ElementRole = 'part' | 'reference' | 'value' | 'end' | 'constraint';

export interface ModelRelation {
  id: string;
  type: string;
  /** What the metaclass leaves open: an association may be `composite` or `shared`. */
  role?: 'composite' | 'shared';
  stereotypes: string[];
  /** Ends that depend, and ends that are depended on; a relation of several of either is a link between each two. */
  from: string[];
  to: string[];
  name: string;
  values: Record<string, string>;
  /** Uses of an end in which it holds only: the element that the path begins in, and the properties that lead down to the end. */
  fromUse?: string[];
  toUse?: string[];
  /** Ends that lie in a file which was not handed in, as the file names them. */
  waiting?: { end: 'from' | 'to'; target: string }[];
  line: number;
  file?: string;
}

export const drawingSorts = [
  'class',
  'component',
  'structure',
  'package',
  'useCase',
  'activity',
  'states',
  'sequence',
  'requirement',
  'object',
  'deployment',
  'process',
  'decisions',
  'signals',
  'other',
] as const;
export type DrawingSort = (typeof drawingSorts)[number];

export interface ModelDrawing {
  id: string;
  name: string;
  sort: DrawingSort;
  /** Element whose inside it shows. */
  owner: string | null;
  /** In the order in which they are painted; what holds others comes before them. */
  shapes: ModelShape[];
  routes: ModelRoute[];
  line: number;
}

/** Lengths in the drawing's own unit, x to the right and y down. */
export interface ModelBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface ModelShape extends ModelBox {
  id: string;
  /** Element that it shows; empty where it shows none. */
  element: string;
  /** Index of the shape that it lies in, or -1. */
  inside: number;
  label?: ModelBox;
  style?: ShapeStyle;
  /** Its content is hidden. */
  folded?: boolean;
  /** Which way lanes and pools run. */
  upright?: boolean;
}

export interface ModelRoute {
  id: string;
  element: string;
  /** Indices of the shapes at its ends, or -1 where the file does not say. */
  from: number;
  to: number;
  points: { x: number; y: number }[];
  labels?: ({ text?: string } & ModelBox)[];
  style?: ShapeStyle;
}

/** Colours as #rrggbb. */
export interface ShapeStyle {
  fill?: string;
  line?: string;
  font?: string;
}

/** The first elements of a large model, with what leads from one to another of them: enough to make a recipe by. */
export function cutModel(model: ModelDocument, most: number): ModelDocument {
  if (model.elements.length <= most) return model;
  const elements = model.elements.slice(0, most);
  const kept = new Set(elements.map(({ id }) => id));
  return { ...model, elements, relations: model.relations.filter(({ from, to }) => [...from, ...to].every((id) => kept.has(id))) };
}
