/** A link as it leads on from an item. */
export interface TraceStep {
  link: number;
  node: number;
  /** Index of the link kind, and whether the item that it leads from stands at its `to` end. */
  kind: number;
  reversed: boolean;
  /** Of a step that is derived: what lies inside the item and has the link. */
  through?: readonly number[];
}

/** A place of a trace tree. */
export interface TracePlace {
  /** Names it by the way that leads to it: links parted by blanks, after the side it lies on. */
  key: string;
  node: number;
  /** Index of the place that it hangs on, or -1 for the root. */
  parent: number;
  step: TraceStep | undefined;
  /** Index of the place where its item was met first, or -1. What was met before is shown again, and not followed again. */
  again: number;
  /** Links that lead on from it and are not shown. */
  hidden: number;
}

export interface TraceTreeWish {
  root: number;
  /** What leads on from an item on this side. */
  stepsOf: (node: number) => readonly TraceStep[];
  levels: number;
  /** Places that were opened beyond the levels, or closed before them. */
  opened: ReadonlySet<string>;
  closed: ReadonlySet<string>;
  /** Places at most. */
  most: number;
}

/** The items that a trace leads to from one, level by level, as a tree. Items that were met before are shown again with the way to their first place. */
export function buildTraceTree({ root, stepsOf, levels, opened, closed, most }: TraceTreeWish): { places: TracePlace[]; isCut: boolean } {
  const places: TracePlace[] = [{ key: '', node: root, parent: -1, step: undefined, again: -1, hidden: 0 }];
  const first = new Map<number, number>([[root, 0]]);
  const depth = [0];
  let isCut = false;
  for (let at = 0; at < places.length; at++) {
    const place = places[at]!;
    const parent = places[place.parent];
    // The link that led here does not lead back.
    const steps = stepsOf(place.node).filter(({ link, node }) => link !== place.step?.link && !(parent && node === parent.node && link === place.step?.link));
    const isOpen = place.again < 0 && !closed.has(place.key) && (depth[at]! < levels || opened.has(place.key));
    if (!isOpen || places.length + steps.length > most) {
      place.hidden = place.again < 0 ? steps.length : 0;
      if (isOpen && steps.length > 0) isCut = true;
      continue;
    }
    for (const step of steps) {
      const again = first.get(step.node) ?? -1;
      if (again < 0) first.set(step.node, places.length);
      places.push({ key: place.key ? `${place.key} ${step.link}` : String(step.link), node: step.node, parent: at, step, again, hidden: 0 });
      depth.push(depth[at]! + 1);
    }
  }
  return { places, isCut };
}
