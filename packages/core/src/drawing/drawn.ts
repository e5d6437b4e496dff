import type { MadeDefinition } from './made/made-graph.js';
import type { HandPlaces } from './made/place-made.js';
import { findGroup } from './find-group.js';
import { sayElement } from '../recipe/say-detail.js';
import type { DrawingSort, ModelBox, ModelDocument, ModelDrawing, ModelElement, ShapeStyle } from '../source/model.js';
import { type EndMark, type Figure, figureOf, keywordOf, lookOf } from './figure.js';

/** A drawing as it is kept: what its tool placed, with all that is needed to paint it. Items are shown by their names of today. */
export interface DrawnBody {
  sort: DrawingSort;
  shapes: DrawnShape[];
  routes: DrawnRoute[];
  /** Boxes with the links of shapes. */
  boxes?: LinkBoxes;
  /** It was made here: shapes and routes are those of when it was last placed, what it shows follows from the project. */
  made?: { definition: MadeDefinition; hand: HandPlaces };
}

/** Boxes beside shapes, with what they are linked with. */
export interface LinkBoxes {
  /** Ids of the shapes that have one; or all that have links. */
  shown: 'all' | readonly string[];
  /** Layers that are told of; all where none is named. */
  layers: readonly string[];
  /** Where boxes were put by hand, by the shape that they belong to. */
  places: HandPlaces;
}

export interface DrawnShape extends ModelBox {
  id: string;
  /** Element of the source that it shows. */
  element: string;
  /** Item that this element is, where it is one. */
  item: string | null;
  /** Index of the shape that it lies in, or -1. */
  inside: number;
  figure: Figure;
  name: string;
  keyword?: string;
  /** Compartments, each a heading (or none) and its lines. */
  parts?: { title: string; lines: string[] }[];
  label?: ModelBox;
  style?: ShapeStyle;
  folded?: boolean;
  upright?: boolean;
  /** What a small sign in the figure stands for: what sort of event, gateway or task it is. */
  sign?: string;
}

export interface DrawnRoute {
  id: string;
  element: string;
  from: number;
  to: number;
  points: { x: number; y: number }[];
  dashed: boolean;
  /** Marks at the first and last point. */
  start: EndMark;
  end: EndMark;
  label: string;
  labelBox?: ModelBox;
  /** What stands near the first and the last point. */
  startText?: string;
  endText?: string;
  style?: ShapeStyle;
}

/** What a drawing of a model shows, ready to be painted; `itemOf` says which element became which item. */
export function buildDrawn(model: ModelDocument, drawing: ModelDrawing, itemOf: (element: string) => string | null): DrawnBody {
  const group = findGroup(model);
  const shown = new Set(drawing.shapes.map(({ element }) => element));
  const shapes = drawing.shapes.map((shape): DrawnShape => {
    const element = group.elements.get(shape.element);
    const { x, y, width, height, inside, id, label, style, folded, upright } = shape;
    const placed = {
      ...{ id, element: shape.element, item: shape.element ? itemOf(shape.element) : null, inside, x, y, width, height },
      ...(label && { label }),
      ...(style && { style }),
      ...(folded && { folded }),
      ...(upright && { upright }),
    };
    if (!element) return { ...placed, figure: 'box', name: '' };
    const figure = figureOf(element);
    const parts = figure === 'box' || figure === 'component' ? compartments(element, group.children.get(element.id) ?? [], shown, group.nameOf) : [];
    const keyword = keywordOf(element);
    const sign = signOf(element);
    return { ...placed, figure, name: nameOf(element, group.nameOf), ...(keyword && { keyword }), ...(parts.length > 0 && { parts }), ...(sign && { sign }) };
  });
  const routes = drawing.routes.map((route): DrawnRoute => {
    const relation = group.relations.get(route.element);
    const { id, element, from, to, points, labels, style } = route;
    const placed = { id, element, from, to, points, ...(style && { style }) };
    if (!relation) {
      // A line from a comment to what it is about.
      return { ...placed, dashed: true, start: 'none', end: 'none', label: labels?.[0]?.text ?? '' };
    }
    const look = lookOf(relation);
    const elementAt = (shape: number) => drawing.shapes[shape]?.element ?? '';
    // The file may lead the line from the end that is depended on.
    const isTurned = relation.to.includes(elementAt(from)) && !relation.from.includes(elementAt(from));
    const [startText, endText] = isTurned ? [relation.values['to end'], relation.values['from end']] : [relation.values['from end'], relation.values['to end']];
    return {
      ...placed,
      dashed: look.dashed,
      start: isTurned ? look.to : look.from,
      end: isTurned ? look.from : look.to,
      label: look.label,
      ...(labels?.[0] && { labelBox: { x: labels[0].x, y: labels[0].y, width: labels[0].width, height: labels[0].height } }),
      ...(startText && { startText }),
      ...(endText && { endText }),
    };
  });
  return { sort: drawing.sort, shapes, routes };
}

