/** A table that is asked by words of files and people: it inherits nothing, so that "constructor" is as unknown to it as any other word. */
export function tableOf<Value>(entries: Readonly<Record<string, Value>>): Readonly<Record<string, Value>> {
  return Object.assign(Object.create(null) as Record<string, Value>, entries);
}
