const UNREAD = '#';

/** What a row is called that was not read yet: its place in the list, so that it can be chosen all the same. */
export const unreadKey = (place: number): string => `${UNREAD}${place}`;

/** Places of the rows among some keys that were chosen before they were read, in order. */
export function unreadPlaces(keys: Iterable<string>): number[] {
  return [...keys].flatMap((key) => (key.startsWith(UNREAD) ? [Number(key.slice(UNREAD.length))] : [])).sort((a, b) => a - b);
}

/** Reads the rows at some places, window by window, and no window without one of them. Rows that are gone meanwhile are left out. */
export async function readPlaces<Row>(
  places: readonly number[],
  size: number,
  read: (offset: number, limit: number) => Promise<readonly Row[]>,
): Promise<Row[]> {
  const found: Row[] = [];
  for (const offset of new Set(places.map((place) => place - (place % size)))) {
    const rows = await read(offset, size);
    for (const place of places) {
      const row = place - (place % size) === offset ? rows[place - offset] : undefined;
      if (row !== undefined) found.push(row);
    }
  }
  return found;
}
