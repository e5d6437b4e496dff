import type { DrawnShape } from './drawn.js';
import { fitLine, type Ink, type Paper, type Pen, type PenFont, wrapText } from './pen.js';

/** How much of a figure is worth painting at a size: filled boxes only, outlines, names, or everything. */
export type Detail = 0 | 1 | 2 | 3;

export function detailAt(scale: number): Detail {
  return scale < 0.16 ? 0 : scale < 0.32 ? 1 : scale < 0.6 ? 2 : 3;
}

const NAME: PenFont = { size: 12.5, bold: true };
const PLAIN: PenFont = { size: 12.5 };
const SMALL: PenFont = { size: 11 };
const HEAD: PenFont = { size: 10, italic: true };
const LINE = 15;

interface Brush {
  pen: Pen;
  paper: Paper;
  shape: DrawnShape;
  ink: Ink;
  font: string;
  detail: Detail;
  /** Whether other shapes lie in it: its name then stands at its top. */
  holds: boolean;
  /** What it lies in. */
  holder: DrawnShape | undefined;
}

/** Paints a figure as its notation draws it. */
export function paintShape(pen: Pen, paper: Paper, shape: DrawnShape, detail: Detail, holds: boolean, fill?: string, holder?: DrawnShape): void {
  const ground = fill ?? shape.style?.fill ?? (holds ? paper.inside : shape.figure === 'note' ? paper.note : paper.fill);
  const ink: Ink = { fill: ground, stroke: shape.style?.line ?? paper.line, width: 1.2 };
  const brush: Brush = { pen, paper, shape, ink, font: inkOn(ground, paper.ink, shape.style?.font), detail, holds, holder };
  const { x, y, width, height } = shape;
  if (detail === 0) {
    pen.rect(x, y, width, height, 0, { fill: holds ? ground : (fill ?? paper.faint), stroke: holds ? paper.faint : undefined, width: 4 });
    return;
  }
  PAINTERS[shape.figure](brush);
}

/** Text on any ground stays readable: dark on light, light on dark. */
function inkOn(ground: string, usual: string, own?: string): string {
  const found = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(ground);
  if (!found) return own ?? usual;
  const light = lightness(found);
  const ink = own ?? usual;
  const of = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(ink);
  if (of && contrast(lightness(of), light) >= 4.5) return ink;
  return light > 0.2 ? '#1d1e1a' : '#f6f3ea';
}

