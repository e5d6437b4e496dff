import { type Coat, type VerificationState, verificationStates } from '@coomb/core';
import type { OutlineReply } from '@coomb/contract';
import { cellAt, centreOf, dipAt, type SectionLayout } from './section-layout';
import { stateGlyphs } from '../../shared/ui/state-glyphs';

export interface SectionLook {
  colour: (token: string) => string;
  /** Links as pairs of outline rows, drawn faintly while nothing is traced. */
  seams: [number, number][];
  brushed: ReadonlySet<number> | undefined;
  /** States, by their place, that rows are painted in other than their own. */
  becomes?: ReadonlyMap<number, number>;
  /** Fills of a colour key, by reference, in place of states. */
  fills?: ReadonlyMap<string, Coat> | undefined;
}

/** Paints everything that does not follow the pointer: ground, seams, cells. Done once; hovering only lays over it. */
export function paintBase(context: CanvasRenderingContext2D, layout: SectionLayout, outline: OutlineReply, look: SectionLook): void {
  paintGround(context, layout, look);
  paintSeams(context, layout, look);
  for (const stripe of layout.stripes) stripe.rows.forEach((row, index) => paintCell(context, layout, outline, look, row, cellAt(layout, stripe, index)));
}

/** Lays a trace over the base: everything pales but the ground, and what is reached is drawn again in full with its threads. */
export function paintTrace(
  context: CanvasRenderingContext2D,
  layout: SectionLayout,
  outline: OutlineReply,
  look: SectionLook,
  roots: ReadonlySet<number>,
  traced: ReadonlyMap<number, number>,
): void {
  context.globalAlpha = 0.78;
  context.fillStyle = look.colour('bg');
  context.fillRect(0, 0, layout.width, layout.height);
  context.globalAlpha = 1;
  paintThreads(context, layout, look, roots, traced);
  for (const row of traced.keys()) paintRow(context, layout, outline, look, row);
  for (const row of roots) paintRow(context, layout, outline, look, row);
}

/** Frames the cell under the pointer. */
export function paintFrame(context: CanvasRenderingContext2D, layout: SectionLayout, look: SectionLook, row: number): void {
  const place = layout.placeOf.get(row);
  if (!place) return;
  const { x, y } = cellAt(layout, layout.stripes[place.stripe]!, place.index);
  const side = layout.cell - (layout.cell >= 5 ? Math.max(1, layout.cell * 0.12) : 0);
  context.strokeStyle = look.colour('fg');
  context.lineWidth = 2;
  context.strokeRect(x - 1, y - 1, side + 2, side + 2);
}

function paintRow(context: CanvasRenderingContext2D, layout: SectionLayout, outline: OutlineReply, look: SectionLook, row: number): void {
  const place = layout.placeOf.get(row);
  if (place) paintCell(context, layout, outline, look, row, cellAt(layout, layout.stripes[place.stripe]!, place.index));
}

/** The ground between the strata: soft bands, each following the dip. */
function paintGround(context: CanvasRenderingContext2D, layout: SectionLayout, { colour }: SectionLook): void {
  layout.stripes.forEach((stripe, index) => {
    context.beginPath();
    context.moveTo(0, stripe.top - 5 + dipAt(layout, 0));
    for (let x = 0; x <= layout.width; x += 12) context.lineTo(x, stripe.top - 5 + dipAt(layout, x));
    for (let x = layout.width; x >= 0; x -= 12) context.lineTo(x, stripe.top + stripe.height + 5 + dipAt(layout, x));
    context.closePath();
    context.fillStyle = colour(index % 2 ? 'bg.subtle' : 'bg.muted');
    context.fill();
  });
}

function paintSeams(context: CanvasRenderingContext2D, layout: SectionLayout, { colour, seams, brushed }: SectionLook): void {
  context.strokeStyle = colour('thread');
  context.lineWidth = 1;
  context.globalAlpha = Math.max(0.05, Math.min(0.28, 60 / Math.max(1, seams.length)));
  for (const [a, b] of seams) if (!brushed || brushed.has(a) || brushed.has(b)) thread(context, layout, a, b);
  context.globalAlpha = 1;
}

