import { escapeHtml } from '@coomb/core';
import { keptTags, pictureScheme } from '../rich-text/sanitise.js';

const TAGS: Record<string, string> = { b: 'strong', i: 'em', del: 's', ins: 'u' };
/** Ends a division: what stands in it is a paragraph of its own. */
const BREAK = '\uE000';
const BLOCK = /(<\/?(?:p|ul|ol|table|blockquote)\b[^>]*>)|\uE000/;
const KEPT = new Set(keptTags.filter((tag) => tag !== 'img'));
const SAFE = /^(?:https?:|mailto:)/i;
const DROPPED = new Set(['script', 'style', 'title', 'textarea', 'noscript', 'iframe']);
const PICTURE = /^image\/(png|jpeg|gif|webp|bmp)$/;

/**
 * Rich text of a ReqIF value (XHTML modules, whatever their prefix) as plain HTML. Objects that are pictures become pictures, others links
 * by name. Writes nothing but known elements, escaped text, pictures of the file and addresses of safe schemes, so that its output needs no
 * sanitising; a test holds the two against each other.
 */
export class XhtmlReader {
  private out = '';
  private depth = 0;
  /** Inside elements whose text is none of the reader's: scripts, styles. */
  private dropping = 0;
  private readonly closing: string[] = [];

  open(local: string, attributes: Record<string, string>): void {
    this.depth++;
    if (this.dropping > 0 || DROPPED.has(local)) {
      this.dropping++;
      this.closing.push('');
      return;
    }
    const tag = TAGS[local] ?? local;
    if (local === 'object') {
      const isPicture = PICTURE.test(attributes.type ?? '') || (!attributes.type && /\.(png|jpe?g|gif|webp|bmp)$/i.test(attributes.data ?? ''));
      this.out += isPicture
        ? `<img src="${pictureScheme}${escapeHtml(attributes.data ?? '')}" alt="${escapeHtml(attributes.name ?? '')}" />`
        : `[${escapeHtml(attributes.data ?? 'object')}]`;
      this.closing.push('');
    } else if (tag === 'br') {
      this.out += '<br />';
      this.closing.push('');
    } else if (KEPT.has(tag)) {
      const href = tag === 'a' && attributes.href && SAFE.test(attributes.href) ? ` href="${escapeHtml(attributes.href)}"` : '';
      this.out += `<${tag}${href}>`;
      this.closing.push(`</${tag}>`);
    } else this.closing.push(local === 'div' ? BREAK : '');
  }

  /** False when the value itself closes. */
  close(_local: string): boolean {
    if (this.depth === 0) return false;
    this.depth--;
    if (this.dropping > 0) this.dropping--;
    this.out += this.closing.pop() ?? '';
    return true;
  }

  text(part: string): void {
    if (this.dropping === 0) this.out += escapeHtml(part);
  }

  html(): string {
    let html = '';
    let inline = '';
    let depth = 0;
    const flush = () => {
      if (inline.trim()) html += `<p>${inline.trim()}</p>`;
      inline = '';
    };
    for (const part of this.out.split(BLOCK)) {
      if (part === undefined) {
        if (depth === 0) flush();
      } else if (/^<\/?(?:p|ul|ol|table|blockquote)\b/.test(part)) {
        if (depth === 0) flush();
        depth += part.startsWith('</') ? -1 : 1;
        html += part;
      } else if (depth === 0) inline += part;
      else html += part;
    }
    flush();
    return html;
  }
}
