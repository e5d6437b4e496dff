class Words {
  [name: string]: unknown;
}
Object.setPrototypeOf(Words.prototype, null);
Reflect.deleteProperty(Words.prototype, 'constructor');

/**
 * An empty record for values by names that are a file's or a person's own: it inherits nothing, so that "constructor" and "__proto__" are names
 * like others. Unlike one that is made with no prototype, the engine lays it out once for all records with the same names.
 */
export function newRecord<Value>(): Record<string, Value> {
  return new Words() as Record<string, Value>;
}
