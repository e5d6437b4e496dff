/** What a figure is painted with: the screen and a file of SVG each have one. Lengths in the drawing's own unit, angles none. */
export interface Pen {
  rect(x: number, y: number, width: number, height: number, radius: number, ink: Ink): void;
  ellipse(x: number, y: number, rx: number, ry: number, ink: Ink): void;
  /** A line through points, closed where it is said. */
  line(points: readonly number[], closed: boolean, ink: Ink): void;
  /** `turned` text runs upwards. */
  text(text: string, x: number, y: number, font: PenFont, anchor: 'start' | 'middle' | 'end', colour: string, turned?: boolean): void;
  /** Width of a text. */
  measure(text: string, font: PenFont): number;
}

export interface Ink {
  fill?: string | undefined;
  stroke?: string | undefined;
  width?: number;
  dashed?: boolean;
  /** Lengths of strokes and gaps, where it is not those of dashed lines. */
  dashes?: readonly number[] | undefined;
}

export interface PenFont {
  size: number;
  bold?: boolean;
  italic?: boolean;
  mono?: boolean;
}

/** Colours of a drawing on a ground; `fillOf` follows a colour key where one is set. */
export interface Paper {
  ground: string;
  ink: string;
  /** Lines of figures and routes. */
  line: string;
  faint: string;
  fill: string;
  /** Fill of figures that hold others. */
  inside: string;
  note: string;
}

/** A text cut to a width, with an ellipsis where it was cut. */
export function fitLine(pen: Pick<Pen, 'measure'>, text: string, font: PenFont, width: number): string {
  if (width <= 0) return '';
  if (pen.measure(text, font) <= width) return text;
  let [least, most] = [0, text.length];
  while (least < most) {
    const middle = (least + most + 1) >> 1;
    if (pen.measure(`${text.slice(0, middle).trimEnd()}…`, font) <= width) least = middle;
    else most = middle - 1;
  }
  return least > 0 ? `${text.slice(0, least).trimEnd()}…` : '';
}

/** A text on several lines of a width, the last one cut where there is no room for more. */
export function wrapText(pen: Pick<Pen, 'measure'>, text: string, font: PenFont, width: number, most: number): string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (const word of paragraph.split(/\s+/).filter(Boolean)) {
      const longer = line ? `${line} ${word}` : word;
      if (!line || pen.measure(longer, font) <= width) line = longer;
      else {
        lines.push(line);
        line = word;
      }
    }
    if (line) lines.push(line);
    if (lines.length > most) break;
  }
  if (lines.length <= most) return lines.map((line) => fitLine(pen, line, font, width));
  const kept = lines.slice(0, Math.max(1, most)).map((line) => fitLine(pen, line, font, width));
  const last = kept.length - 1;
  if (last >= 0 && !kept[last]!.endsWith('…'))
    kept[last] = fitLine(pen, `${lines[last]!} ${lines[last + 1] ?? ''}`, font, Math.max(0, width - 1)) || kept[last]!;
  if (last >= 0 && !kept[last]!.endsWith('…')) kept[last] = `${kept[last]!}…`;
  return kept;
}
