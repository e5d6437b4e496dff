const KEY = 'coomb.person';

/** Name under which changes are recorded: kept in this browser. */
export function readPerson(): string {
  return localStorage.getItem(KEY) ?? '';
}

export function writePerson(name: string): void {
  localStorage.setItem(KEY, name.trim());
}