/** WCAG 2.2, relative luminance and contrast ratio. */
function lightness([, r, g, b]: RegExpExecArray): number {
  const [red, green, blue] = [r, g, b].map((one) => {
    const part = Number.parseInt(one!, 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
const contrast = (a: number, b: number) => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

type Painter = (brush: Brush) => void;

const PAINTERS: Record<DrawnShape['figure'], Painter> = {
  box: (brush) => {
    outline(brush, 0);
    classifier(brush);
  },
  package: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const tab = Math.min(18, height / 3);
    pen.rect(x, y, Math.min(width * 0.6, 120), tab, 0, ink);
    pen.rect(x, y + tab, width, height - tab, 0, ink);
    names(brush, y + tab, height - tab, brush.holds ? 'top' : 'middle');
  },
  rounded: (brush) => {
    outline(brush, Math.min(10, brush.shape.height / 3));
    const { shape, holds } = brush;
    names(brush, shape.y, shape.height, holds ? 'top' : 'middle', false);
    if (shape.sign) sign(brush, shape.x + 5, shape.y + 4);
  },
  ellipse: (brush) => {
    const { pen, shape, ink } = brush;
    pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width / 2, shape.height / 2, ink);
    names(brush, shape.y, shape.height, 'middle', false, 0.75);
  },
  actor: (brush) => {
    const { pen, shape, ink, paper, font } = brush;
    const { x, width, y, height } = shape;
    const tall = Math.max(10, height - (brush.detail >= 2 ? LINE + 2 : 0));
    const centre = x + width / 2;
    const head = tall * 0.16;
    const line = { stroke: ink.stroke, width: 1.4 };
    pen.ellipse(centre, y + head, head, head, { ...line, fill: ink.fill });
    pen.line([centre, y + 2 * head, centre, y + tall * 0.65], false, line);
    pen.line([centre - tall * 0.26, y + tall * 0.42, centre + tall * 0.26, y + tall * 0.42], false, line);
    pen.line([centre - tall * 0.24, y + tall, centre, y + tall * 0.65, centre + tall * 0.24, y + tall], false, line);
    if (brush.detail >= 2) pen.text(shape.name, centre, y + height - 3, PLAIN, 'middle', font === paper.ink ? font : paper.ink);
  },
  note: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const fold = Math.min(12, width / 3, height / 3);
    pen.line([x, y, x + width - fold, y, x + width, y + fold, x + width, y + height, x, y + height], true, ink);
    pen.line([x + width - fold, y, x + width - fold, y + fold, x + width, y + fold], false, { stroke: ink.stroke, width: 1 });
    words(brush, shape.name, y + 4, height - 8, SMALL);
  },
  component: (brush) => {
    outline(brush, 0);
    const { pen, shape, ink, paper } = brush;
    if (brush.detail >= 2 && shape.width > 50) {
      const [x, y] = [shape.x + shape.width - 20, shape.y + 5];
      const line = { stroke: ink.stroke, width: 1, fill: paper.fill };
      pen.rect(x + 3, y, 12, 13, 0, line);
      pen.rect(x, y + 2, 6, 3, 0, line);
      pen.rect(x, y + 8, 6, 3, 0, line);
    }
    classifier(brush);
  },
  node: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const deep = Math.min(10, width / 6, height / 6);
    pen.line([x, y + deep, x + deep, y, x + width, y, x + width, y + height - deep, x + width - deep, y + height, x, y + height], true, ink);
    pen.line([x, y + deep, x + width - deep, y + deep, x + width - deep, y + height], false, { stroke: ink.stroke, width: 1 });
    pen.line([x + width - deep, y + deep, x + width, y], false, { stroke: ink.stroke, width: 1 });
    names(brush, y + deep, height - deep, brush.holds ? 'top' : 'middle');
  },
  artifact: (brush) => {
    outline(brush, 0);
    classifier(brush);
  },
  port: (brush) => {
    outline(brush, 0);
    beside(brush);
  },
  lifeline: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const head = Math.min(height, 40);
    pen.rect(x, y, width, head, 0, ink);
    if (height > head) pen.line([x + width / 2, y + head, x + width / 2, y + height], false, { stroke: ink.stroke, width: 1, dashed: true });
    names(brush, y, head, 'middle', false);
  },
  execution: (brush) => outline(brush, 0),
  fragment: (brush) => {
    const { pen, shape, ink, font } = brush;
    const { x, y, width, height } = shape;
    pen.rect(x, y, width, height, 0, { stroke: ink.stroke, width: 1.2 });
    if (brush.detail < 2) return;
    const text = fitLine(pen, shape.name, SMALL, width - 24);
    const wide = pen.measure(text, SMALL) + 14;
    pen.line([x, y, x + wide + 6, y, x + wide + 6, y + 10, x + wide, y + 17, x, y + 17], true, ink);
    pen.text(text, x + 6, y + 12.5, SMALL, 'start', font);
  },
  operand: (brush) => {
    const { pen, shape, ink, paper } = brush;
    const { x, y, width } = shape;
    pen.line([x, y, x + width, y], false, { stroke: ink.stroke, width: 1, dashed: true });
    if (brush.detail >= 2) pen.text(fitLine(pen, shape.name, SMALL, width - 20), x + 10, y + 14, SMALL, 'start', paper.ink);
  },
  partition: (brush) => {
    outline(brush, 0);
    const { pen, shape, ink } = brush;
    if (shape.upright || shape.height >= shape.width) {
      pen.line([shape.x, shape.y + 24, shape.x + shape.width, shape.y + 24], false, { stroke: ink.stroke, width: 1 });
      names(brush, shape.y, 24, 'middle', false);
    } else names(brush, shape.y, shape.height, 'top', false);
  },
  pin: (brush) => {
    outline(brush, 0);
    beside(brush);
  },
  bar: ({ pen, shape, ink, paper, detail }) => {
    pen.rect(shape.x, shape.y, shape.width, shape.height, 1, { fill: ink.stroke ?? paper.ink });
    if (detail >= 3 && shape.name) pen.text(shape.name, shape.x + shape.width + 4, shape.y + 10, SMALL, 'start', paper.ink);
  },
  diamond: (brush) => {
    const { pen, shape, ink } = brush;
    pen.line(diamondOf(shape), true, ink);
    beside(brush);
  },
  initial: (brush) => {
    circle(brush, { fill: brush.ink.stroke ?? brush.paper.ink });
    beside(brush);
  },
  final: (brush) => {
    const { pen, shape, ink, paper } = brush;
    circle(brush, { ...ink, fill: paper.ground });
    pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width * 0.3, shape.height * 0.3, { fill: ink.stroke ?? paper.ink });
    beside(brush);
  },
  flowFinal: (brush) => {
    circle(brush);
    cross(brush, 0.35);
    beside(brush);
  },
  history: (brush) => lettered(brush, 'H'),
  deepHistory: (brush) => lettered(brush, 'H*'),
  terminate: (brush) => cross(brush, 0.5),
  point: (brush) => circle(brush, { fill: brush.ink.stroke ?? brush.paper.ink }),
  exit: (brush) => {
    circle(brush);
    cross(brush, 0.35);
    beside(brush);
  },
  send: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const tip = Math.min(16, width / 4);
    pen.line([x, y, x + width - tip, y, x + width, y + height / 2, x + width - tip, y + height, x, y + height], true, ink);
    names(brush, y, height, 'middle', false, 0.8);
  },
  receive: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const tip = Math.min(16, width / 4);
    pen.line([x, y, x + width, y, x + width, y + height, x, y + height, x + tip, y + height / 2], true, ink);
    names(brush, y, height, 'middle', false, 0.75);
  },
  time: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    pen.line([x, y, x + width, y, x, y + height, x + width, y + height], true, ink);
    beside(brush);
  },
  pool: (brush) => {
    outline(brush, 0);
    const { pen, shape, ink, font } = brush;
    if (brush.detail < 2 || !shape.name) return;
    // The name of a band that lies stands in a strip at its left, letters turned.
    const strip = 26;
    if (shape.upright) {
      pen.line([shape.x, shape.y + strip, shape.x + shape.width, shape.y + strip], false, { stroke: ink.stroke, width: 1 });
      names(brush, shape.y, strip, 'middle', false);
    } else pen.text(fitLine(pen, shape.name, NAME, shape.height - 10), shape.x + 19, shape.y + shape.height / 2, NAME, 'middle', font, true);
  },
  event: (brush) => {
    circle(brush);
    signed(brush);
  },
  interim: (brush) => {
    const { pen, shape, ink } = brush;
    circle(brush);
    pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width / 2 - 3, shape.height / 2 - 3, { stroke: ink.stroke, width: 1 });
    signed(brush);
  },
  end: (brush) => {
    circle(brush, { ...brush.ink, width: 3 });
    signed(brush);
  },
  gateway: (brush) => {
    const { pen, shape, ink } = brush;
    pen.line(diamondOf(shape), true, ink);
    if (shape.sign === 'parallel' || shape.sign === 'complex') plus(brush, 0.25);
    if (shape.sign === 'exclusive' || shape.sign === 'complex') cross(brush, 0.17);
    if (shape.sign === 'inclusive')
      pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width * 0.2, shape.height * 0.2, { stroke: ink.stroke, width: 2 });
    if (shape.sign === 'eventBased') {
      pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width * 0.24, shape.height * 0.24, { stroke: ink.stroke, width: 1 });
      pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width * 0.18, shape.height * 0.18, { stroke: ink.stroke, width: 1 });
    }
    below(brush);
  },
  data: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const fold = Math.min(10, width / 3);
    pen.line([x, y, x + width - fold, y, x + width, y + fold, x + width, y + height, x, y + height], true, ink);
    pen.line([x + width - fold, y, x + width - fold, y + fold, x + width, y + fold], false, { stroke: ink.stroke, width: 1 });
    below(brush);
  },
  store: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const round = Math.min(8, height / 5);
    pen.rect(x, y + round / 2, width, height - round, round, ink);
    pen.ellipse(x + width / 2, y + round, width / 2, round, ink);
    below(brush);
  },
  annotation: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const arm = Math.min(10, width / 4);
    pen.line([x + arm, y, x, y, x, y + height, x + arm, y + height], false, { stroke: ink.stroke, width: 1.2 });
    words({ ...brush, font: brush.paper.ink }, shape.name, y + 3, height - 6, SMALL, x + 6);
  },
  group: ({ pen, shape, ink, paper, detail }) => {
    pen.rect(shape.x, shape.y, shape.width, shape.height, 10, { stroke: ink.stroke, width: 1.2, dashed: true });
    if (detail >= 2 && shape.name) pen.text(fitLine(pen, shape.name, SMALL, shape.width - 16), shape.x + 8, shape.y + 14, SMALL, 'start', paper.ink);
  },
  input: (brush) => {
    outline(brush, brush.shape.height / 2);
    names(brush, brush.shape.y, brush.shape.height, 'middle', false, 0.85);
  },
  knowledge: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    const cut = Math.min(12, width / 5, height / 3);
    pen.line([x + cut, y, x + width, y, x + width, y + height - cut, x + width - cut, y + height, x, y + height, x, y + cut], true, ink);
    names(brush, y, height, 'middle', false);
  },
  source: (brush) => {
    const { pen, shape, ink } = brush;
    const { x, y, width, height } = shape;
    // The lower edge is a wave.
    const wave = Array.from({ length: 13 }, (_, at) => [x + width - (at * width) / 12, y + height - 6 + 5 * Math.sin((at / 12) * 2 * Math.PI)]).flat();
    pen.line([x, y, x + width, y, ...wave], true, ink);
    names(brush, y, height - 8, 'middle', false);
  },
  service: (brush) => {
    outline(brush, 12);
    names(brush, brush.shape.y, brush.shape.height, 'top', false);
  },
};

