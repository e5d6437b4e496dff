/** Paths from what is used in nothing down to a node, the node last. */
export interface UsePaths {
  paths: number[][];
  /** There are more than were looked for. */
  cut: boolean;
}

/** Every way in which a node is used, by what each node is used in directly. What contains itself ends where it would repeat. */
export function findUsePaths(wholesOf: (node: number) => readonly number[], node: number, most = 500, deepest = 40): UsePaths {
  const paths: number[][] = [];
  let open: number[][] = [[node]];
  let cut = false;
  while (open.length > 0 && paths.length < most) {
    const next: number[][] = [];
    for (const path of open) {
      const above = wholesOf(path[0]!).filter((one) => !path.includes(one));
      if (above.length === 0 || path.length >= deepest) {
        if (path.length > 1) paths.push(path);
      } else for (const one of above) next.push([one, ...path]);
    }
    cut ||= next.length > most;
    open = next.slice(0, most);
  }
  return { paths: paths.slice(0, most), cut: cut || paths.length > most };
}
