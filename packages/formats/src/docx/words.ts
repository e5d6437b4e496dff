import type { SourceComment, SourceWords, TrackedText } from '@coomb/core';

/** What a tracked change does to a passage: it came in, went out, or came in and went out again. */
export type Revision = 'in' | 'out' | 'neither';

/** Words of a paragraph while it is read. The older version is kept apart from its first change on. */
export interface OpenWords {
  text: string;
  html: string;
  tracked: TrackedText | undefined;
  /** Who tracked changes here, and when. */
  by: Set<string> | undefined;
  footnotes: { mark: string; html: string }[] | undefined;
  comments: SourceComment[] | undefined;
}

export function openWords(): OpenWords {
  return { text: '', html: '', tracked: undefined, by: undefined, footnotes: undefined, comments: undefined };
}

export function addWords(words: OpenWords, revision: Revision | undefined, text: string, html: string): void {
  if (revision !== undefined) words.tracked ??= { text: words.text, html: words.html, marked: words.html };
  if (revision === undefined || revision === 'in') {
    words.text += text;
    words.html += html;
  }
  if (words.tracked) addTracked(words.tracked, revision, text, html);
}

function addTracked(tracked: TrackedText, revision: Revision | undefined, text: string, html: string): void {
  if (revision === undefined || revision === 'out') {
    tracked.text += text;
    tracked.html += html;
  }
  if (revision === undefined) tracked.marked += html;
  else if (revision === 'in') tracked.marked += `<ins>${html}</ins>`;
  else if (revision === 'out') tracked.marked += `<del>${html}</del>`;
}

/** Takes a paragraph into the one it stands in, as text boxes do. */
export function takeIn(outer: OpenWords, inner: OpenWords): void {
  const before = inner.tracked ?? { text: inner.text, html: inner.html, marked: inner.html };
  if (inner.tracked || outer.tracked) {
    outer.tracked ??= { text: outer.text, html: outer.html, marked: outer.html };
    outer.tracked.text += ` ${before.text}`;
    outer.tracked.html += ` ${before.html}`;
    outer.tracked.marked += ` ${before.marked}`;
  }
  outer.text += ` ${inner.text}`;
  outer.html += ` ${inner.html}`;
  if (inner.footnotes) (outer.footnotes ??= []).push(...inner.footnotes);
  if (inner.comments) (outer.comments ??= []).push(...inner.comments);
}

/** The words of a paragraph as they are kept. */
export function closeWords({ text, html, tracked, footnotes, comments }: OpenWords): SourceWords {
  const words: SourceWords = { text, html: joinMarks(html) };
  if (tracked && (tracked.text !== text || tracked.html !== html))
    words.tracked = { text: tracked.text, html: joinMarks(tracked.html), marked: joinMarks(tracked.marked) };
  if (footnotes) words.footnotes = footnotes;
  if (comments) words.comments = comments;
  return words;
}

/** The words of a cell, from its paragraphs; empty ones fall away. */
export function joinWords(paragraphs: readonly SourceWords[]): SourceWords {
  if (paragraphs.length === 1) return paragraphs[0]!;
  const words: SourceWords = { text: joinTexts(paragraphs.map((one) => one.text)), html: joinHtml(paragraphs.map((one) => one.html)) };
  if (paragraphs.some((one) => one.tracked))
    words.tracked = {
      text: joinTexts(paragraphs.map((one) => (one.tracked ?? one).text)),
      html: joinHtml(paragraphs.map((one) => (one.tracked ?? one).html)),
      marked: joinHtml(paragraphs.map((one) => one.tracked?.marked ?? one.html)),
    };
  const footnotes = paragraphs.flatMap((one) => one.footnotes ?? []);
  const comments = paragraphs.flatMap((one) => one.comments ?? []);
  if (footnotes.length) words.footnotes = footnotes;
  if (comments.length) words.comments = comments;
  return words;
}

const joinTexts = (texts: readonly string[]) => texts.filter((text) => text.trim()).join('\n');

function joinHtml(parts: readonly string[]): string {
  const filled = parts.filter(Boolean);
  if (filled.length === 1) return filled[0]!;
  return filled.map((one) => (one.startsWith('<table') ? one : `<p>${one}</p>`)).join('');
}

/** Runs split by the writer join again: `<strong>a</strong><strong>b</strong>` is one. */
function joinMarks(html: string): string {
  if (!html.includes('</')) return html.trim();
  const joined = html.includes('</a><a ') ? joinLinks(html) : html;
  return joined.replace(/<\/(strong|em|u|s|sub|sup|ins|del)><\1>/g, '').trim();
}

/** Runs of one link are one link. */
function joinLinks(html: string): string {
  return html.replace(
    /(<a href="[^"]*">)((?:(?!<\/a>).)*)<\/a>(?:\1((?:(?!<\/a>).)*)<\/a>)+/gs,
    (whole, start: string) => `${start}${whole.replaceAll(start, '').replaceAll('</a>', '')}</a>`,
  );
}
