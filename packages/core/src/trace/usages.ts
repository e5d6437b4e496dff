/**
 * Which links hold in one usage of an item only. A usage is a path of parts from a root down to the item; it has a number above 0, and 0 stands
 * for the item wherever it is used. Items stay the nodes of the graph: a link that holds in one usage ends at the item, and says in which.
 */
export interface UsageEnds {
  /** Usage in which a link holds at one of its ends; 0 where it holds in all. */
  usageAt: (link: number, node: number) => number;
  /** Usages of an item that are asked about; none where it is taken as it is. */
  usagesOf: (node: number) => readonly number[];
  /** Whether two usages of an item may be one place: the path of one ends with that of the other. Unsaid: only where they are the same. */
  meet?: (a: number, b: number) => boolean;
}

/** Whether one may go on from an item by a link, having come to it in a usage (0: to the item itself). */
export function mayGoOn(came: number, leaves: number, { meet }: Pick<UsageEnds, 'meet'> = {}): boolean {
  return came === 0 || leaves === 0 || came === leaves || meet?.(came, leaves) === true;
}

/** Whether a use lies within a usage: the gate's drive within the drive, wherever the gate itself is used. Paths are ids from a root down. */
export function isUseWithin(path: readonly string[], usage: readonly string[]): boolean {
  const more = path.length - usage.length;
  if (more < 0) return false;
  for (let at = usage.length - 1; at >= 0; at--) if (path[more + at] !== usage[at]) return false;
  return true;
}