/** `drive: Gate Drive` for parts and lifelines, the text of notes, the name of the rest. */
function nameOf(element: ModelElement, typeNameOf: (element: ModelElement) => string): string {
  const { type, name, role, text, values } = element;
  if (type === 'Comment' || type === 'TextAnnotation') return text || name;
  if (type === 'CombinedFragment' || type === 'ConsiderIgnoreFragment') return values.operator ?? name;
  if (type === 'InteractionOperand') return values.guard ? `[${values.guard}]` : '';
  if (type === 'InteractionUse') return `ref ${typeNameOf(element) || name}`;
  if (/Constraint$/.test(type)) return `{${text || name}}`;
  if (role || type === 'Port' || type === 'Lifeline' || type === 'InstanceSpecification' || /Pin$/.test(type)) {
    const typed = typeNameOf(element);
    const many = values.multiplicity && values.multiplicity !== '1' ? ` [${values.multiplicity}]` : '';
    return `${name}${typed && type !== 'Port' ? `: ${typed}` : ''}${many}`;
  }
  if (type === 'CallBehaviorAction' || type === 'CallOperationAction') {
    const called = typeNameOf(element);
    return !name || name === called ? called || name : called ? `${name}: ${called}` : name;
  }
  return name;
}

const SECTIONS: [title: string, holds: (element: ModelElement) => boolean][] = [
  ['values', ({ role, stereotypes }) => role === 'value' && !stereotypes.some((one) => one.toLowerCase() === 'flowproperty')],
  ['flows', ({ stereotypes }) => stereotypes.some((one) => one.toLowerCase() === 'flowproperty')],
  ['references', ({ role }) => role === 'reference'],
  ['parts', ({ role }) => role === 'part' || role === 'constraint'],
  ['literals', ({ type }) => /Literal$/.test(type)],
  ['operations', ({ type }) => ['Operation', 'Reception', 'EOperation'].includes(type)],
  ['constraints', ({ type }) => /Constraint$/.test(type)],
];

/** What stands in the compartments of a classifier: what it owns and the drawing does not show by itself. */
function compartments(
  element: ModelElement,
  owned: readonly ModelElement[],
  shown: ReadonlySet<string>,
  typeNameOf: (element: ModelElement) => string,
): { title: string; lines: string[] }[] {
  const parts: { title: string; lines: string[] }[] = [];
  if (element.reference || element.stereotypes.some((one) => /requirement$/i.test(one)))
    parts.push({ title: '', lines: [...(element.reference ? [`id = ${element.reference}`] : []), ...(element.text ? [`text = ${element.text}`] : [])] });
  for (const [title, holds] of SECTIONS) {
    const lines = owned.filter((one) => holds(one) && !shown.has(one.id)).map((one) => sayElement(one, typeNameOf(one)));
    if (lines.length > 0) parts.push({ title, lines });
  }
  return parts;
}

/** What sort of event, gateway or task a figure of BPMN is. */
function signOf({ type, values }: ModelElement): string {
  if (values.event) return values.event;
  if (type.endsWith('Gateway')) return type.slice(0, -'Gateway'.length).toLowerCase();
  if (type.endsWith('Task') && type !== 'Task') return type.slice(0, -'Task'.length).toLowerCase();
  return '';
}