function outline({ pen, shape, ink }: Brush, radius: number): void {
  pen.rect(shape.x, shape.y, shape.width, shape.height, radius, ink);
}

function circle({ pen, shape, ink }: Brush, other: Ink = ink): void {
  pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width / 2, shape.height / 2, other);
}

function cross({ pen, shape, ink }: Brush, arm: number): void {
  const [cx, cy] = [shape.x + shape.width / 2, shape.y + shape.height / 2];
  const [dx, dy] = [shape.width * arm, shape.height * arm];
  pen.line([cx - dx, cy - dy, cx + dx, cy + dy], false, { stroke: ink.stroke, width: 2 });
  pen.line([cx - dx, cy + dy, cx + dx, cy - dy], false, { stroke: ink.stroke, width: 2 });
}

function plus({ pen, shape, ink }: Brush, arm: number): void {
  const [cx, cy] = [shape.x + shape.width / 2, shape.y + shape.height / 2];
  pen.line([cx - shape.width * arm, cy, cx + shape.width * arm, cy], false, { stroke: ink.stroke, width: 2 });
  pen.line([cx, cy - shape.height * arm, cx, cy + shape.height * arm], false, { stroke: ink.stroke, width: 2 });
}

function lettered(brush: Brush, letter: string): void {
  circle(brush);
  const { pen, shape, font, detail } = brush;
  if (detail >= 2) pen.text(letter, shape.x + shape.width / 2, shape.y + shape.height / 2 + 4, NAME, 'middle', font);
}

