import MarkdownIt from 'markdown-it';
import type { Issue, SourceDocument } from '@coomb/core';
import { decodeText } from '../csv/read-csv.js';
import { readHtmlText } from '../html/read-html.js';
import { ReadError } from '../read-error.js';

/** Markup inside the text stays text: only Markdown's own signs count. */
const markdown = new MarkdownIt({ html: false, linkify: false });

/** Reads Markdown (CommonMark with tables) as a document. Throws ReadError for empty or binary files. */
export function readMarkdown(bytes: Uint8Array): { document: SourceDocument; issues: Issue[] } {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  const text = decodeText(bytes);
  if (text.slice(0, 4000).includes('\0')) throw new ReadError('not-text', 'The file is not a text file.');
  return readHtmlText(markdown.render(text));
}
