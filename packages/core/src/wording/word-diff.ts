export interface WordChange {
  type: 'same' | 'added' | 'removed';
  text: string;
}

/** Numbers with their points and commas, and references with their hyphens, are one word. */
const WORDS = /\s+|[\p{L}\p{N}_]+(?:[.,:-](?=\p{N})[\p{L}\p{N}_]+)*|[^\s\p{L}\p{N}_]/gu;

/**
 * Word-level difference of two texts (Myers, "An O(ND) difference algorithm", 1986), with the common head and tail cut off first.
 * Above `mostSteps` edits the middle is given as one removal and one addition: still true, only coarser.
 */
export function buildWordDiff(before: string, after: string, mostSteps = 2000): WordChange[] {
  const a = before.match(WORDS) ?? [];
  const b = after.match(WORDS) ?? [];
  let head = 0;
  while (head < a.length && head < b.length && a[head] === b[head]) head++;
  let tail = 0;
  while (tail < a.length - head && tail < b.length - head && a[a.length - 1 - tail] === b[b.length - 1 - tail]) tail++;
  const changes: WordChange[] = [];
  const push = (type: WordChange['type'], words: readonly string[]) => {
    const text = words.join('');
    if (!text) return;
    const last = changes.at(-1);
    if (last?.type === type) last.text += text;
    else changes.push({ type, text });
  };
  push('same', a.slice(0, head));
  diffMiddle(a.slice(head, a.length - tail), b.slice(head, b.length - tail), mostSteps, push);
  push('same', a.slice(a.length - tail));
  return changes;
}

function diffMiddle(a: string[], b: string[], mostSteps: number, push: (type: WordChange['type'], words: string[]) => void): void {
  const trace = a.length && b.length ? findEdits(a, b, Math.min(mostSteps, a.length + b.length)) : undefined;
  if (!trace) {
    push('removed', a);
    push('added', b);
    return;
  }
  const script: [WordChange['type'], string][] = [];
  let x = a.length;
  let y = b.length;
  for (let d = trace.length - 1; d >= 0; d--) {
    const v = trace[d]!;
    const k = x - y;
    const offset = d;
    const at = (key: number) => v[key + offset + 1]!;
    const down = k === -d || (k !== d && at(k - 1) < at(k + 1));
    const fromK = down ? k + 1 : k - 1;
    const fromX = d === 0 ? 0 : at(fromK);
    const fromY = d === 0 ? 0 : fromX - fromK;
    while (x > fromX && y > fromY && a[x - 1] === b[y - 1]) {
      script.push(['same', a[x - 1]!]);
      x--;
      y--;
    }
    if (d === 0) break;
    if (down) script.push(['added', b[--y]!]);
    else script.push(['removed', a[--x]!]);
  }
  for (const [type, word] of script.reverse()) push(type, [word]);
}

/** Furthest-reaching points before each round of edits; undefined when more than `most` edits are needed. */
function findEdits(a: string[], b: string[], most: number): Int32Array[] | undefined {
  const trace: Int32Array[] = [];
  let v = new Int32Array(3);
  for (let d = 0; d <= most; d++) {
    const wide = new Int32Array(2 * d + 3);
    wide.set(v.subarray(0, Math.min(v.length, wide.length)), d === 0 ? 0 : 1);
    trace.push(wide);
    const next = wide.slice();
    for (let k = -d; k <= d; k += 2) {
      const at = (key: number) => wide[key + d + 1]!;
      let x = d === 0 ? 0 : k === -d || (k !== d && at(k - 1) < at(k + 1)) ? at(k + 1) : at(k - 1) + 1;
      let y = x - k;
      while (x < a.length && y < b.length && a[x] === b[y]) {
        x++;
        y++;
      }
      next[k + d + 1] = x;
      if (x >= a.length && y >= b.length) return trace;
    }
    v = next;
  }
  return undefined;
}
