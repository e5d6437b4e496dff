import {
  newRecord,
  type Issue,
  type ModelBox,
  type ModelDocument,
  type ModelDrawing,
  type ModelElement,
  type ModelRelation,
  type ModelRoute,
  type ModelShape,
} from '@coomb/core';
import { isArchive, openArchive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { ModelIssues } from '../xml/model-issues.js';
import { childOf, childrenOf, readXmlTree, type XmlNode } from '../xml/xml-tree.js';

/** Reads a system structure of SSP 1.0 or 2.0: an .ssd file, or an .ssp archive with one in it. Systems, components and their connectors are known by their path of names. Throws ReadError. */
export async function readSsp(bytes: Uint8Array): Promise<{ model: ModelDocument; issues: Issue[] }> {
  const root = await readXmlTree(isArchive(bytes) ? await findStructure(bytes) : bytes);
  if (root.tag !== 'SystemStructureDescription')
    throw new ReadError('not-ssp', `The file is XML with the root element <${root.tag}>, and no system structure description.`);
  return new SspReader(root).read();
}

async function findStructure(bytes: Uint8Array): Promise<Uint8Array> {
  const archive = await openArchive(bytes);
  try {
    const name = archive.names.find((one) => /(?:^|\/)SystemStructure\.ssd$/i.test(one)) ?? archive.names.find((one) => one.toLowerCase().endsWith('.ssd'));
    if (name === undefined) throw new ReadError('not-ssp', 'The archive holds no system structure (SystemStructure.ssd).');
    return await archive.read(name);
  } finally {
    archive.close();
  }
}

/** Half the side of a connector as it is drawn, in pixels. */
const CONNECTOR = 6;
/** Width that a usual component is drawn with, in pixels. */
const USUAL_WIDTH = 150;

class SspReader {
  private readonly elements: ModelElement[] = [];
  private readonly relations: ModelRelation[] = [];
  private readonly drawings: ModelDrawing[] = [];
  private readonly issues = new ModelIssues();
  private readonly ids = new Set<string>();

  constructor(private readonly root: XmlNode) {}

  read(): { model: ModelDocument; issues: Issue[] } {
    const system = childOf(this.root, 'System');
    if (system) this.addSystem(system, null, '');
    else this.issues.add('warning', 'system-missing', `line ${this.root.line}`, 'The file describes no system');
    const exporter = this.root.attributes.generationTool ?? '';
    return {
      model: { notation: 'ssp', exporter, elements: this.elements, relations: this.relations, drawings: this.drawings, unknown: new Map(), missing: [] },
      issues: this.issues.finish(),
    };
  }

  private addElement(node: XmlNode, type: string, parent: string | null, path: string, values = newRecord<string>(), typeName = ''): ModelElement {
    let id = path;
    for (let number = 2; this.ids.has(id); number++) id = `${path}~${number}`;
    if (id !== path) this.issues.add('warning', 'name-twice', `line ${node.line}`, `${path} stands twice; the second is kept as ${id}`);
    this.ids.add(id);
    const element: ModelElement = {
      ...{ id, type, stereotypes: [], name: node.attributes.name ?? '', parent, typedBy: null },
      ...{ text: node.attributes.description ?? '', reference: null, values, line: node.line },
      ...(typeName && { typeName }),
    };
    this.elements.push(element);
    return element;
  }

  private addSystem(node: XmlNode, parent: string | null, above: string): void {
    const path = above ? `${above}/${node.attributes.name ?? ''}` : (node.attributes.name ?? 'System');
    const own = this.addElement(node, 'System', parent, path);
    this.addConnectors(node, own.id, path);
    for (const part of childOf(node, 'Elements')?.children ?? []) {
      const below = `${path}/${part.attributes.name ?? ''}`;
      if (part.tag === 'System') this.addSystem(part, own.id, path);
      else if (part.tag === 'Component' || part.tag === 'SignalDictionaryReference') {
        const { source = '', type = '', implementation = '', dictionary = '' } = part.attributes;
        const values = {
          ...(source && { source }),
          ...(type && { 'media type': type }),
          ...(implementation && { implementation }),
          ...(dictionary && { dictionary }),
        };
        const component = this.addElement(part, 'SystemComponent', own.id, below, values);
        this.addConnectors(part, component.id, below);
      }
    }
    for (const connection of childOf(node, 'Connections')?.children ?? []) if (connection.tag === 'Connection') this.addConnection(connection, path);
    this.addDrawing(node, path, own.id);
  }

  private addConnectors(node: XmlNode, owner: string, path: string): void {
    for (const connector of childrenOf(childOf(node, 'Connectors') ?? node, 'Connector')) {
      const type = connector.children.find(
        ({ tag }) => ['Real', 'Integer', 'Boolean', 'String', 'Enumeration', 'Binary', 'Float64', 'Int32'].includes(tag) || /^(?:Float|U?Int)\d+$/.test(tag),
      );
      const { kind = '' } = connector.attributes;
      const unit = type?.attributes.unit ?? '';
      this.addElement(
        connector,
        'Connector',
        owner,
        `${path}.${connector.attributes.name ?? ''}`,
        { ...(kind && { kind }), ...(unit && { unit }) },
        type?.tag ?? '',
      );
    }
  }

  private addConnection(node: XmlNode, path: string): void {
    const { startElement, startConnector = '', endElement, endConnector = '', description = '' } = node.attributes;
    const end = (element: string | undefined, connector: string) => `${element ? `${path}/${element}` : path}.${connector}`;
    const [from, to] = [end(startElement, startConnector), end(endElement, endConnector)];
    const factor = childOf(node, 'LinearTransformation')?.attributes.factor;
    for (const one of [from, to])
      if (!this.ids.has(one)) this.issues.add('warning', 'relation-dangling', `line ${node.line}`, `A connection ends at ${one}, which is not in the file`);
    this.relations.push({
      ...{ id: node.attributes.id ?? `${from} > ${to}`, type: 'Connection', stereotypes: [], from: [from], to: [to] },
      ...{ name: description, values: factor ? { factor } : newRecord<string>(), line: node.line },
    });
  }

  /** The inside of a system: its components where they were placed, y upwards turned to y downwards. */
  private addDrawing(node: XmlNode, path: string, owner: string): void {
    const placed = (childOf(node, 'Elements')?.children ?? []).flatMap((part) => {
      const geometry = childOf(part, 'ElementGeometry')?.attributes;
      return geometry ? [{ part, geometry }] : [];
    });
    if (placed.length === 0) return;
    const value = (text: string | undefined) => (Number.isFinite(Number(text)) ? Number(text) : 0);
    const widths = placed.map(({ geometry }) => Math.abs(value(geometry.x2) - value(geometry.x1))).toSorted((a, b) => a - b);
    const usual = widths[widths.length >> 1] || 1;
    const scale = usual < 90 ? USUAL_WIDTH / usual : 1;
    const shapes: ModelShape[] = [];
    const shapeOf = new Map<string, number>();
    const add = (element: string, box: ModelBox, inside: number) => {
      shapeOf.set(element, shapes.length);
      return shapes.push({ id: `shape of ${element}`, element, ...box, inside }) - 1;
    };
    const boxOf = ({ x1, y1, x2, y2 }: Record<string, string>): ModelBox => {
      const [left, right] = [Math.min(value(x1), value(x2)), Math.max(value(x1), value(x2))];
      const [low, high] = [Math.min(value(y1), value(y2)), Math.max(value(y1), value(y2))];
      return { x: left * scale, y: -high * scale, width: (right - left) * scale, height: (high - low) * scale };
    };
    const addConnectors = (part: XmlNode, box: ModelBox, below: string, inside: number) => {
      const connectors = childrenOf(childOf(part, 'Connectors') ?? part, 'Connector');
      const sides = { left: 0, right: 0 };
      for (const connector of connectors) {
        const at = childOf(connector, 'ConnectorGeometry')?.attributes;
        const isOut = ['output', 'calculatedParameter'].includes(connector.attributes.kind ?? '');
        // Without a place of their own, inputs stand at the left and outputs at the right.
        const number = isOut ? ++sides.right : ++sides.left;
        const [x, y] = at ? [value(at.x), 1 - value(at.y)] : [isOut ? 1 : 0, number / (connectors.length + 1)];
        add(
          `${below}.${connector.attributes.name ?? ''}`,
          { x: box.x + x * box.width - CONNECTOR, y: box.y + y * box.height - CONNECTOR, width: 2 * CONNECTOR, height: 2 * CONNECTOR },
          inside,
        );
      }
    };
    const outer = childOf(node, 'SystemGeometry')?.attributes;
    const frame = outer ? boxOf(outer) : undefined;
    if (frame) addConnectors(node, frame, path, add(owner, frame, -1));
    for (const { part, geometry } of placed) {
      const below = `${path}/${part.attributes.name ?? ''}`;
      const box = boxOf(geometry);
      addConnectors(part, box, below, add(below, box, frame ? 0 : -1));
    }
    const routes = childrenOf(childOf(node, 'Connections') ?? node, 'Connection').map((connection): ModelRoute => {
      const { startElement, startConnector = '', endElement, endConnector = '' } = connection.attributes;
      const end = (element: string | undefined, connector: string) => `${element ? `${path}/${element}` : path}.${connector}`;
      const [start, finish] = [end(startElement, startConnector), end(endElement, endConnector)];
      const [from, to] = [shapeOf.get(start) ?? -1, shapeOf.get(finish) ?? -1];
      const centre = (index: number) => {
        const shape = shapes[index];
        return shape ? [{ x: shape.x + shape.width / 2, y: shape.y + shape.height / 2 }] : [];
      };
      const geometry = childOf(connection, 'ConnectionGeometry')?.attributes;
      const numbers = (text: string | undefined) => (text ?? '').split(/\s+/).filter(Boolean).map(Number);
      const ys = numbers(geometry?.pointsY);
      const between = numbers(geometry?.pointsX).map((x, index) => ({ x: x * scale, y: -(ys[index] ?? 0) * scale }));
      return {
        id: `route ${start} > ${finish}`,
        element: connection.attributes.id ?? `${start} > ${finish}`,
        from,
        to,
        points: shorten([...centre(from), ...between, ...centre(to)]),
      };
    });
    this.drawings.push({ id: `drawing of ${path}`, name: node.attributes.name ?? path, sort: 'signals', owner, shapes, routes, line: node.line });
  }
}

/** A line from border to border of the two connectors that it joins, not from middle to middle. */
function shorten(points: { x: number; y: number }[]): { x: number; y: number }[] {
  if (points.length < 2) return points;
  const leave = (end: { x: number; y: number }, next: { x: number; y: number }) => {
    const [dx, dy] = [next.x - end.x, next.y - end.y];
    const far = Math.max(Math.abs(dx), Math.abs(dy));
    return far <= CONNECTOR ? end : { x: end.x + (dx / far) * CONNECTOR, y: end.y + (dy / far) * CONNECTOR };
  };
  return [leave(points[0]!, points[1]!), ...points.slice(1, -1), leave(points.at(-1)!, points.at(-2)!)];
}
