import { tableOf, type DrawingSort, type ModelBox, type ModelDrawing, type ModelRoute, type ModelShape, type ShapeStyle } from '@coomb/core';
import { first } from './say-value.js';
import type { ModelUnderWay } from './under-way.js';
import type { XmiFile } from './xmi-file.js';
import type { XmiObject } from './xmi-objects.js';

const DIAGRAM = /^(?:UML)?(\w*?)Diagram$/;
const EDGE = /Edge$/;
const LABEL = /Label$/;
const STYLE = /Style$/;

/** Drawings of UML DI, wherever in the file they stand. */
export const isDiagram = (object: XmiObject): boolean => (object.space === 'di' || object.type.startsWith('UML')) && DIAGRAM.test(object.type);

const SORTS = tableOf<DrawingSort>({
  class: 'class',
  component: 'component',
  compositestructure: 'structure',
  internalblock: 'structure',
  package: 'package',
  usecase: 'useCase',
  activity: 'activity',
  statemachine: 'states',
  interaction: 'sequence',
  sequence: 'sequence',
  object: 'object',
  deployment: 'deployment',
  requirement: 'requirement',
});

/** One drawing of UML Diagram Interchange: shapes with what lies in them, routes, labels and styles, as its tool placed them. */
export function buildDrawings(builder: ModelUnderWay, object: XmiObject, file: XmiFile): ModelDrawing[] {
  const reader = new DrawingReader(builder, object, file);
  return [reader.read()];
}

class DrawingReader {
  private readonly shapes: ModelShape[] = [];
  private readonly routes: ModelRoute[] = [];
  private readonly shapeAt = new Map<XmiObject, number>();
  private readonly edges: { object: XmiObject; route: ModelRoute }[] = [];

  constructor(
    private readonly builder: ModelUnderWay,
    private readonly diagram: XmiObject,
    private readonly file: XmiFile,
  ) {}

  read(): ModelDrawing {
    const { diagram, builder } = this;
    for (const child of diagram.children ?? []) this.visit(child, -1);
    for (const { object, route } of this.edges) {
      route.from = this.endOf(object, 'source');
      route.to = this.endOf(object, 'target');
    }
    const [owner] = this.elementsOf(diagram);
    return {
      id: diagram.id,
      name: first(diagram, 'name'),
      sort: this.sortOf(),
      owner: owner ?? builder.ownerOf(diagram)?.id ?? null,
      shapes: this.shapes,
      routes: this.routes,
      line: diagram.line,
    };
  }

  /** Drawings of requirements are drawn as class diagrams, whatever they are called. */
  private sortOf(): DrawingSort {
    const name = DIAGRAM.exec(this.diagram.type)?.[1]?.toLowerCase() ?? '';
    const sort = SORTS[name] ?? 'other';
    if (sort !== 'class') return sort;
    const shown = this.shapes.flatMap(({ element }) => this.stereotypesOf(element));
    return shown.length > 0 && shown.filter((one) => /requirement$/i.test(one)).length * 2 >= this.shapes.length ? 'requirement' : 'class';
  }

  private stereotypesOf(element: string): string[] {
    return this.byId.get(element) ?? [];
  }

  private _byId: Map<string, string[]> | undefined;
  private get byId(): Map<string, string[]> {
    this._byId ??= new Map(this.builder.model.elements.map(({ id, stereotypes }) => [id, stereotypes]));
    return this._byId;
  }

  /** Elements that a shape or a drawing shows, by the ids that they have in the model. */
  private elementsOf(object: XmiObject): string[] {
    return this.builder.refer(object, 'modelElement', this.file).flatMap((target) => {
      if (!('object' in target)) return [];
      return target.object.element?.id ?? target.object.relation?.id ?? [];
    });
  }

  private visit(object: XmiObject, inside: number): void {
    if (EDGE.test(object.type)) return this.addRoute(object);
    if (STYLE.test(object.type)) return;
    const box = readBox(object);
    const [element = ''] = this.elementsOf(object);
    if (LABEL.test(object.type)) {
      const shape = this.shapes[inside];
      if (shape && box && (!element || element === shape.element)) shape.label ??= box;
      return;
    }
    let at = inside;
    // A compartment without an element of its own is a part of its shape's picture.
    if (box && (element || !/Compartment$/.test(object.type))) {
      at = this.shapes.length;
      const style = this.styleOf(object);
      this.shapeAt.set(object, at);
      this.shapes.push({
        id: object.id,
        element,
        ...box,
        inside,
        ...(style && { style }),
        ...(first(object, 'isExpanded') === 'false' && { folded: true }),
      });
    }
    for (const child of object.children ?? []) this.visit(child, at);
  }

