import type { Issue } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { inChunks, localName, walkXml, type XmlVisitor } from '../xml/walk-xml.js';
import type { ModelDocument, ModelDrawing, ModelElement, ModelRelation } from '@coomb/core';

const ELEMENTS = new Set([
  'Model',
  'Package',
  'Profile',
  'Class',
  'Component',
  'Interface',
  'DataType',
  'PrimitiveType',
  'Enumeration',
  'Signal',
  'Actor',
  'UseCase',
  'Activity',
  'StateMachine',
  'Interaction',
  'Property',
  'Port',
  'OpaqueAction',
  'CallBehaviorAction',
  'Operation',
]);
const RELATIONS = new Set([
  'Dependency',
  'Abstraction',
  'Realization',
  'Usage',
  'InterfaceRealization',
  'Include',
  'Extend',
  'Generalization',
  'ComponentRealization',
]);
const MOST_ELEMENTS = 500_000;

/** Which attributes or child elements hold the ends of a relation, first the depending one. */
const ENDS: Record<string, [string[], string[]]> = {
  Include: [['includingCase'], ['addition']],
  Extend: [['extension'], ['extendedCase']],
  Generalization: [['specific'], ['general']],
  InterfaceRealization: [
    ['implementingClassifier', 'client'],
    ['contract', 'supplier'],
  ],
};
/** Content that is read as part of its owner, so that it is neither an element nor unknown. */
const KNOWN = new Set([
  'XMI',
  'Documentation',
  'exporter',
  'exporterVersion',
  'body',
  'client',
  'supplier',
  'bounds',
  'waypoint',
  'annotatedElement',
  'type',
  'general',
  'addition',
  'extendedCase',
  'contract',
  'specific',
  'includingCase',
  'extension',
  'implementingClassifier',
  'lowerValue',
  'upperValue',
]);

interface Frame {
  tag: string;
  element?: ModelElement;
  relation?: ModelRelation;
  drawing?: ModelDrawing;
  shape?: { element: string; isRoute: boolean; index: number };
  comment?: { body: string; of: string[] };
}

/**
 * Reads UML 2.5.1 in XMI 2.5.1 with SysML stereotypes as plain XML and UML diagram interchange.
 * What is unknown is counted and named, never an error. Throws ReadError when the file is no XMI.
 */
export async function readXmi(bytes: Uint8Array): Promise<{ model: ModelDocument; issues: Issue[] }> {
  const reader = new XmiReader();
  await walkXml(inChunks(bytes), reader);
  return reader.finish();
}

class XmiReader implements XmlVisitor {
  private readonly model: ModelDocument = { exporter: '', elements: [], relations: [], drawings: [], unknown: new Map() };
  private readonly byId = new Map<string, ModelElement>();
  private readonly relationById = new Map<string, ModelRelation>();
  private readonly stereotypes: { name: string; attributes: Record<string, string> }[] = [];
  private readonly comments: { body: string; of: string[] }[] = [];
  private readonly issues: Issue[] = [];
  private readonly frames: Frame[] = [];
  private root = '';
  private text_ = '';

  open(name: string, attributes: Record<string, string>, line: number): void {
    if (!this.root) {
      this.root = localName(name);
      this.namespace = attributes[name.includes(':') ? `xmlns:${name.slice(0, name.indexOf(':'))}` : 'xmlns'] ?? '';
    }
    this.text_ = '';
    const frame: Frame = { tag: localName(name) };
    this.frames.push(frame);
    if (frame.tag === 'Documentation') this.model.exporter ||= attributes.exporter ?? '';
    const type = localName(attributes['xmi:type'] ?? (name.startsWith('uml:') || name.startsWith('umldi:') ? name : ''));
    const id = attributes['xmi:id'] ?? '';
    if (type && RELATIONS.has(type)) frame.relation = this.addRelation(type, id, attributes);
    else if (ELEMENTS.has(type)) frame.element = this.addElement(type, id, attributes, line);
    else if (type === 'Comment') frame.comment = { body: attributes.body ?? '', of: idsIn(attributes.annotatedElement) };
    else if (/^UML\w*Diagram$/.test(type)) this.addDrawing(frame, id, attributes);
    else if (/^UML\w*(Shape|Label|Compartment)$/.test(type)) this.addShape(frame, attributes, false);
    else if (/^UML\w*Edge$/.test(type)) this.addShape(frame, attributes, true);
    else if (this.readPart(frame.tag, attributes)) return;
    else if (this.frames.length === 2 && !type && Object.keys(attributes).some((key) => key.startsWith('base_')))
      this.stereotypes.push({ name: frame.tag, attributes });
    else if (!KNOWN.has(frame.tag)) this.count(type || frame.tag);
  }

