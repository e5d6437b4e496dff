import { newRecord, type Issue, type ModelDocument, type ModelElement, type ModelRelation } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { first } from '../xmi/say-value.js';
import { allOf, type XmiObject } from '../xmi/xmi-objects.js';
import { openXmiFile } from '../xmi/xmi-file.js';
import { ModelIssues } from '../xml/model-issues.js';

const ELEMENTS = new Set(['EPackage', 'EClass', 'EDataType', 'EEnum', 'EEnumLiteral', 'EAttribute', 'EReference', 'EOperation', 'EParameter']);

/** Reads an Ecore model: packages, classes, attributes, references, operations, enumerations. Elements are known by their path of names. Throws ReadError. */
export async function readEcore(bytes: Uint8Array): Promise<{ model: ModelDocument; issues: Issue[] }> {
  const { content } = await openXmiFile('', bytes);
  const issues = new ModelIssues();
  const elements: ModelElement[] = [];
  const relations: ModelRelation[] = [];
  const pathOf = new Map<XmiObject, string>();
  const byPath = new Map<string, ModelElement>();
  const unknown = new Map<string, number>();
  for (const object of content.objects) {
    const { type } = object;
    if (!ELEMENTS.has(type)) {
      if (object.space === 'ecore' && !['EAnnotation', 'EStringToStringMapEntry', 'EGenericType', 'ETypeParameter'].includes(type) && /^E[A-Z]/.test(type))
        unknown.set(type, (unknown.get(type) ?? 0) + 1);
      continue;
    }
    const above = object.owner && pathOf.get(object.owner);
    const name = first(object, 'name');
    // The outermost package is the root of all paths.
    const isRoot = above === undefined || above === null;
    let path = isRoot ? '/' : `${above === '/' ? '/' : above}/${name}`;
    if (byPath.has(path)) {
      issues.add('warning', 'name-twice', `line ${object.line}`, `${path} stands twice; the second is kept as ${path}~2`);
      path = `${path}~2`;
    }
    pathOf.set(object, path);
    const element: ModelElement = {
      ...{ id: path, type, stereotypes: [], name, parent: above ?? null, typedBy: null, text: documentationOf(object), reference: null },
      ...{ values: valuesOf(object), line: object.line },
    };
    if (type === 'EReference') element.role = first(object, 'containment') === 'true' ? 'part' : 'reference';
    byPath.set(path, element);
    elements.push(element);
  }
  if (elements.length === 0) throw new ReadError('not-ecore', 'The file holds no Ecore package.');
  const find = (text: string): { element?: ModelElement; name: string } => {
    const target = text.trim().split(/\s+/).at(-1) ?? '';
    const fragment = target.slice(target.indexOf('#') + 1);
    const isOwn = target.startsWith('#') || !target.includes('#');
    const element = isOwn ? byPath.get(fragment) : undefined;
    return { ...(element && { element }), name: element?.name ?? fragment.slice(fragment.lastIndexOf('/') + 1) };
  };
  for (const [object, path] of pathOf) {
    const element = byPath.get(path)!;
    const [type] = allOf(object, 'eType');
    if (type) {
      const found = find(type);
      element.typedBy = found.element?.id ?? null;
      if (!found.element) element.typeName = found.name.replace(/^E(?=[A-Z])/, '');
    }
    const supers = allOf(object, 'eSuperTypes')
      .flatMap((text) => text.trim().split(/\s+/))
      .filter((one) => one.includes('#') || one.startsWith('//'));
    for (const one of supers) {
      const { element: general, name } = find(one);
      if (general)
        relations.push({
          id: `${path} > ${general.id}`,
          type: 'EModelSuperType',
          stereotypes: [],
          from: [path],
          to: [general.id],
          name: '',
          values: newRecord(),
          line: object.line,
        });
      else
        issues.add('warning', 'relation-dangling', `line ${object.line}`, `${element.name} is a kind of ${name}, which is not in the file; it makes no link`);
    }
  }
  for (const element of elements) if (element.type === 'EOperation') element.values.signature = signatureOf(element, elements, byPath);
  return { model: { notation: 'ecore', exporter: content.exporter, elements, relations, drawings: [], unknown, missing: [] }, issues: issues.finish() };
}

/** Documentation stands in an annotation, under the key of that name. */
function documentationOf(object: XmiObject): string {
  const annotations = object.children?.filter(({ tag }) => tag === 'eAnnotations') ?? [];
  for (const annotation of annotations)
    for (const { tag, attributes } of annotation.structures ?? []) if (tag === 'details' && attributes.key === 'documentation') return attributes.value ?? '';
  return '';
}

function valuesOf(object: XmiObject): Record<string, string> {
  const values = newRecord<string>();
  const [lower, upper] = [first(object, 'lowerBound'), first(object, 'upperBound')];
  if (lower || upper) {
    const [from, to] = [lower || '0', upper === '-1' ? '*' : upper || '1'];
    values.multiplicity = from === to ? from : `${from}..${to}`;
  }
  const literal = first(object, 'defaultValueLiteral') || (object.tag === 'eLiterals' ? first(object, 'value') : '');
  if (literal) values.default = literal;
  for (const name of ['abstract', 'interface', 'derived', 'transient', 'unique', 'ordered', 'nsURI', 'nsPrefix']) {
    const value = first(object, name);
    if (value) values[name] = value;
  }
  return values;
}

function signatureOf(operation: ModelElement, elements: readonly ModelElement[], byPath: ReadonlyMap<string, ModelElement>): string {
  const typeOf = ({ typedBy, typeName }: ModelElement) => (typedBy === null ? undefined : byPath.get(typedBy)?.name) ?? typeName ?? '';
  const inside = elements
    .filter(({ type, parent }) => type === 'EParameter' && parent === operation.id)
    .map((one) => `${one.name}${typeOf(one) ? `: ${typeOf(one)}` : ''}`);
  return `${operation.name}(${inside.join(', ')})${typeOf(operation) ? `: ${typeOf(operation)}` : ''}`;
}
