/** Number of the newest change of each project that this page has shown: what is done here is based on it. */
const seen = new Map<string, number>();

export function noteSeen(project: string, seq: number): void {
  if (seq > (seen.get(project) ?? 0)) seen.set(project, seq);
}

/** Another life of the data counts from elsewhere. */
export function forgetSeen(project: string): void {
  seen.delete(project);
}

export function lastSeen(project: string): number | undefined {
  return seen.get(project);
}
