import { tableOf } from '@coomb/core';
import { VALUES } from './metamodel.js';
import { allOf, type XmiObject } from './xmi-objects.js';

export const first = ({ properties }: XmiObject, name: string): string => {
  const value = properties[name];
  return value === undefined ? '' : typeof value === 'string' ? value : value[0]!;
};
export const ownedBy = (object: XmiObject, tag: string): XmiObject[] => object.children?.filter((child) => child.tag === tag) ?? [];
export const isValue = (object: XmiObject): boolean => VALUES.has(object.type);

/** A value specification as people write it; `nameOf` names what a reference leads to. */
export function sayValue(value: XmiObject, nameOf: (reference: string) => string): string {
  switch (value.type) {
    case 'LiteralInteger':
    case 'LiteralUnlimitedNatural':
    case 'LiteralReal':
      return first(value, 'value') || '0';
    case 'LiteralBoolean':
      return first(value, 'value') || 'false';
    case 'LiteralString':
      return first(value, 'value');
    case 'LiteralNull':
      return 'null';
    case 'InstanceValue':
      return nameOf(first(value, 'instance')) || first(value, 'name');
    case 'ElementValue':
      return nameOf(first(value, 'element'));
    case 'TimeExpression':
    case 'Duration': {
      const [inner] = ownedBy(value, 'expr');
      return inner ? sayValue(inner, nameOf) : first(value, 'name');
    }
    case 'Interval':
    case 'TimeInterval':
    case 'DurationInterval':
      return `${nameOf(first(value, 'min'))}..${nameOf(first(value, 'max'))}`;
    case 'Expression':
    case 'StringExpression': {
      const inner = ownedBy(value, 'operand').map((one) => sayValue(one, nameOf));
      const symbol = first(value, 'symbol');
      return symbol ? `${symbol}(${inner.join(', ')})` : inner.join('');
    }
    default:
      return allOf(value, 'body').join('\n').trim() || first(value, 'name');
  }
}

/** What a property holds that may be a value specification, a constraint around one, or a mere text. */
export function sayOwned(object: XmiObject, tag: string, nameOf: (reference: string) => string): string {
  const [owned] = ownedBy(object, tag);
  if (!owned) {
    const text = first(object, tag);
    return text && nameOf(text) ? nameOf(text) : text.trim();
  }
  if (isValue(owned)) return sayValue(owned, nameOf);
  const [inner] = ownedBy(owned, 'specification');
  return inner ? sayValue(inner, nameOf) : first(owned, 'specification') || first(owned, 'name');
}

/** `0..*`, or nothing where a file does not say how many. */
export function sayMultiplicity(object: XmiObject, nameOf: (reference: string) => string): string {
  const lower = sayBound(object, 'lowerValue', nameOf) ?? first(object, 'lower');
  const upper = sayBound(object, 'upperValue', nameOf) ?? first(object, 'upper');
  const most = upper === '-1' ? '*' : upper;
  if (!lower && !most) return '';
  const [from, to] = [lower || '1', most || '1'];
  return from === to ? from : `${from}..${to}`;
}

function sayBound(object: XmiObject, tag: string, nameOf: (reference: string) => string): string | undefined {
  const [owned] = ownedBy(object, tag);
  return owned && sayValue(owned, nameOf);
}

const DIRECTIONS = tableOf<string>({ in: '', inout: 'inout ', out: 'out ' });

/** `move(to: Distance, speed: Speed): Boolean`. */
export function saySignature(operation: XmiObject, typeOf: (object: XmiObject) => string, nameOf: (reference: string) => string): string {
  const parameters = [...ownedBy(operation, 'ownedParameter')];
  const inside = parameters.filter((one) => first(one, 'direction') !== 'return');
  const returned = parameters.find((one) => first(one, 'direction') === 'return');
  const say = (one: XmiObject) => {
    const type = typeOf(one);
    const many = sayMultiplicity(one, nameOf);
    return `${DIRECTIONS[first(one, 'direction')] ?? ''}${first(one, 'name')}${type ? `: ${type}` : ''}${many && many !== '1' ? ` [${many}]` : ''}`;
  };
  return `${first(operation, 'name')}(${inside.map(say).join(', ')})${returned && typeOf(returned) ? `: ${typeOf(returned)}` : ''}`;
}

/** A behaviour by its name, or by the text of it. */
export function sayBehaviour(object: XmiObject, tag: string, nameOf: (reference: string) => string): string {
  const [owned] = ownedBy(object, tag);
  if (!owned) return nameOf(first(object, tag));
  return first(owned, 'name') || allOf(owned, 'body').join('\n').trim() || nameOf(first(owned, 'behavior'));
}
