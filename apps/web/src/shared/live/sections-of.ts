import type { OutlineReply } from '@coomb/contract';

/** Sections of some collections, by their place in the outline; further down than three levels they are too many to choose among. */
export function sectionsOf(outline: OutlineReply, collections: readonly string[]) {
  const wanted = new Set(collections.map((id) => outline.collections.indexOf(id)));
  const depth = new Int32Array(outline.id.length);
  const found: { value: string; label: string }[] = [];
  outline.id.forEach((id, row) => {
    const parent = outline.parent[row]!;
    depth[row] = parent < 0 ? 0 : depth[parent]! + 1;
    if (!outline.heading[row] || depth[row]! > 2 || (wanted.size > 0 && !wanted.has(outline.collection[row]!))) return;
    found.push({ value: id, label: `${'\u2003'.repeat(depth[row]!)}${outline.title[row]}` });
  });
  return found.slice(0, 500);
}
