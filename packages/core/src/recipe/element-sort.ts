import { tableOf } from '../records/table-of.js';
import type { ModelDocument, ModelElement, ModelRelation } from '../source/model.js';

/** Elements or relations of one sort: recipes say what becomes of each sort, not of each element. */
export interface ModelSort {
  /** What recipes name it by. */
  id: string;
  /** For people: "«block» class", "part property". */
  label: string;
  count: number;
  /** What elements of it say beyond name and text: each with how many say it, and some of what they say. */
  values: { name: string; count: number; samples: string[] }[];
}

type Sorted = Pick<ModelElement, 'type' | 'stereotypes'> & { role?: string };

const marks = ({ stereotypes }: Sorted) =>
  stereotypes
    .toSorted()
    .map((name) => `«${name}» `)
    .join('');

/** The metaclass, what it leaves open, and the stereotypes in the order of their names. */
export function sortOf(one: Sorted): string {
  return `${marks(one)}${one.role ? `${one.role} ` : ''}${one.type}`;
}

const WORDS = tableOf<string>({
  EClass: 'class',
  EPackage: 'package',
  EAttribute: 'attribute',
  EReference: 'reference',
  EOperation: 'operation',
  EEnum: 'enumeration',
  EEnumLiteral: 'literal',
  EDataType: 'data type',
});

/** A metaclass in words: `OpaqueAction` is an opaque action. */
export function sayType(type: string): string {
  return WORDS[type] ?? type.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
}

export function labelOfSort(one: Sorted): string {
  return `${marks(one)}${one.role ? `${one.role} ` : ''}${sayType(one.type)}`;
}

const MOST_SAMPLES = 200;
const LONGEST_SAMPLE = 200;

/** Every sort of a list with its count, the most frequent first. */
export function countSorts(list: readonly (ModelElement | ModelRelation)[]): ModelSort[] {
  const sorts = new Map<string, ModelSort & { byName: Map<string, ModelSort['values'][number]> }>();
  for (const one of list) {
    const id = sortOf(one);
    let sort = sorts.get(id);
    if (!sort) sorts.set(id, (sort = { id, label: labelOfSort(one), count: 0, values: [], byName: new Map() }));
    sort.count++;
    for (const name in one.values) {
      let value = sort.byName.get(name);
      if (!value) {
        sort.byName.set(name, (value = { name, count: 0, samples: [] }));
        sort.values.push(value);
      }
      value.count++;
      if (value.samples.length < MOST_SAMPLES) value.samples.push(one.values[name]!.slice(0, LONGEST_SAMPLE));
    }
  }
  return [...sorts.values()].map(({ byName: _, ...sort }) => sort).toSorted((a, b) => b.count - a.count || (a.id < b.id ? -1 : 1));
}

export const countElementSorts = (model: Pick<ModelDocument, 'elements'>): ModelSort[] => countSorts(model.elements);
export const countRelationSorts = (model: Pick<ModelDocument, 'relations'>): ModelSort[] => countSorts(model.relations);
