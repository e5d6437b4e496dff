/**
 * Which links hold in one usage of an item only. A usage is a path of parts from a root down to the item; it has a number above 0, and 0 stands
 * for the item wherever it is used. Items stay the nodes of the graph: a link that holds in one usage ends at the item, and says in which.
 */
export interface UsageEnds {
  /** Usage in which a link holds at one of its ends; 0 where it holds in all. */
  usageAt: (link: number, node: number) => number;
  /** Usages of an item that are known; none where it is taken as it is. */
  usagesOf: (node: number) => readonly number[];
}

/** Whether one may go on from an item by a link, having come to it in a usage (0: to the item itself). */
export function mayGoOn(came: number, leaves: number): boolean {
  return came === 0 || leaves === 0 || came === leaves;
}