function paintThreads(
  context: CanvasRenderingContext2D,
  layout: SectionLayout,
  { colour, seams }: SectionLook,
  roots: ReadonlySet<number>,
  traced: ReadonlyMap<number, number>,
): void {
  context.strokeStyle = colour('thread');
  const isIn = (row: number) => roots.has(row) || traced.has(row);
  const drawn: [number, number][] = seams.length
    ? seams.filter(([a, b]) => isIn(a) && isIn(b))
    : [...traced]
        .filter(([, distance]) => distance === 1)
        .flatMap(([row]) => (roots.size === 1 ? [...roots].map((root): [number, number] => [root, row]) : []));
  for (const [a, b] of drawn) {
    const near = roots.has(a) || roots.has(b);
    context.lineWidth = near ? 1.8 : 1;
    context.globalAlpha = near ? 0.9 : 0.35;
    thread(context, layout, a, b);
  }
  context.globalAlpha = 1;
}

function thread(context: CanvasRenderingContext2D, layout: SectionLayout, a: number, b: number): void {
  const from = centreOf(layout, a);
  const to = centreOf(layout, b);
  if (!from || !to || from.stripe === to.stripe) return;
  const middle = (from.y + to.y) / 2;
  context.beginPath();
  context.moveTo(from.x, from.y);
  context.bezierCurveTo(from.x, middle, to.x, middle, to.x, to.y);
  context.stroke();
}

function paintCell(
  context: CanvasRenderingContext2D,
  layout: SectionLayout,
  outline: OutlineReply,
  look: SectionLook,
  row: number,
  { x, y }: { x: number; y: number },
): void {
  const state = verificationStates[look.becomes?.get(row) ?? outline.state[row]!]!;
  const gap = layout.cell >= 5 ? Math.max(1, layout.cell * 0.12) : 0;
  const side = layout.cell - gap;
  context.globalAlpha = look.brushed && !look.brushed.has(row) ? 0.22 : 1;
  if (look.fills) {
    context.fillStyle = look.fills.get(outline.reference[row]!)?.fill ?? look.colour('bg.panel');
    context.fillRect(x, y, side, side);
    context.globalAlpha = 1;
    return;
  }
  const missing = outline.gaps[row]! > 0;
  if (missing && state !== 'failing') paintHole(context, look, x, y, side);
  else {
    context.fillStyle = look.colour(`state.${state}`);
    context.fillRect(x, y, side, side);
    if (side >= 12) paintGlyph(context, look, state, x, y, side);
  }
  if (outline.suspect[row]! > 0 && side >= 6) paintNotch(context, look, x, y, side);
  context.globalAlpha = 1;
}

const glyphs = new Map<VerificationState, Path2D>();

/** Made when first painted. */
function glyphOf(state: VerificationState): Path2D {
  const glyph = glyphs.get(state) ?? new Path2D(stateGlyphs[state]);
  glyphs.set(state, glyph);
  return glyph;
}

function paintGlyph(context: CanvasRenderingContext2D, { colour }: SectionLook, state: VerificationState, x: number, y: number, side: number): void {
  if (!stateGlyphs[state]) return;
  context.save();
  context.translate(x, y);
  context.scale(side / 24, side / 24);
  context.strokeStyle = colour('bg.panel');
  context.lineWidth = Math.max(2.2, 30 / side);
  context.lineCap = 'round';
  context.lineJoin = 'round';
  context.stroke(glyphOf(state));
  context.restore();
}

/** A gap is a hole: the ground shows, with a dashed rim. */
function paintHole(context: CanvasRenderingContext2D, { colour }: SectionLook, x: number, y: number, side: number): void {
  context.fillStyle = colour('hole');
  context.fillRect(x, y, side, side);
  if (side < 5) return;
  context.strokeStyle = colour('state.failing');
  context.setLineDash([2, 2]);
  context.lineWidth = 1;
  context.strokeRect(x + 0.5, y + 0.5, side - 1, side - 1);
  context.setLineDash([]);
}

/** Suspect links: a corner is missing. */
function paintNotch(context: CanvasRenderingContext2D, { colour }: SectionLook, x: number, y: number, side: number): void {
  const size = Math.max(3, side * 0.45);
  context.fillStyle = colour('suspect');
  context.beginPath();
  context.moveTo(x + side, y);
  context.lineTo(x + side - size, y);
  context.lineTo(x + side, y + size);
  context.closePath();
  context.fill();
}
