import type { Ink, Pen, PenFont } from './pen.js';

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
const round = (value: number) => Math.round(value * 100) / 100;

/** Writes a drawing as SVG: text stays text, colours are those of the paper. */
export class SvgPen implements Pen {
  private readonly parts: string[] = [];

  constructor(
    readonly measure: Pen['measure'],
    private readonly fonts = { sans: 'Commissioner, system-ui, sans-serif', mono: 'ui-monospace, monospace' },
  ) {}

  rect(x: number, y: number, width: number, height: number, radius: number, ink: Ink): void {
    this.parts.push(
      `<rect x="${round(x)}" y="${round(y)}" width="${round(Math.max(0, width))}" height="${round(Math.max(0, height))}"${radius ? ` rx="${round(radius)}"` : ''}${inked(ink)}/>`,
    );
  }

  ellipse(x: number, y: number, rx: number, ry: number, ink: Ink): void {
    this.parts.push(`<ellipse cx="${round(x)}" cy="${round(y)}" rx="${round(Math.max(0, rx))}" ry="${round(Math.max(0, ry))}"${inked(ink)}/>`);
  }

  line(points: readonly number[], closed: boolean, ink: Ink): void {
    this.parts.push(`<${closed ? 'polygon' : 'polyline'} points="${points.map(round).join(' ')}"${inked(ink)}/>`);
  }

  text(text: string, x: number, y: number, font: PenFont, anchor: 'start' | 'middle' | 'end', colour: string, turned = false): void {
    if (!text) return;
    const face = `${font.bold ? ' font-weight="600"' : ''}${font.italic ? ' font-style="italic"' : ''}${font.mono ? ` font-family="${this.fonts.mono}"` : ''}`;
    this.parts.push(
      `<text x="${round(x)}" y="${round(y)}" font-size="${font.size}"${face}${anchor === 'start' ? '' : ` text-anchor="${anchor}"`} fill="${colour}"${turned ? ` transform="rotate(-90 ${round(x)} ${round(y)})"` : ''}>${escaped(text)}</text>`,
    );
  }

  /** Puts a name before what follows, until the next: readers of the file can tell what belongs together. */
  begin(title: string, strength = 1): void {
    this.parts.push(`<g${strength < 1 ? ` opacity="${strength.toFixed(2)}"` : ''}>${title && `<title>${escaped(title)}</title>`}`);
  }

  end(): void {
    this.parts.push('</g>');
  }

  /** The whole file, of a part of the drawing. */
  finish(box: { x: number; y: number; width: number; height: number }, ground: string, title: string): string {
    const { x, y, width, height } = box;
    return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${round(x)} ${round(y)} ${round(width)} ${round(height)}" width="${round(width)}" height="${round(height)}" font-family="${this.fonts.sans}" role="img"><title>${escaped(title)}</title><rect x="${round(x)}" y="${round(y)}" width="${round(width)}" height="${round(height)}" fill="${ground}"/>${this.parts.join('')}</svg>`;
  }
}

function inked({ fill, stroke, width = 1, dashed, dashes = dashed ? [5, 4] : [] }: Ink): string {
  return ` fill="${fill ?? 'none'}"${stroke ? ` stroke="${stroke}" stroke-width="${width}"` : ''}${dashes.length > 0 ? ` stroke-dasharray="${dashes.join(' ')}"` : ''}`;
}
