import MarkdownIt from 'markdown-it';
import { escapeHtml, type Issue, type SourceDocument } from '@coomb/core';
import { decodeText } from '../csv/read-csv.js';
import { readSaid } from '../html/said.js';
import { readHtmlText } from '../html/read-html.js';
import { ReadError } from '../read-error.js';
import { richTextTags } from '@coomb/core';

const markdown = new MarkdownIt({ html: true, linkify: false });
markdown.renderer.rules.html_inline = (tokens, at) => keepFormatting(tokens[at]!.content);
markdown.renderer.rules.html_block = markdown.renderer.rules.html_inline;

/** Reads Markdown (CommonMark with tables) as a document; elements that format stay, other markup stays as text. Throws ReadError for empty or binary files. */
export function readMarkdown(bytes: Uint8Array): { document: SourceDocument; issues: Issue[] } {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  const text = decodeText(bytes);
  if (text.slice(0, 4000).includes('\0')) throw new ReadError('not-text', 'The file is not a text file.');
  checkSigns(text);
  return readHtmlText(markdown.render(text));
}

/** Signs that may open or close something, in one paragraph: each is remembered until the paragraph ends. */
const MOST_SIGNS = 100_000;

function checkSigns(text: string): void {
  let signs = 0;
  let line = 1;
  let isBlank = true;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === 10) {
      line++;
      if (isBlank) signs = 0;
      isBlank = true;
    } else if (code > 32) {
      isBlank = false;
      if ((code === 42 || code === 95 || code === 91 || code === 93 || code === 96 || code === 126 || code === 33 || code === 60) && ++signs > MOST_SIGNS)
        throw new ReadError(
          'markdown-dense',
          `The paragraph at line ${line} holds more than ${MOST_SIGNS.toLocaleString('en-GB')} signs of Markdown, as no text does; the file was refused.`,
        );
    }
  }
}

const FORMATTING = new Set([...richTextTags, 'b', 'i', 'strike', 'del', 'div', 'span']);
const MARKUP = /<!--(.*?)-->|<\/?([a-z][a-z0-9]*)(?:\s[^<>]*)?\/?>|[<>]/gis;

/** Names in angle brackets, such as <level>, are words of the author's and no markup. */
function keepFormatting(markup: string): string {
  return markup.replace(MARKUP, (whole, comment: string | undefined, name: string | undefined) => {
    if (comment !== undefined) return readSaid(comment) ? whole : '';
    return name !== undefined && FORMATTING.has(name.toLowerCase()) ? whole : escapeHtml(whole);
  });
}
