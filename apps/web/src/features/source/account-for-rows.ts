/** How many rows of a sheet hold something, and which of them became nothing of their own; `placed` has the rows that became items or sections. */
export function accountForRows(rows: readonly (readonly string[])[], placed: { has: (row: number) => boolean }): { filled: number; open: number[] } {
  const filled = rows.flatMap((row, at) => (row.some((cell) => cell.trim()) ? [at] : []));
  return { filled: filled.length, open: filled.filter((row) => !placed.has(row)) };
}
