import type { FieldValue } from '@coomb/core';

type Columns<V> = Map<string, Map<string, V>>;

/** What memory keeps of the fields of items: what coverage rules filter by, and the numbers of clauses. Each by field, then item. */
export interface KeptFields {
  ruleFields: Columns<unknown>;
  /** Of the fields that recipes put clause numbers into. */
  numbers: Columns<string>;
}

const copy = <V>(columns: Columns<V>): Columns<V> => new Map([...columns].map(([field, values]) => [field, new Map(values)]));

export class FieldValues {
  constructor(private readonly kept: KeptFields) {}

  /** Whether any rule asks for a field. */
  get areFiltered(): boolean {
    return this.kept.ruleFields.size > 0;
  }

  /** Whether any item has the number of a clause. */
  get hasClauses(): boolean {
    for (const values of this.kept.numbers.values()) for (const number of values.values()) if (number) return true;
    return false;
  }

  /** Value of a field that rules filter by. */
  find(field: string, item: string): unknown {
    return this.kept.ruleFields.get(field)?.get(item);
  }

  /** Number of the clause that an item came from, where a recipe put it into a field; empty where none is known. */
  clauseOf(item: string): string {
    for (const values of this.kept.numbers.values()) {
      const number = values.get(item);
      if (number) return number;
    }
    return '';
  }

  /** Whether the values of a field that rules filter by are here. */
  holds(field: string): boolean {
    return this.kept.ruleFields.has(field);
  }

  learn(values: ReadonlyMap<string, Map<string, unknown>>): void {
    for (const [field, byItem] of values) this.kept.ruleFields.set(field, byItem);
  }

  follow(item: string, fields: Record<string, FieldValue>): void {
    for (const [field, values] of this.kept.ruleFields) values.set(item, fields[field]);
    for (const [field, values] of this.kept.numbers) if (typeof fields[field] === 'string' || values.has(item)) values.set(item, String(fields[field] ?? ''));
  }

  /** A source may have been read by a recipe that puts the numbers of clauses into a field: they are kept from now on. */
  followRecipe(recipe: unknown): void {
    const field = (recipe as { numberField?: unknown } | null)?.numberField;
    if (typeof field === 'string' && !this.kept.numbers.has(field)) this.kept.numbers.set(field, new Map());
  }

  forget(item: string): void {
    for (const values of [...this.kept.ruleFields.values(), ...this.kept.numbers.values()]) values.delete(item);
  }

  snapshot(): KeptFields {
    return { ruleFields: copy(this.kept.ruleFields), numbers: copy(this.kept.numbers) };
  }
}
