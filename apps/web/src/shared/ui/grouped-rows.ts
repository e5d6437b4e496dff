/** A row of a grouped list: the name of a group, or the place of a link in the list without groups. */
export type ListRow = { group: string; count: number } | { link: number };

export interface GroupedRows {
  count: number;
  rowAt: (index: number) => ListRow;
  /** Place among all rows of the link at a place of the list without groups. */
  placeOf: (link: number) => number;
}

/** Lays names of groups between the links of a list that is in the order of its groups; `closed` ones show no links. Nothing is unfolded. */
export function buildGroupedRows(total: number, groups: readonly { id: string; count: number }[], closed: ReadonlySet<string>): GroupedRows {
  if (groups.length === 0) return { count: total, rowAt: (index) => ({ link: index }), placeOf: (link) => link };
  const starts: { row: number; link: number; id: string; count: number }[] = [];
  let row = 0;
  let link = 0;
  for (const { id, count } of groups) {
    starts.push({ row, link, id, count });
    row += 1 + (closed.has(id) ? 0 : count);
    link += count;
  }
  const find = (key: 'row' | 'link', value: number) => {
    let [low, high] = [0, starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (starts[middle]![key] <= value) low = middle;
      else high = middle - 1;
    }
    return starts[low]!;
  };
  return {
    count: row,
    rowAt: (index) => {
      const start = find('row', index);
      return index === start.row ? { group: start.id, count: start.count } : { link: start.link + index - start.row - 1 };
    },
    placeOf: (wanted) => {
      const start = find('link', wanted);
      return closed.has(start.id) ? start.row : start.row + 1 + wanted - start.link;
    },
  };
}
