/** Numbers of changes spread evenly from the first to the last, both among them; each once. */
export function spreadMoments(last: number, points: number): number[] {
  const at = (point: number) => Math.max(1, Math.round(1 + ((last - 1) * point) / Math.max(1, points - 1)));
  return [...new Set(Array.from({ length: points }, (_, point) => at(point)))].filter((seq) => seq <= last);
}