function diamondOf({ x, y, width, height }: DrawnShape): number[] {
  return [x + width / 2, y, x + width, y + height / 2, x + width / 2, y + height, x, y + height / 2];
}

/** Keyword and name of a classifier, then its compartments. */
function classifier(brush: Brush): void {
  const { pen, paper, shape, ink, font, detail, holds } = brush;
  const { x, y, width, height, parts = [] } = shape;
  if (detail < 2) return;
  const hasParts = detail >= 3 && parts.length > 0 && !holds;
  if (!hasParts) return names(brush, y, height, holds ? 'top' : 'middle');
  const head = (shape.keyword ? LINE - 2 : 0) + LINE + 6;
  names(brush, y, head, 'middle');
  let at = y + head;
  const bottom = y + height;
  for (const { title, lines } of parts) {
    if (at + 8 > bottom) break;
    pen.line([x, at, x + width, at], false, { stroke: ink.stroke, width: 0.8 });
    at += 3;
    if (title && at + 12 <= bottom) {
      pen.text(title, x + width / 2, at + 9, HEAD, 'middle', paper.ink === font ? paper.ink : font);
      at += 12;
    }
    const left = Math.floor((bottom - at - 2) / 13);
    const wrapped =
      lines.length === 1 || lines[0]!.startsWith('id = ') ? lines.flatMap((line) => wrapText(pen, line, SMALL, width - 12, Math.max(1, left))) : lines;
    const shown = wrapped.slice(0, Math.max(0, left));
    shown.forEach((line, index) => {
      const isLast = index === shown.length - 1 && wrapped.length > shown.length;
      pen.text(isLast ? `… ${wrapped.length - shown.length + 1} more` : fitLine(pen, line, SMALL, width - 12), x + 6, at + 10, SMALL, 'start', font);
      at += 13;
    });
    at += 3;
  }
}

