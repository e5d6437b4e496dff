/** A model as read from an exchange file: what tools agree on, with every identifier kept as it came. */
export interface ModelDocument {
  /** Name of the tool that wrote it, as the file says. */
  exporter: string;
  elements: ModelElement[];
  relations: ModelRelation[];
  drawings: ModelDrawing[];
  /** Content that has no place here yet, by name, counted. It stays in the stored file. */
  unknown: Map<string, number>;
}

export interface ModelElement {
  id: string;
  /** Metaclass without prefix: `Class`, `Property`, `Port`, `UseCase`, `Activity`, `Package`. */
  type: string;
  stereotypes: string[];
  name: string;
  parent: string | null;
  /** Element that types a property or port. */
  typedBy: string | null;
  composite: boolean;
  /** Text of comments on the element, and of its requirement stereotype. */
  text: string;
  /** Identifier a requirement stereotype gives. */
  reference: string | null;
}

export interface ModelRelation {
  id: string;
  type: string;
  stereotypes: string[];
  from: string;
  to: string;
}

export interface ModelDrawing {
  id: string;
  name: string;
  shapes: { element: string; x: number; y: number; width: number; height: number }[];
  routes: { element: string; points: { x: number; y: number }[] }[];
}
