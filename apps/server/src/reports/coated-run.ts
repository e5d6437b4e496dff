import type { ReportBody } from '@coomb/contract';
import { type Coat, type GlyphName, glyphs, inkOn } from '@coomb/core';
import { BorderStyle, Paragraph, ShadingType, TextRun } from 'docx';
import { isColour } from './coats.js';

/** Words of a document, as a colour key has them. */
export interface CoatedWords {
  text: string;
  coat?: Coat | undefined;
}

/** Signs of a colour key as letters that the usual fonts have. */
const letters: Record<GlyphName, string> = { dot: '●', square: '■', triangle: '▲', diamond: '◆', bar: '▬', post: '▮', plus: '✚', corner: '◤' };
/** Of lines in documents: eighths of a point to a pixel. */
const EIGHTHS = 6;

export function coatedRun({ text, coat }: CoatedWords, size?: number): TextRun {
  const { fill, line, width, dash, glyph } = coat ?? {};
  const style = dash === 'dashed' ? BorderStyle.DASHED : dash === 'dotted' ? BorderStyle.DOTTED : BorderStyle.SINGLE;
  return new TextRun({
    text: `${glyph && glyph in glyphs ? `${letters[glyph]} ` : ''}${text}`,
    ...(size && { size }),
    ...(isColour(fill) && { color: inkOn(fill).slice(1), shading: { type: ShadingType.CLEAR, color: 'auto', fill: fill.slice(1) } }),
    ...((line || width || dash) && {
      border: { style, size: Math.round((width ?? 1.5) * EIGHTHS), space: 1, color: isColour(line) ? line.slice(1) : 'auto' },
    }),
  });
}

/** What the colours of a document stand for; nothing where it has none. */
export function buildLegend({ colours }: ReportBody): Paragraph[] {
  if (!colours) return [];
  return [
    new Paragraph({
      spacing: { before: 160 },
      children: [
        new TextRun(`Coloured by ${colours.name}: `),
        ...colours.entries.flatMap((coat, at) => [
          ...(at > 0 ? [new TextRun(' · ')] : []),
          coatedRun({ text: coat.label, coat }),
          new TextRun(` ${colours.items[at]?.length ?? 0}`),
        ]),
      ],
    }),
  ];
}