/** Keyword above, then the name on as many lines as there is room for. */
function names(brush: Brush, top: number, height: number, place: 'top' | 'middle', bold = true, share = 1): void {
  const { pen, shape, font, detail } = brush;
  if (detail < 2) return;
  const name = bold ? NAME : PLAIN;
  const width = shape.width * share - 8;
  const keyword = shape.keyword && detail >= 3 ? fitLine(pen, shape.keyword, SMALL, width) : '';
  const most = Math.max(1, Math.floor((height - (keyword ? LINE : 0)) / LINE));
  const lines = wrapText(pen, shape.name, name, width, place === 'top' ? 1 : Math.min(4, most));
  const tall = lines.length * LINE + (keyword ? LINE - 2 : 0);
  let y = (place === 'top' ? top + 5 : top + Math.max(2, (height - tall) / 2)) + 11;
  const centre = shape.x + shape.width / 2;
  if (keyword) {
    pen.text(keyword, centre, y - 1, SMALL, 'middle', font);
    y += LINE - 2;
  }
  for (const line of lines) {
    pen.text(line, centre, y, name, 'middle', font);
    y += LINE;
  }
}

function words({ pen, shape, font, detail }: Brush, text: string, top: number, height: number, face: PenFont, left = shape.x + 6): void {
  if (detail < 2) return;
  const lines = wrapText(pen, text, face, shape.width - 14, Math.max(1, Math.floor(height / 13)));
  lines.forEach((line, index) => pen.text(line, left, top + 10 + index * 13, face, 'start', font));
}

