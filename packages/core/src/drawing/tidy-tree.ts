/** A node of a tree to be laid out: what it hangs on, and how large it is. Parents come before their children. */
export interface TreeNode {
  parent: number;
  /** Extent along the way from the root, and across it. */
  along: number;
  across: number;
}

export interface TreeGaps {
  /** Between a node and its children, and between neighbours. */
  along: number;
  across: number;
}

/**
 * Places a tree so that subtrees lie as close as they can without touching, whatever the sizes of their nodes: the algorithm of van der Ploeg
 * (Drawing non-layered tidy trees in linear time, 2014). Gives the near corner of each node; the root lies at 0 along. Without recursion.
 */
export function layTree(nodes: readonly TreeNode[], gaps: TreeGaps): { along: Float64Array; across: Float64Array } {
  const count = nodes.length;
  const children: number[][] = nodes.map(() => []);
  nodes.forEach(({ parent }, index) => {
    if (parent >= 0) children[parent]!.push(index);
  });
  const width = (node: number) => nodes[node]!.across + gaps.across;
  const along = new Float64Array(count);
  for (let node = 0; node < count; node++) {
    const { parent } = nodes[node]!;
    if (parent >= 0) along[node] = along[parent]! + nodes[parent]!.along + gaps.along;
  }
  const end = (node: number) => along[node]! + nodes[node]!.along + gaps.along;
  const [prelim, mod, shift, change, leftMod, rightMod] = Array.from({ length: 6 }, () => new Float64Array(count)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const [leftThread, rightThread, leftEnd, rightEnd] = Array.from({ length: 4 }, () => new Int32Array(count).fill(-1)) as [
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
  ];

  interface Low {
    low: number;
    index: number;
    next: Low | undefined;
  }
  const lowest = (low: number, index: number, list: Low | undefined): Low => {
    let rest = list;
    while (rest && low >= rest.low) rest = rest.next;
    return { low, index, next: rest };
  };
  const setEnds = (node: number) => {
    const own = children[node]!;
    if (own.length === 0) {
      leftEnd[node] = rightEnd[node] = node;
      leftMod[node] = rightMod[node] = 0;
    } else {
      leftEnd[node] = leftEnd[own[0]!]!;
      leftMod[node] = leftMod[own[0]!]!;
      rightEnd[node] = rightEnd[own.at(-1)!]!;
      rightMod[node] = rightMod[own.at(-1)!]!;
    }
  };
  const nextLeft = (node: number) => (children[node]!.length === 0 ? leftThread[node]! : children[node]![0]!);
  const nextRight = (node: number) => (children[node]!.length === 0 ? rightThread[node]! : children[node]!.at(-1)!);
  const move = (own: readonly number[], index: number, from: number, distance: number) => {
    mod[own[index]!]! += distance;
    leftMod[own[index]!]! += distance;
    rightMod[own[index]!]! += distance;
    if (from !== index - 1) {
      const parts = index - from;
      shift[own[from + 1]!]! += distance / parts;
      shift[own[index]!]! -= distance / parts;
      change[own[index]!]! -= distance - distance / parts;
    }
  };
  const separate = (node: number, index: number, lows: Low | undefined) => {
    const own = children[node]!;
    let right = own[index - 1]!;
    let rightSum = mod[right]!;
    let left = own[index]!;
    let leftSum = mod[left]!;
    let list = lows;
    let [r, l] = [right, left];
    while (r >= 0 && l >= 0) {
      if (end(r) > list!.low) list = list!.next;
      const distance = rightSum + prelim[r]! + width(r) - (leftSum + prelim[l]!);
      if (distance > 0) {
        leftSum += distance;
        move(own, index, list!.index, distance);
      }
      const [rightLow, leftLow] = [end(r), end(l)];
      if (rightLow <= leftLow) {
        r = nextRight(r);
        if (r >= 0) rightSum += mod[r]!;
      }
      if (rightLow >= leftLow) {
        l = nextLeft(l);
        if (l >= 0) leftSum += mod[l]!;
      }
    }
    right = r;
    left = l;
    if (right < 0 && left >= 0) {
      const first = leftEnd[own[0]!]!;
      leftThread[first] = left;
      const difference = leftSum - mod[left]! - leftMod[own[0]!]!;
      mod[first]! += difference;
      prelim[first]! -= difference;
      leftEnd[own[0]!] = leftEnd[own[index]!]!;
      leftMod[own[0]!] = leftMod[own[index]!]!;
    } else if (right >= 0 && left < 0) {
      const last = rightEnd[own[index]!]!;
      rightThread[last] = right;
      const difference = rightSum - mod[right]! - rightMod[own[index]!]!;
      mod[last]! += difference;
      prelim[last]! -= difference;
      rightEnd[own[index]!] = rightEnd[own[index - 1]!]!;
      rightMod[own[index]!] = rightMod[own[index - 1]!]!;
    }
  };
  // Children before their parents: numbers fall towards the root.
  for (let node = count - 1; node >= 0; node--) {
    const own = children[node]!;
    if (own.length === 0) {
      setEnds(node);
      continue;
    }
    let lows: Low | undefined = lowest(end(leftEnd[own[0]!]!), 0, undefined);
    for (let index = 1; index < own.length; index++) {
      const low = end(rightEnd[own[index]!]!);
      separate(node, index, lows);
      lows = lowest(low, index, lows);
    }
    const [first, last] = [own[0]!, own.at(-1)!];
    prelim[node] = (prelim[first]! + mod[first]! + mod[last]! + prelim[last]! + nodes[last]!.across) / 2 - nodes[node]!.across / 2;
    setEnds(node);
  }
  const across = new Float64Array(count);
  const sum = new Float64Array(count);
  for (let node = 0; node < count; node++) {
    const { parent } = nodes[node]!;
    if (parent < 0) sum[node] = mod[node]!;
    across[node] = prelim[node]! + sum[node]!;
    let [step, moved] = [0, 0];
    for (const child of children[node]!) {
      step += shift[child]!;
      moved += step + change[child]!;
      sum[child] = sum[node]! + mod[child]! + moved;
    }
  }
  return { along, across };
}
