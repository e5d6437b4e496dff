/** Injection tokens of what is made outside Nest: compilers without type metadata would inject `undefined` in silence. */
export const DATABASE = Symbol('database');
export const CLOCK = Symbol('clock');

export interface Clock {
  now: () => Date;
  newId: () => string;
}
