/** What a composition is read from. Nodes are numbers; nothing is unfolded beforehand. */
export interface CompositionGround {
  /** What stands in a node directly: its parts, ports, values. */
  partsOf: (node: number) => readonly number[];
  /** What a part is a use of, or -1. */
  typeOf: (node: number) => number;
}

/** How much lies below a node, all uses counted one by one. */
export interface Below {
  /** May be huge: a part used in 40 places three levels deep stands 64,000 times. Infinity beyond what a number holds. */
  rows: number;
  /** It contains itself somewhere: there it is cut. */
  repeats: boolean;
}

/** The tree of uses of a model, without unfolding it: each component is looked at once, however often it is used. */
export class Composition {
  private readonly known = new Map<number, Below>();

  constructor(private readonly ground: CompositionGround) {}

  /** The uses directly below a node: its own parts, and those of what it is a use of. */
  rowsOf(node: number): number[] {
    const { partsOf, typeOf } = this.ground;
    const type = typeOf(node);
    return type < 0 ? [...partsOf(node)] : [...partsOf(node), ...partsOf(type)];
  }

  /** Whether a use repeats what it stands in: its component, or itself, is on the way down to it. */
  repeats(node: number, above: ReadonlySet<number>): boolean {
    const type = this.ground.typeOf(node);
    return above.has(node) || (type >= 0 && above.has(type));
  }

  /** Counts all uses below a node. Without recursion: models may be deep. */
  below(root: number): Below {
    const { known } = this;
    const open = new Set<number>();
    const stack: { node: number; rows: number[]; at: number; sum: number; repeats: boolean }[] = [];
    const enter = (node: number) => {
      open.add(node);
      stack.push({ node, rows: this.rowsOf(node), at: 0, sum: 0, repeats: false });
    };
    const key = (node: number) => {
      const type = this.ground.typeOf(node);
      // A use without parts of its own counts as its component does.
      return type >= 0 && this.ground.partsOf(node).length === 0 ? type : node;
    };
    const start = key(root);
    if (!known.has(start)) enter(start);
    while (stack.length > 0) {
      const frame = stack.at(-1)!;
      if (frame.at === frame.rows.length) {
        stack.pop();
        open.delete(frame.node);
        known.set(frame.node, { rows: frame.sum, repeats: frame.repeats });
        const above = stack.at(-1);
        if (above) {
          above.sum += frame.sum;
          above.repeats ||= frame.repeats;
        }
        continue;
      }
      const next = key(frame.rows[frame.at++]!);
      frame.sum += 1;
      const done = known.get(next);
      if (done) {
        frame.sum += done.rows;
        frame.repeats ||= done.repeats;
      } else if (open.has(next)) frame.repeats = true;
      else enter(next);
    }
    return known.get(start)!;
  }
}
