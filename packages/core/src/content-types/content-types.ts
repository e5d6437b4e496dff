import type { ContentOf, ContentType } from './content-type.js';
import { document } from './document.js';
import { exchange } from './exchange.js';
import { model } from './model.js';
import { sheets } from './sheets.js';

const list = [document, sheets, exchange, model] as const;

/** What a file holds that items can be made of. */
export type ItemContent = { [K in keyof typeof list]: ContentOf<(typeof list)[K]> }[number];

/** A sort of content whatever its content and recipe are: the two come from the same sort, which `contentTypeOf` sees to. */
// biome-ignore lint/suspicious/noExplicitAny: see above.
export type AnyContentType = ContentType<string, any, any>;

/** Every sort of content that items are made of. */
export const contentTypes: readonly AnyContentType[] = list;

export const contentTypeOf = (type: string, among = contentTypes): AnyContentType => {
  const found = among.find((one) => one.type === type);
  if (!found) throw new RangeError(`No items can be made of ${type}`);
  return found;
};

/** The sort that kept recipes of a name read, or that a stored recipe is for that does not say it. */
export const contentTypeReading = (reads: string): AnyContentType | undefined => contentTypes.find((one) => one.reads === reads);
export const contentTypeOwning = (recipe: object): AnyContentType | undefined => contentTypes.find((one) => one.owns(recipe));
