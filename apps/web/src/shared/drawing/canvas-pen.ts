import type { Ink, Pen, PenFont } from '@coomb/core';

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

const SANS = "'Commissioner Variable', system-ui, sans-serif";
const MONO = "'Sometype Mono Variable', ui-monospace, monospace";
export const cssFont = ({ size, bold, italic, mono }: PenFont): string => `${italic ? 'italic ' : ''}${bold ? '600 ' : ''}${size}px ${mono ? MONO : SANS}`;

const widths = new Map<string, number>();
const MOST_WIDTHS = 50_000;
let ruler: Context | undefined;

/** Width of a text; measured once. */
export function measureText(text: string, font: PenFont): number {
  const css = cssFont(font);
  const key = css + text;
  let width = widths.get(key);
  if (width === undefined) {
    ruler ??= document.createElement('canvas').getContext('2d') ?? undefined;
    if (!ruler) return text.length * font.size * 0.55;
    ruler.font = css;
    width = ruler.measureText(text).width;
    if (widths.size >= MOST_WIDTHS) widths.clear();
    widths.set(key, width);
  }
  return width;
}

/** What was measured in a font that had not come yet is wrong. */
export const forgetWidths = (): void => widths.clear();

/** Paints on a canvas whose transformation is set to the drawing's unit. */
export class CanvasPen implements Pen {
  readonly measure = measureText;
  private font = '';

  constructor(private readonly context: Context) {}

  /** How strongly what follows is painted, from 0 to 1. */
  strength(share: number): void {
    this.context.globalAlpha = share;
  }

  rect(x: number, y: number, width: number, height: number, radius: number, ink: Ink): void {
    const { context } = this;
    context.beginPath();
    if (radius > 0) context.roundRect(x, y, width, height, Math.min(radius, width / 2, height / 2));
    else context.rect(x, y, width, height);
    this.apply(ink);
  }

  ellipse(x: number, y: number, rx: number, ry: number, ink: Ink): void {
    this.context.beginPath();
    this.context.ellipse(x, y, Math.max(0, rx), Math.max(0, ry), 0, 0, 2 * Math.PI);
    this.apply(ink);
  }

  line(points: readonly number[], closed: boolean, ink: Ink): void {
    const { context } = this;
    context.beginPath();
    context.moveTo(points[0]!, points[1]!);
    for (let at = 2; at < points.length; at += 2) context.lineTo(points[at]!, points[at + 1]!);
    if (closed) context.closePath();
    this.apply(ink);
  }

  text(text: string, x: number, y: number, font: PenFont, anchor: 'start' | 'middle' | 'end', colour: string, turned = false): void {
    if (!text) return;
    const { context } = this;
    const css = cssFont(font);
    if (css !== this.font) context.font = this.font = css;
    context.textAlign = anchor === 'middle' ? 'center' : anchor === 'end' ? 'right' : 'left';
    context.fillStyle = colour;
    if (turned) {
      context.save();
      context.translate(x, y);
      context.rotate(-Math.PI / 2);
      context.fillText(text, 0, 0);
      context.restore();
    } else context.fillText(text, x, y);
  }

  private apply({ fill, stroke, width = 1, dashed, dashes = dashed ? [5, 4] : [] }: Ink): void {
    const { context } = this;
    if (fill) {
      context.fillStyle = fill;
      context.fill();
    }
    if (!stroke) return;
    context.strokeStyle = stroke;
    context.lineWidth = width;
    if (dashes.length > 0) context.setLineDash([...dashes]);
    context.stroke();
    if (dashes.length > 0) context.setLineDash([]);
  }
}
