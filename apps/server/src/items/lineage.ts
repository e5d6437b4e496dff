/** How an item came about that was made of another one, in its `origin`: that is where its earlier history lies. */
export const splitFrom = (id: string): string => `split ${id}`;

/** In the `origin` of an item that went into another one and was withdrawn. */
export const joinedInto = (id: string): string => `joined ${id}`;

/** The item that one was split from or joined into. */
export function readLineage(origin: string): { as: 'split' | 'joined'; item: string } | undefined {
  const [, as, item] = /^(split|joined) ([0-9a-f-]{36})$/.exec(origin) ?? [];
  return as === undefined ? undefined : { as: as as 'split' | 'joined', item: item! };
}
