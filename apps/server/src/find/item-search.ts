import { findKind, fold, type Hit, type IndexedPart, WordIndex } from '@coomb/core';
import { plainText } from '@coomb/formats';
import type { Change } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { FoundRow } from './find.repo.js';

/** Parts of an item, in the order of their weights. */
const PART = { reference: 0, title: 1, text: 2, field: 3, source: 4 } as const;
const WEIGHTS = [6, 4, 1.5, 1, 0.5];
const IS_REFERENCE = 1000;
const BEGINS_REFERENCE = 100;
const IN_TITLE = 8;

/** Everything that the items of a project say, ready to be looked through; follows every commit. */
export class ItemSearch {
  private readonly words = new WordIndex(WEIGHTS);
  /** References and titles as they are looked for, by node. */
  private readonly folded: { reference: string; title: string }[] = [];
  /** Items that changed while the texts were still being read: what is read of them later is older. */
  private readonly newer = new Set<string>();

  constructor(
    private readonly state: ProjectState,
    private readonly sources: Map<string, string>,
  ) {}

  /** Takes items in as the database had them. */
  load(rows: readonly FoundRow[]): void {
    for (const row of rows) if (!this.newer.has(row.id)) this.write(row);
  }

  follow(changes: readonly Change[]): void {
    for (const change of changes) {
      if (change.entity === 'source') {
        if (change.after.withdrawn) this.sources.delete(change.after.id);
        else this.sources.set(change.after.id, change.after.name);
      }
      if (change.entity !== 'item') continue;
      this.newer.add(change.after.id);
      this.write(change.after);
    }
  }

  /** Nodes of present items that hold every term, best first. */
  /** The best, among those of which `seen` says 1. */
  find(terms: readonly string[], query: string, most: number, seen?: Uint8Array): Hit[] {
    const { rowOf } = this.state.outline();
    const wanted = fold(query.trim());
    const bonus = (node: number) => {
      const { reference, title } = this.folded[node]!;
      if (reference === wanted) return IS_REFERENCE;
      if (reference.startsWith(wanted)) return BEGINS_REFERENCE;
      return title.includes(wanted) ? IN_TITLE : 0;
    };
    return this.words.find(terms, most, (node) => (seen && !seen[node] ? -1 : rowOf[node]!), bonus);
  }

  private write(row: FoundRow): void {
    const node = this.state.nodeOf.get(row.id);
    if (node === undefined) return;
    const item = this.state.items[node]!;
    const parts: IndexedPart[] = [
      { text: item.reference, part: PART.reference },
      { text: item.title, part: PART.title },
      { text: plainText(row.html), part: PART.text },
      ...fieldTexts(row.fields).map(({ text }) => ({ text, part: PART.field })),
      { text: this.sourceOf(node) ?? '', part: PART.source },
    ];
    this.folded[node] = { reference: fold(item.reference), title: fold(item.title) };
    this.words.write(node, parts);
  }

  sourceOf(node: number): string | undefined {
    const names = this.state.items[node]!.bindings.flatMap(({ partner }) => this.sources.get(partner) ?? []);
    return names.length === 0 ? undefined : names.join(', ');
  }

  /** What an item says apart from its reference and title, each with what it is called. */
  saidOf(node: number, row: FoundRow): { where: string; text: string }[] {
    const labels = new Map(findKind(this.state.scheme, this.state.items[node]!.kind)?.fields.map((field) => [field.id, field.label]));
    const source = this.sourceOf(node);
    return [
      { where: '', text: plainText(row.html).replace(/\s+/g, ' ') },
      ...fieldTexts(row.fields).map(({ field, text }) => ({ where: labels.get(field) ?? field, text: text.replace(/\s+/g, ' ') })),
      ...(source === undefined ? [] : [{ where: 'Source', text: source }]),
    ];
  }
}

function fieldTexts(fields: FoundRow['fields']): { field: string; text: string }[] {
  return Object.entries(fields).flatMap(([field, value]) => {
    if (value === null || value === undefined || typeof value === 'boolean') return [];
    const text = Array.isArray(value) ? value.join(', ') : String(value);
    return [{ field, text: text.startsWith('<') ? plainText(text) : text }];
  });
}
