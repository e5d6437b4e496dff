import type { ModelElement, ModelRelation } from '@coomb/core';
import { first } from './say-value.js';
import type { ModelUnderWay } from './under-way.js';
import type { XmiFile } from './xmi-file.js';
import { allOf, type XmiObject } from './xmi-objects.js';

const BASE = /^base_/;

/** Whether an object says that a stereotype is applied: whatever the profile, it names what it is applied to by `base_` and the metaclass. */
export function isApplication(object: XmiObject): boolean {
  if (object.space !== 'profile' && object.space !== 'none') return false;
  for (const property in object.properties) if (BASE.test(property)) return true;
  return false;
}

/** Gives elements and relations their stereotypes with the values that these carry. What SysML says of requirements, flows and units is told by its meaning. */
export function applyStereotypes(builder: ModelUnderWay, applications: readonly { object: XmiObject; file: XmiFile }[]): void {
  for (const { object, file } of applications) {
    for (const property in object.properties) {
      if (!BASE.test(property)) continue;
      for (const target of builder.refer(object, property, file)) {
        const element = 'object' in target ? target.object.element : undefined;
        const relation = 'object' in target ? target.object.relation : undefined;
        if (!element && !relation) {
          if ('dangling' in target)
            builder.issues.add(
              'warning',
              'stereotype-dangling',
              builder.at(object, file),
              `«${object.type}» is applied to ${target.dangling.slice(0, 120)}, which is not in the file`,
            );
          continue;
        }
        for (const one of [element, relation]) {
          if (!one || one.stereotypes.includes(object.type)) continue;
          // It says where a relation holds, not what it is.
          if (object.type !== 'DirectedRelationshipPropertyPath') one.stereotypes.push(object.type);
          takeValues(builder, object, file, one.values);
        }
        if (relation) takeUses(builder, object, file, relation);
        if (element) giveMeaning(builder, object, file, element);
      }
    }
  }
}

function takeValues(builder: ModelUnderWay, object: XmiObject, file: XmiFile, values: Record<string, string>): void {
  for (const property in object.properties) {
    if (BASE.test(property) || PATHS.has(property)) continue;
    const texts = allOf(object, property)
      .map((text) => text.trim())
      .filter(Boolean);
    const names = builder.namesOf(object, property, file);
    const text = names || texts.join(', ');
    if (text) values[`${object.type}.${property}`] = text;
  }
  for (const child of object.children ?? []) {
    const text = first(child, 'name') || first(child, 'value') || first(child, 'body');
    if (text) values[`${object.type}.${child.tag}`] = text;
  }
}

/** SysML 1.4 and later: what leads to an end of a relation, from the element in whose context it holds. */
const PATHS = new Set(['sourceContext', 'sourcePropertyPath', 'targetContext', 'targetPropertyPath']);

function takeUses(builder: ModelUnderWay, object: XmiObject, file: XmiFile, relation: ModelRelation): void {
  const read = (property: string) => builder.refer(object, property, file).flatMap((target) => ('object' in target ? (target.object.element?.id ?? []) : []));
  for (const [end, key] of [
    ['source', 'fromUse'],
    ['target', 'toUse'],
  ] as const) {
    const [context] = read(`${end}Context`);
    const path = read(`${end}PropertyPath`);
    if (context !== undefined) relation[key] = [context, ...path];
  }
}

const textOf = (object: XmiObject, ...names: string[]): string => {
  for (const name of names) {
    const text = allOf(object, name).join('\n').trim();
    if (text) return text;
  }
  return '';
};

/** SysML 1.x: the properties of requirements, flow properties and value types. */
function giveMeaning(builder: ModelUnderWay, object: XmiObject, file: XmiFile, element: ModelElement): void {
  const name = object.type.toLowerCase();
  if (/requirement$/.test(name) || (object.properties.text && object.properties.id)) {
    const text = textOf(object, 'text', 'Text');
    if (text) element.text = text;
    element.reference = textOf(object, 'id', 'Id', 'ID') || element.reference;
    for (const tag of ['text', 'Text', 'id', 'Id', 'ID']) delete element.values[`${object.type}.${tag}`];
  }
  if (name === 'flowproperty') element.values.direction = textOf(object, 'direction') || 'inout';
  if (name === 'valuetype') {
    const unit = builder.namesOf(object, 'unit', file);
    if (unit) element.values.unit = unit;
  }
  if (name === 'participantproperty' || name === 'connectorproperty') element.role = 'reference';
  if (name === 'constraintparameter') element.role = 'value';
}
