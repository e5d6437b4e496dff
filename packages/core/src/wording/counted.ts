/** Made once: it takes longer than thousands of figures. */
const FIGURES = new Intl.NumberFormat('en-GB');

/** A number as people read it: 22,500. */
export function figure(count: number): string {
  return FIGURES.format(count);
}

/** A number with what it counts: "1 link", "1,436 links". `many` where the plural is not made by an s. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${figure(count)} ${count === 1 ? one : many}`;
}

/** A share in per cent for people: no share but none reads "0 %", none but the whole "100 %". */
export function sharePercent(part: number, whole: number): string {
  if (whole === 0) return '–';
  const percent = (100 * part) / whole;
  if (part > 0 && percent < 1) return '< 1 %';
  if (part < whole && percent > 99) return '> 99 %';
  return `${Math.round(percent)} %`;
}
