import type { SourceParagraph, SourcePlace, SourceWords } from '../source/document.js';
import { sliceHtml } from '../source/slice-html.js';

/** Markup of a paragraph from a character of its text on, or between two. Readers trim the markup, not the text. */
export function sliceWords({ text, html }: SourceWords, start: number, end?: number): string {
  const lead = text.length - text.trimStart().length;
  return sliceHtml(html, Math.max(0, start - lead), end === undefined ? undefined : Math.max(0, end - lead));
}

/** Footnotes as paragraphs that follow the text that names them. */
export function notesOf({ footnotes }: SourceWords): string {
  return (footnotes ?? []).map(({ mark, html }) => `<p><sup>${mark}</sup> ${html}</p>`).join('');
}

/** Plain text without the marks of its footnotes, as titles are made of. */
export function textWithoutMarks({ text, footnotes }: SourceWords): string {
  return (footnotes ?? []).reduce((left, { mark }) => left.replace(mark, ''), text);
}

export function placeOf({ at, page, number }: SourceParagraph, block: number): SourcePlace {
  const clause = number !== undefined && /^\d+(\.\d+)+$/.test(number) ? `${number}, ` : '';
  return page === undefined ? { block, says: `${clause}paragraph ${at}` } : { block, page, says: `page ${page}, paragraph ${at}` };
}

const QUOTED = /(^|[^\p{L}\p{N}])["“„«‹'‘‚]([\p{L} ]{1,40})["”“»›'’](?![\p{L}\p{N}])/gu;

/** Whether a text says a word or words; a word that stands in quotation marks by itself is only spoken of. */
export function hasWord(text: string, word: string): boolean {
  const wanted = word.toLowerCase();
  const low = text.toLowerCase();
  if (!low.includes(/^\S*/.exec(wanted)![0])) return false;
  const meant = low.replace(QUOTED, (whole, before: string, quoted: string) => (quoted === wanted || quoted === `${wanted} not` ? `${before} ` : whole));
  return ` ${meant.replace(/[^\p{L}\p{N}_]+/gu, ' ')} `.includes(` ${wanted} `);
}

/** The first words, for a remark. */
export function cut(text: string): string {
  const clean = text.trim().replace(/\s+/g, ' ');
  return clean.length > 60 ? `${clean.slice(0, 59)}…` : clean;
}

export function asParagraph(html: string): string {
  return /^<(?:p|ul|ol|table)\b/.test(html) ? html : `<p>${html}</p>`;
}

export function escapeHtml(text: string): string {
  // Most words need no escape: looking once is quicker than replacing four times.
  if (!/[&<>"]/.test(text)) return text;
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}
