/** Injection tokens of what is made outside Nest: compilers without type metadata would inject `undefined` in silence. */
export const DATABASE = Symbol('database');
export const CLOCK = Symbol('clock');
/** The opened database with its thread and folder: for upkeep and copies. */
export const OPEN_DATABASE = Symbol('open database');
/** The life of the data, as `readLife` tells. */
export const LIFE = Symbol('life');
export const DISK_ROOM = Symbol('disk room');

export interface Clock {
  now: () => Date;
  newId: () => string;
}
