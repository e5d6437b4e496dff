import type { ReportBody } from '@coomb/contract';
import { type Coat, escapeHtml, glyphs, inkOn } from '@coomb/core';
import { coatsOf, isColour } from './coats.js';

/** How a page leads to the live project. */
export interface PageLinks {
  /** A reference, leading to its item; as the colour key that the report was published with has it. */
  item: (reference: string) => string;
  /** A number, leading to what it counts: where a report is about parts, only if one collection is the part; else the live figure would count others too. */
  figure: (id: string, count: number) => string;
}

/** `base` is the whole address of the live project. */
export function linksTo(body: ReportBody, base: string): PageLinks {
  const { parts } = body;
  const coatOf = coatsOf(body);
  return {
    item: (reference) => {
      const coat = coatOf(reference);
      const address = `${base}?item=${encodeURIComponent(reference)}`;
      return coat
        ? `<a class="key" style="${styleOf(coat)}" href="${address}">${glyphOf(coat)}${escapeHtml(reference)}</a>`
        : `<a href="${address}">${escapeHtml(reference)}</a>`;
    },
    figure: (id, count) => {
      if (parts && (parts.collections.length !== 1 || parts.sections.length > 0)) return String(count);
      const query = parts ? `?collection=${parts.collections[0]!.id}` : '';
      return `<a href="${base}/check/figure/${encodeURIComponent(id)}${query}">${count}</a>`;
    },
  };
}

/** What the colours of a report stand for; empty where it has none. */
export function legendOf({ colours }: ReportBody): string {
  if (!colours) return '';
  const entries = colours.entries.map(
    (coat, at) => `<span class="key" style="${styleOf(coat)}">${glyphOf(coat)}${escapeHtml(coat.label)}</span> ${colours.items[at]?.length ?? 0}`,
  );
  return `<p>Coloured by ${escapeHtml(colours.name)}: ${entries.join(' · ')}</p>`;
}

function styleOf({ fill, line, width, dash }: Coat): string {
  const ground = isColour(fill) ? `background:${fill};color:${inkOn(fill)};` : '';
  if (!line && !width && !dash) return ground;
  return `${ground}outline:${Number(width ?? 1.5)}px ${dash === 'dashed' || dash === 'dotted' ? dash : 'solid'} ${isColour(line) ? line : 'currentColor'}`;
}

const glyphOf = ({ glyph }: Coat): string =>
  glyph && glyph in glyphs ? `<svg class="sign" viewBox="0 0 10 10" aria-hidden="true"><path fill="currentColor" d="${glyphs[glyph]}"/></svg>` : '';
