const NUMBERED = /^(.*?)(\d+)$/;

/** `SYS` and 42 give `SYS-042`: at least three digits, so that references line up. */
export function buildReference(prefix: string, number: number): string {
  return `${prefix}-${String(number).padStart(3, '0')}`;
}

/** The number at the end of a reference with this prefix, or undefined. */
export function findNumber(prefix: string, reference: string): number | undefined {
  const match = NUMBERED.exec(reference);
  return match && match[1]?.toLowerCase() === `${prefix}-`.toLowerCase() ? Number(match[2]) : undefined;
}

/** Compares references as people count: SYS-9 before SYS-10. */
export const compareReferences = new Intl.Collator('en', { numeric: true }).compare;