  close(): void {
    const frame = this.frames.pop();
    if (!frame) return;
    const text = this.text_.trim();
    this.text_ = '';
    if (frame.tag === 'exporter' && text) this.model.exporter ||= text;
    if (frame.tag === 'body' && text && this.find('comment')) this.find('comment')!.body ||= text;
    if (frame.comment) this.closeComment(frame.comment);
  }

  text(text: string): void {
    this.text_ += text;
  }

  /** Namespace that the root element says it is of. */
  private namespace = '';

  finish(): { model: ModelDocument; issues: Issue[] } {
    if (this.root !== 'XMI' && this.model.elements.length === 0) throw new ReadError('not-xmi', describeOther(this.root, this.namespace));
    for (const { name, attributes } of this.stereotypes) this.applyStereotype(name, attributes);
    for (const { body, of } of this.comments)
      for (const id of of) {
        const element = this.byId.get(id);
        if (element) element.text = element.text ? `${element.text}\n${body}` : body;
      }
    this.dropDangling();
    for (const [what, count] of this.model.unknown)
      this.issues.push({
        severity: 'note',
        code: 'content-unknown',
        at: what,
        message: `${count} × ${what} has no place in Coomb yet; it stays in the stored file`,
      });
    return { model: this.model, issues: this.issues };
  }

  private find<K extends 'comment' | 'element' | 'relation' | 'drawing' | 'shape'>(what: K): Frame[K] {
    for (let i = this.frames.length - 1; i >= 0; i--) if (this.frames[i]![what]) return this.frames[i]![what];
    return undefined;
  }

  private addElement(type: string, id: string, attributes: Record<string, string>, line: number): ModelElement | undefined {
    if (!id) {
      this.issues.push({
        severity: 'warning',
        code: 'element-without-id',
        at: `line ${line}`,
        message: `A ${type} "${attributes.name ?? ''}" has no xmi:id and was left out`,
      });
      return undefined;
    }
    if (this.byId.has(id)) {
      this.issues.push({
        severity: 'warning',
        code: 'id-twice',
        at: `line ${line}`,
        message: `The id ${id} is used twice; the second element, "${attributes.name ?? ''}", was left out`,
      });
      return undefined;
    }
    const parent = this.find('element')?.id ?? null;
    const element: ModelElement = {
      id,
      type,
      stereotypes: [],
      name: attributes.name ?? '',
      parent,
      typedBy: attributes.type ?? null,
      composite: attributes.aggregation === 'composite',
      text: '',
      reference: null,
    };
    this.byId.set(id, element);
    if (this.model.elements.push(element) > MOST_ELEMENTS)
      throw new ReadError(
        'model-too-large',
        `The model holds more than ${MOST_ELEMENTS.toLocaleString('en-GB')} elements and was refused. Export it in parts.`,
      );
    return element;
  }

  private addRelation(type: string, id: string, attributes: Record<string, string>): ModelRelation {
    const [fromNames, toNames] = ENDS[type] ?? [['client'], ['supplier']];
    const first = (names: string[]) => names.map((name) => attributes[name]).find(Boolean) ?? '';
    const owner = this.find('element')?.id ?? '';
    const relation: ModelRelation = { id, type, stereotypes: [], from: idsIn(first(fromNames))[0] ?? '', to: idsIn(first(toNames))[0] ?? '' };
    if (!relation.from && ['Generalization', 'Include', 'Extend', 'InterfaceRealization'].includes(type)) relation.from = owner;
    this.model.relations.push(relation);
    if (id) this.relationById.set(id, relation);
    return relation;
  }

  private addDrawing(frame: Frame, id: string, attributes: Record<string, string>): void {
    frame.drawing = { id, name: attributes.name ?? '', shapes: [], routes: [] };
    this.model.drawings.push(frame.drawing);
  }

  private addShape(frame: Frame, attributes: Record<string, string>, isRoute: boolean): void {
    const drawing = this.find('drawing');
    const element = idsIn(attributes.modelElement)[0] ?? '';
    if (!drawing) return;
    frame.shape = { element, isRoute, index: isRoute ? drawing.routes.length : drawing.shapes.length };
    if (isRoute) drawing.routes.push({ element, points: [] });
    else drawing.shapes.push({ element, x: 0, y: 0, width: 0, height: 0 });
  }

