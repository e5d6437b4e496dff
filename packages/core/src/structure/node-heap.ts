/** Nodes of which the nearest comes first. One that came nearer is pushed again; where it stood before, it is passed over. */
export class NodeHeap {
  private readonly nodes: number[] = [];
  private readonly keys: number[] = [];

  constructor(private readonly far: Float64Array) {}

  push(node: number): void {
    const { nodes, keys } = this;
    const key = this.far[node]!;
    let at = nodes.length;
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (keys[above]! <= key) break;
      [nodes[at], keys[at]] = [nodes[above]!, keys[above]!];
      at = above;
    }
    [nodes[at], keys[at]] = [node, key];
  }

  pop(): number | undefined {
    for (;;) {
      const { nodes, keys } = this;
      if (nodes.length === 0) return undefined;
      const [node, key] = [nodes[0]!, keys[0]!];
      const [lastNode, lastKey] = [nodes.pop()!, keys.pop()!];
      if (nodes.length > 0) {
        let at = 0;
        for (;;) {
          let below = 2 * at + 1;
          if (below >= nodes.length) break;
          if (below + 1 < nodes.length && keys[below + 1]! < keys[below]!) below++;
          if (keys[below]! >= lastKey) break;
          [nodes[at], keys[at]] = [nodes[below]!, keys[below]!];
          at = below;
        }
        [nodes[at], keys[at]] = [lastNode, lastKey];
      }
      if (key === this.far[node]) return node;
    }
  }
}
