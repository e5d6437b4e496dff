/** Geometry of the section: one stripe per layer, bent like strata in a valley; one square cell per item in outline order. */
export interface Stripe {
  layer: number;
  /** Outline rows of the items, in reading order. */
  rows: number[];
  /** Top of the stripe at the left edge. */
  top: number;
  height: number;
  perLine: number;
}

export interface SectionLayout {
  width: number;
  height: number;
  /** Side of a cell with its gap. */
  cell: number;
  stripes: Stripe[];
  /** Stripe and place of each outline row, or undefined for headings. */
  placeOf: Map<number, { stripe: number; index: number }>;
}

const LABEL = 20;
const MARGIN = 10;
/** Threads need room to be told apart. */
const LEAST_SEAM = 46;
const LARGEST_CELL = 34;

/** How far the ground dips at `x`. */
export function dipAt(layout: { width: number }, x: number): number {
  return 26 * Math.sin((Math.PI * x) / Math.max(1, layout.width));
}

/** Finds the largest cells with which all stripes and the seams between them fit. */
export function buildSectionLayout(rowsByLayer: number[][], width: number, height: number): SectionLayout {
  const inner = Math.max(10, width - 2 * MARGIN);
  const room = height - 26 - 2 * MARGIN;
  let cell = LARGEST_CELL;
  const linesFor = (count: number, size: number) => Math.max(1, Math.ceil(count / Math.max(1, Math.floor(inner / size))));
  const needed = (size: number) =>
    rowsByLayer.reduce((sum, rows) => sum + linesFor(rows.length, size) * size + LABEL, 0) + LEAST_SEAM * (rowsByLayer.length - 1);
  while (cell > 2 && needed(cell) > room) cell -= cell > 8 ? 1 : 0.5;
  const spare = Math.max(0, room - needed(cell));
  const seam = LEAST_SEAM + (rowsByLayer.length > 1 ? spare / (rowsByLayer.length - 1) : 0);
  const perLine = Math.max(1, Math.floor(inner / cell));
  const placeOf: SectionLayout['placeOf'] = new Map();
  let top = MARGIN;
  const stripes = rowsByLayer.map((rows, layer): Stripe => {
    rows.forEach((row, index) => placeOf.set(row, { stripe: layer, index }));
    const stripe = { layer, rows, top: top + LABEL, height: linesFor(rows.length, cell) * cell, perLine };
    top += LABEL + stripe.height + seam;
    return stripe;
  });
  return { width, height, cell, stripes, placeOf };
}

/** Top left corner of a cell. */
export function cellAt(layout: SectionLayout, stripe: Stripe, index: number): { x: number; y: number } {
  const x = MARGIN + (index % stripe.perLine) * layout.cell;
  return { x, y: stripe.top + Math.floor(index / stripe.perLine) * layout.cell + dipAt(layout, x) };
}

export function centreOf(layout: SectionLayout, row: number): { x: number; y: number; stripe: number } | undefined {
  const place = layout.placeOf.get(row);
  if (!place) return undefined;
  const { x, y } = cellAt(layout, layout.stripes[place.stripe]!, place.index);
  return { x: x + layout.cell / 2, y: y + layout.cell / 2, stripe: place.stripe };
}

/** The outline row under a point, or undefined. */
export function findRowAt(layout: SectionLayout, x: number, y: number): number | undefined {
  const column = Math.floor((x - MARGIN) / layout.cell);
  if (column < 0) return undefined;
  const left = MARGIN + column * layout.cell;
  for (const stripe of layout.stripes) {
    if (column >= stripe.perLine) continue;
    const line = Math.floor((y - stripe.top - dipAt(layout, left)) / layout.cell);
    if (line < 0 || line * layout.cell >= stripe.height) continue;
    return stripe.rows[line * stripe.perLine + column];
  }
  return undefined;
}

/** Rows whose cells lie within a rectangle. */
export function findRowsIn(layout: SectionLayout, box: { left: number; top: number; right: number; bottom: number }): number[] {
  const found: number[] = [];
  for (const stripe of layout.stripes)
    stripe.rows.forEach((row, index) => {
      const { x, y } = cellAt(layout, stripe, index);
      if (x + layout.cell > box.left && x < box.right && y + layout.cell > box.top && y < box.bottom) found.push(row);
    });
  return found;
}