  /** Children that tell something of their owner: ends, types, comments' bodies, bounds. */
  private readPart(tag: string, attributes: Record<string, string>): boolean {
    const ref = attributes['xmi:idref'];
    const owner = this.frames.at(-2);
    const shape = this.find('shape');
    const drawing = this.find('drawing');
    if (tag === 'bounds' && shape && drawing && !shape.isRoute)
      Object.assign(drawing.shapes[shape.index]!, {
        x: Number(attributes.x) || 0,
        y: Number(attributes.y) || 0,
        width: Number(attributes.width) || 0,
        height: Number(attributes.height) || 0,
      });
    else if (tag === 'waypoint' && shape?.isRoute && drawing)
      drawing.routes[shape.index]!.points.push({ x: Number(attributes.x) || 0, y: Number(attributes.y) || 0 });
    else if (tag === 'modelElement' && ref && shape && drawing) (shape.isRoute ? drawing.routes : drawing.shapes)[shape.index]!.element = ref;
    else if (!ref || !owner) return false;
    else if (owner.relation && ['client', 'includingCase', 'extension', 'specific', 'implementingClassifier'].includes(tag)) owner.relation.from = ref;
    else if (owner.relation && ['supplier', 'addition', 'extendedCase', 'general', 'contract'].includes(tag)) owner.relation.to = ref;
    else if (owner.element && tag === 'type') owner.element.typedBy = ref;
    else if (owner.comment && tag === 'annotatedElement') owner.comment.of.push(ref);
    else return false;
    return true;
  }

  private closeComment(comment: { body: string; of: string[] }): void {
    const owner = this.find('element')?.id;
    if (comment.body) this.comments.push({ body: comment.body, of: comment.of.length ? comment.of : owner ? [owner] : [] });
  }

  private applyStereotype(name: string, attributes: Record<string, string>): void {
    for (const [key, value] of Object.entries(attributes)) {
      if (!key.startsWith('base_')) continue;
      const element = this.byId.get(value);
      const target = element ?? this.relationById.get(value);
      if (!target) {
        this.issues.push({
          severity: 'warning',
          code: 'stereotype-dangling',
          at: attributes['xmi:id'] ?? name,
          message: `«${name}» is applied to ${value}, which is not in the file`,
        });
        continue;
      }
      target.stereotypes.push(name);
      if (!element) continue;
      if (attributes.text ?? attributes.Text) element.text = attributes.text ?? attributes.Text ?? '';
      element.reference = attributes.id ?? attributes.Id ?? element.reference;
    }
  }

  private dropDangling(): void {
    const known = (id: string) => this.byId.has(id);
    this.model.relations = this.model.relations.filter((relation) => {
      if (known(relation.from) && known(relation.to)) return true;
      this.issues.push({
        severity: 'warning',
        code: 'relation-dangling',
        at: relation.id,
        message: `A ${relation.type} ends at an element that is not in the file; it was left out`,
      });
      return false;
    });
  }

  private count(what: string): void {
    this.model.unknown.set(what, (this.model.unknown.get(what) ?? 0) + 1);
  }
}

function idsIn(value: string | undefined): string[] {
  return value ? value.split(/\s+/).filter(Boolean) : [];
}

/** What XML of other sorts is, as far as its root and namespace tell, and what can be done with it. */
const OTHERS: [RegExp, string][] = [
  [/omg\.org\/spec\/BPMN|^bpmn/i, 'a process in BPMN. Processes are not read yet'],
  [/omg\.org\/spec\/DMN|^dmn/i, 'decision tables in DMN. Decision tables are not read yet'],
  [/www\.w3\.org\/1999\/xhtml|^html$/i, 'a web page. Save it with the ending .html and hand that in'],
  [/www\.w3\.org\/2000\/svg|^svg$/i, 'a drawing (SVG). Drawings alone hold no items'],
  [/w3\.org\/2001\/XMLSchema|^schema$/i, 'an XML schema. It describes files; hand in a file that it describes'],
  [
    /schemas\.openxmlformats\.org|schemas\.microsoft\.com\/office|^(?:document|workbook|package)$/i,
    'a part of an office document. Hand in the whole document as .docx or .xlsx',
  ],
  [/opendocument/i, 'an office document in OpenDocument. Save it as .docx or .xlsx and hand that in'],
  [/oasis-open\.org.*(?:dita|docbook)|docbook|^(?:book|article|topic)$/i, 'a text document. Have it written as .docx, .html or .pdf and hand that in'],
  [/^(?:rss|feed)$/i, 'a list of news. Coomb reads requirements, models, tests and results'],
];

function describeOther(root: string, namespace: string): string {
  const known = OTHERS.find(([pattern]) => pattern.test(namespace) || pattern.test(root))?.[1];
  const named = `The file is XML with the root element <${root}>${namespace ? ` of the namespace ${namespace.slice(0, 200)}` : ' and no namespace'}`;
  return known
    ? `${named}: ${known}.`
    : `${named}, and holds no UML model. Coomb reads models as XMI 2.5.1, requirements as ReqIF, results as JUnit XML: have it exported as one of these, or as a table (.xlsx, .csv).`;
}
