import { type Coat, dashOf } from '../register/coat.js';
import {
  type Brush,
  type Detail,
  LINE,
  NAME,
  PLAIN,
  SMALL,
  below,
  beside,
  circle,
  classifier,
  cross,
  diamondOf,
  lettered,
  names,
  outline,
  plus,
  sign,
  signed,
  words,
} from './brush.js';
import type { DrawnShape } from './drawn.js';
import { fitLine, type Ink, type Paper, type Pen } from './pen.js';

/** Paints a figure as its notation draws it; with the coat that a colour key gives it. */
export function paintShape(pen: Pen, paper: Paper, shape: DrawnShape, detail: Detail, holds: boolean, coat: Coat = {}, holder?: DrawnShape): void {
  const { fill } = coat;
  const ground = fill ?? shape.style?.fill ?? (holds ? paper.inside : shape.figure === 'note' ? paper.note : paper.fill);
  const dashed = dashOf(coat.dash);
  const ink: Ink = {
    ...{ fill: ground, stroke: coat.line ?? shape.style?.line ?? paper.line, width: coat.width ?? 1.2 },
    ...(dashed.length > 0 && { dashes: dashed }),
  };
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
