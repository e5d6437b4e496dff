import { tableOf, escapeHtml, richTextTags } from '@coomb/core';
import { embeddedScheme, pictureScheme } from '../rich-text/sanitise.js';

const TAGS = tableOf<string>({ b: 'strong', i: 'em', del: 's', ins: 'u' });
/** Ends a division: what stands in it is a paragraph of its own. */
const BREAK = '\uE000';
/** Marks the end of an embedded object. */
const EMBEDDED = '\uE001';
const BLOCK = /(<\/?(?:p|ul|ol|table|blockquote|pre|figure)\b[^>]*>)|\uE000/;
const KEPT = new Set(richTextTags.filter((tag) => tag !== 'img'));
const SAFE = /^(?:https?:|mailto:)/i;
const DROPPED = new Set(['script', 'style', 'title', 'textarea', 'noscript', 'iframe']);
const PICTURE = /^image\/(png|jpeg|gif|webp|bmp|svg\+xml)$/;

/**
 * Rich text of a ReqIF value (XHTML modules, whatever their prefix) as plain HTML. Objects that are pictures become pictures, others links
 * around what stands in for them. Writes nothing but known elements, escaped text, pictures of the file and addresses of safe schemes, so that its output needs no
 * sanitising; a test holds the two against each other.
 */
export class XhtmlReader {
  private out = '';
  private depth = 0;
  /** Inside elements whose text is none of the reader's: scripts, styles. */
  private dropping = 0;
  private readonly closing: string[] = [];
  /** Text that stands in for the picture being read. */
  private instead: { data: string; name: string; text: string; depth: number } | undefined;
  /** Where the embedded object opened last begins to say something. */
  private embeddedFrom = -1;

  /** Collects the media types of objects by their names in `embedded`. */
  constructor(private readonly embedded: Map<string, string> = new Map()) {}

  open(local: string, attributes: Record<string, string>): void {
    this.depth++;
    if (this.dropping > 0 || DROPPED.has(local)) {
      this.dropping++;
      this.closing.push('');
      return;
    }
    const tag = TAGS[local] ?? local;
    if (local === 'object' && attributes.data) {
      const { data, type = '' } = attributes;
      this.embedded.set(data, type);
      if (PICTURE.test(type) || (!type && /\.(png|jpe?g|gif|webp|bmp)$/i.test(data))) {
        this.instead = { data, name: attributes.name ?? '', text: '', depth: this.depth };
        this.dropping++;
        this.closing.push('');
      } else if (this.closing.some((one) => one.startsWith(EMBEDDED))) this.closing.push('');
      else {
        this.out += `<a href="${embeddedScheme}${escapeHtml(data)}">`;
        this.embeddedFrom = this.out.length;
        this.closing.push(`${EMBEDDED}${escapeHtml(data.slice(data.lastIndexOf('/') + 1))}</a>`);
      }
    } else if (tag === 'br') {
      this.out += '<br />';
      this.closing.push('');
    } else if (KEPT.has(tag)) {
      const href = tag === 'a' && attributes.href && SAFE.test(attributes.href) ? ` href="${escapeHtml(attributes.href)}"` : '';
      const display = tag === 'math' && /^(?:block|inline)$/.test(attributes.display ?? '') ? ` display="${attributes.display}"` : '';
      this.out += `<${tag}${href}${display}>`;
      this.closing.push(`</${tag}>`);
    } else this.closing.push(local === 'div' ? BREAK : '');
  }

  /** False when the value itself closes. */
  close(_local: string): boolean {
    if (this.depth === 0) return false;
    if (this.dropping > 0) this.dropping--;
    const { instead } = this;
    if (instead?.depth === this.depth) {
      this.out += `<img src="${pictureScheme}${escapeHtml(instead.data)}" alt="${escapeHtml(instead.name || instead.text.trim())}" />`;
      this.instead = undefined;
    }
    this.depth--;
    const closing = this.closing.pop() ?? '';
    // The name of an embedded object is shown where nothing stands in for it.
    if (closing.startsWith(EMBEDDED)) this.out += this.out.slice(this.embeddedFrom).trim() === '' ? closing.slice(1) : '</a>';
    else this.out += closing;
    return true;
  }

  text(part: string): void {
    if (this.dropping === 0) this.out += escapeHtml(part);
    else if (this.instead && this.dropping === 1 + this.depth - this.instead.depth) this.instead.text += part;
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
      } else if (/^<\/?(?:p|ul|ol|table|blockquote|pre|figure)\b/.test(part)) {
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
