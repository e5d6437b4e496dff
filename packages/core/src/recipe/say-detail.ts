import { tableOf } from '../records/table-of.js';
import type { ModelElement } from '../source/model.js';
import { sayType } from './element-sort.js';

/** What an item's source says of its inside that is no item itself: an operation, a value, a literal. */
export interface ItemDetail {
  /** Heading that it stands under: "operation", "value property". */
  sort: string;
  text: string;
  /** Identifier of the element in its source. */
  element: string;
}

const VISIBILITY = tableOf<string>({ private: '-', protected: '#', package: '~' });

/** An element in one line, in the notation of UML: `travel: m [1..2] = 3.4`, `stop(): Boolean`. */
export function sayElement(element: ModelElement, typeName: string): string {
  const { name, values, type } = element;
  const sign = VISIBILITY[values.visibility ?? ''] ?? '';
  if (values.signature) return sign + values.signature;
  if (type === 'Comment') return element.text;
  if (/Constraint$/.test(type)) return `${name ? `${name}: ` : ''}{${element.text}}`;
  const many = values.multiplicity && values.multiplicity !== '1' ? ` [${values.multiplicity}]` : '';
  const is = values.default ? ` = ${values.default}` : '';
  const direction = values.direction && values.direction !== 'inout' ? `${values.direction} ` : '';
  return `${sign}${direction}${name}${typeName ? `: ${typeName}` : ''}${many}${is}` || sayType(type);
}

/** What details of an element are listed under. */
export function headingOfDetail({ type, role, stereotypes }: Pick<ModelElement, 'type' | 'role' | 'stereotypes'>): string {
  if (stereotypes.some((one) => one.toLowerCase() === 'flowproperty')) return 'flow';
  if (role === 'value') return 'value';
  if (role === 'reference') return 'reference';
  if (role === 'part') return 'part';
  if (role === 'constraint' || /Constraint$/.test(type)) return 'constraint';
  const word = sayType(type);
  return word === 'enumeration literal' ? 'literal' : word;
}
