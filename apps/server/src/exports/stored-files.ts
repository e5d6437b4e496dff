import type { ReqifItem } from '@coomb/formats';

/** An address of a stored file in rich text: what stands before it, its attribute, its id. */
const STORED = /(<(?:img|a) (src|href)=")\/api\/projects\/[^/"]+\/files\/([^"]+)"/g;

/** Ids of the stored pictures and other files that texts name. */
export function findStored(items: readonly ReqifItem[]): string[] {
  return [...new Set(items.flatMap((item) => richTexts(item).flatMap((html) => [...html.matchAll(STORED)].map((match) => match[3]!))))];
}

/** Items whose texts name stored files by another address; those without one stay as they are. */
export function replaceStored(items: readonly ReqifItem[], addressOf: (id: string, attribute: 'src' | 'href') => string | undefined): ReqifItem[] {
  const place = (html: string) =>
    html.replace(STORED, (whole, start: string, attribute: 'src' | 'href', id: string) => {
      const address = addressOf(id, attribute);
      return address === undefined ? whole : `${start}${address}"`;
    });
  return items.map((item) => ({
    ...item,
    html: place(item.html),
    fields: Object.fromEntries(Object.entries(item.fields).map(([field, value]) => [field, typeof value === 'string' ? place(value) : value])),
  }));
}

function richTexts({ html, fields }: ReqifItem): string[] {
  return [html, ...Object.values(fields).filter((value) => typeof value === 'string')];
}