  private addRoute(object: XmiObject): void {
    const points = (object.structures ?? [])
      .filter(({ tag }) => tag === 'waypoint')
      .map(({ attributes }) => ({ x: number(attributes.x), y: number(attributes.y) }));
    const [element = ''] = this.elementsOf(object);
    const labels = (object.children ?? []).flatMap((child) => {
      const box = LABEL.test(child.type) ? readBox(child) : undefined;
      const text = first(child, 'text').trim();
      return box ? [{ ...box, ...(text && { text }) }] : [];
    });
    const style = this.styleOf(object);
    const route: ModelRoute = { id: object.id, element, from: -1, to: -1, points, ...(labels.length > 0 && { labels }), ...(style && { style }) };
    this.routes.push(route);
    this.edges.push({ object, route });
    for (const child of object.children ?? []) if (!LABEL.test(child.type) && !STYLE.test(child.type)) this.visit(child, -1);
  }

  private endOf(object: XmiObject, property: string): number {
    for (const target of this.builder.refer(object, property, this.file)) {
      if (!('object' in target)) continue;
      const own = this.shapeAt.get(target.object);
      if (own !== undefined) return own;
      // Some say the element rather than its shape.
      const element = target.object.element?.id;
      if (element) return this.shapes.findIndex((shape) => shape.element === element);
    }
    return -1;
  }

  private styleOf(object: XmiObject): ShapeStyle | undefined {
    const shared = this.builder.refer(object, 'sharedStyle', this.file).flatMap((target) => ('object' in target ? [target.object] : []));
    const local = (object.children ?? []).filter((child) => child.tag === 'localStyle');
    const inner = (object.structures ?? []).filter(({ tag }) => tag === 'localStyle').map(({ attributes }) => attributes);
    const style: ShapeStyle = {};
    for (const one of [...shared, ...local])
      Object.assign(
        style,
        readStyle((name) => first(one, name), one),
      );
    for (const one of inner)
      Object.assign(
        style,
        readStyle((name) => one[name] ?? ''),
      );
    Object.assign(
      style,
      readStyle((name) => first(object, name)),
    );
    return Object.keys(style).length > 0 ? style : undefined;
  }
}

const number = (text: string | undefined): number => {
  const value = Number(text);
  return Number.isFinite(value) ? value : 0;
};

function readBox(object: XmiObject): ModelBox | undefined {
  const bounds = object.structures?.find(({ tag }) => tag === 'bounds')?.attributes;
  if (!bounds) return undefined;
  return { x: number(bounds.x), y: number(bounds.y), width: Math.max(0, number(bounds.width)), height: Math.max(0, number(bounds.height)) };
}

function readStyle(textOf: (name: string) => string, object?: XmiObject): ShapeStyle {
  const style: ShapeStyle = {};
  for (const [key, name] of [
    ['fill', 'fillColor'],
    ['line', 'strokeColor'],
    ['font', 'fontColor'],
  ] as const) {
    const colour = readColour(textOf(name)) ?? readRgb(object?.structures?.find(({ tag }) => tag === name)?.attributes);
    if (colour) style[key] = colour;
  }
  return style;
}

export function readColour(text: string): string | undefined {
  const found = /^#?([0-9a-f]{6})$/i.exec(text.trim());
  return found ? `#${found[1]!.toLowerCase()}` : undefined;
}

/** DC colours are three numbers. */
function readRgb(attributes: Record<string, string> | undefined): string | undefined {
  if (!attributes) return undefined;
  const channels = ['red', 'green', 'blue'].map((name) => Number(attributes[name] ?? 0));
  if (channels.some((one) => !(one >= 0 && one <= 255))) return undefined;
  return `#${channels.map((one) => Math.round(one).toString(16).padStart(2, '0')).join('')}`;
}
