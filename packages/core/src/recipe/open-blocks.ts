import type { SourceParagraph } from '../source/document.js';

/** Markup of paragraphs one after another: items of a list stand in it, lists in the list above, quotations in their frame. */
export class OpenBlocks {
  private readonly lists: { depth: number; ordered: boolean }[] = [];
  private quoted = false;

  /** What a paragraph adds to the markup before it. */
  add({ html, list, quoted = false }: Pick<SourceParagraph, 'html' | 'list' | 'quoted'>): string {
    let out = '';
    if (quoted !== this.quoted) out += this.close() + (quoted ? '<blockquote>' : '');
    this.quoted = quoted;
    return out + (list ? this.addToList(html, list) : `${this.closeLists(0)}<p>${html}</p>`);
  }

  /** What ends all that is open. */
  close(): string {
    const out = this.closeLists(0) + (this.quoted ? '</blockquote>' : '');
    this.quoted = false;
    return out;
  }

  private addToList(html: string, { depth, ordered, begins }: NonNullable<SourceParagraph['list']>): string {
    let out = this.closeLists(depth + 1);
    const last = this.lists.at(-1);
    if (last?.depth === depth && last.ordered === ordered && !begins) return `${out}</li><li>${html}`;
    if (last?.depth === depth) out += this.closeLists(depth);
    this.lists.push({ depth, ordered });
    return `${out}${ordered ? '<ol>' : '<ul>'}<li>${html}`;
  }

  /** Ends the lists of this depth and deeper. */
  private closeLists(depth: number): string {
    let out = '';
    for (let last = this.lists.at(-1); last && last.depth >= depth; last = this.lists.at(-1)) {
      out += last.ordered ? '</li></ol>' : '</li></ul>';
      this.lists.pop();
    }
    return out;
  }
}