/** The name of what is too small to hold it stands beside it. */
function beside({ pen, shape, paper, detail, holder }: Brush): void {
  if (detail < 3 || !shape.name) return;
  const { label } = shape;
  const isRight = holder && shape.x + shape.width / 2 > holder.x + holder.width * 0.66;
  if (label) pen.text(fitLine(pen, shape.name, SMALL, Math.max(label.width, 30) + 30), label.x, label.y + 11, SMALL, 'start', paper.ink);
  else if (isRight)
    pen.text(fitLine(pen, shape.name, SMALL, Math.min(140, holder.width / 2)), shape.x - 4, shape.y + shape.height / 2 - 4, SMALL, 'end', paper.ink);
  else pen.text(fitLine(pen, shape.name, SMALL, 140), shape.x + shape.width + 4, shape.y + shape.height / 2 - 4, SMALL, 'start', paper.ink);
}

function below({ pen, shape, paper, detail }: Brush): void {
  if (detail < 2 || !shape.name) return;
  const label = shape.label ?? { x: shape.x - 40, y: shape.y + shape.height + 2, width: shape.width + 80, height: 30 };
  const lines = wrapText(pen, shape.name, SMALL, Math.max(60, label.width), 3);
  lines.forEach((line, index) => pen.text(line, label.x + label.width / 2, label.y + 11 + index * 13, SMALL, 'middle', paper.ink));
}

function signed(brush: Brush): void {
  if (brush.shape.sign) sign(brush, brush.shape.x + brush.shape.width / 2 - 7, brush.shape.y + brush.shape.height / 2 - 7);
  below(brush);
}

/** Small signs of BPMN, by what they mean. */
function sign({ pen, shape, ink, detail, paper }: Brush, x: number, y: number): void {
  if (detail < 2) return;
  const line = { stroke: ink.stroke, width: 1 };
  switch (shape.sign) {
    case 'message':
    case 'send':
    case 'receive':
      pen.rect(x, y + 2, 14, 10, 0, { ...line, fill: shape.sign === 'send' ? (ink.stroke ?? paper.ink) : undefined });
      pen.line([x, y + 2, x + 7, y + 8, x + 14, y + 2], false, shape.sign === 'send' ? { stroke: paper.fill, width: 1 } : line);
      break;
    case 'timer':
      pen.ellipse(x + 7, y + 7, 7, 7, line);
      pen.line([x + 7, y + 2, x + 7, y + 7, x + 11, y + 8], false, line);
      break;
    case 'error':
      pen.line([x + 1, y + 13, x + 5, y + 3, x + 9, y + 9, x + 13, y + 1], false, { ...line, width: 1.6 });
      break;
    case 'signal':
      pen.line([x + 7, y + 1, x + 14, y + 13, x, y + 13], true, line);
      break;
    case 'terminate':
      pen.ellipse(x + 7, y + 7, 6, 6, { fill: ink.stroke ?? paper.ink });
      break;
    case 'user':
      pen.ellipse(x + 7, y + 4, 3, 3, line);
      pen.line([x + 1, y + 14, x + 2, y + 9, x + 12, y + 9, x + 13, y + 14], true, line);
      break;
    case 'service':
      pen.ellipse(x + 7, y + 7, 3, 3, line);
      pen.ellipse(x + 7, y + 7, 6.5, 6.5, { ...line, dashed: true });
      break;
    case 'manual':
      pen.line([x, y + 6, x + 9, y + 2, x + 14, y + 6, x + 14, y + 11, x, y + 11], true, line);
      break;
    case 'script':
      pen.rect(x + 2, y, 10, 14, 2, line);
      for (const down of [4, 7, 10]) pen.line([x + 4, y + down, x + 10, y + down], false, line);
      break;
    case 'businessRule':
      pen.rect(x, y + 2, 14, 11, 0, line);
      pen.line([x, y + 6, x + 14, y + 6], false, line);
      pen.line([x + 5, y + 2, x + 5, y + 13], false, line);
      break;
    case 'escalation':
      pen.line([x + 7, y + 1, x + 12, y + 13, x + 7, y + 8, x + 2, y + 13], true, line);
      break;
    case 'conditional':
      pen.rect(x + 2, y + 1, 10, 12, 0, line);
      for (const down of [4, 7, 10]) pen.line([x + 4, y + down, x + 10, y + down], false, line);
      break;
    default:
  }
}
