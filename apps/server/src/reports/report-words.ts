import type { ReportBody } from '@coomb/contract';

/** A moment as a report says it, in UTC. */
export const sayDate = (iso: string): string =>
  new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short', timeZone: 'UTC' }).format(new Date(iso));

/** "System requirements, sections Gates and Gauges". */
export function describeParts(parts: NonNullable<ReportBody['parts']>): string {
  const names = parts.collections.map((one) => one.name).join(', ');
  const sections = parts.sections.map((one) => `“${one.title}”`).join(', ');
  return [names, sections && `${parts.sections.length === 1 ? 'section' : 'sections'} ${sections}`].filter(Boolean).join('; ');
}
