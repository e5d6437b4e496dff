const MOST = 3;

/** A few by name, and how many more there are: "A, B, C and 4 more". */
export function listSome(names: readonly string[]): string {
  const more = names.length - MOST;
  return more > 0 ? `${names.slice(0, MOST).join(', ')} and ${more} more` : names.join(', ');
}
