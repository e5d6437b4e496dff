import type { ReportBody } from '@coomb/contract';
import type { Coat } from '@coomb/core';

/** How references look by the colour key that a report was published with. */
export function coatsOf({ colours }: ReportBody): (reference: string) => Coat | undefined {
  const coats = new Map(colours?.items.flatMap((references, entry) => references.map((reference) => [reference, colours.entries[entry]!] as const)));
  return (reference) => coats.get(reference);
}

/** Colours were checked on the way in; what a stored report says otherwise stays out of what is made of it. */
export const isColour = (text: string | undefined): text is string => text !== undefined && /^#[0-9a-f]{6}$/i.test(text);
