import type { FieldValue } from '../fields/field-value.js';
import type { Scheme } from '../scheme/scheme.js';
import type { ColourKey } from './colour-key.js';
import { sayValue } from './read-column.js';
import type { Shown } from './register.js';
import type { Offer } from './shows/show.js';

/** What is told of a link. */
export interface LinkTold {
  /** Number of its kind in the scheme. */
  kind: number;
  suspect: boolean;
  fields: Readonly<Record<string, FieldValue>>;
}

interface LinkShow {
  sort: string;
  offers: (scheme: Scheme) => Offer[];
  read: (scheme: Scheme, link: LinkTold, of: string) => FieldValue | null;
}

/** Whether an end changed since somebody vouched for it, as keys and lists say it. */
const standings = ['confirmed', 'suspect'] as const;

/** What links can be coloured by. A further one is a line here. */
const linkShows: readonly LinkShow[] = [
  {
    sort: 'linkKind',
    offers: ({ linkKinds }) => [{ label: 'Kind of link', type: 'choice', values: linkKinds.filter(({ retired }) => !retired).map(({ phrase }) => phrase) }],
    read: ({ linkKinds }, { kind }) => linkKinds[kind]?.phrase ?? null,
  },
  {
    sort: 'linkStanding',
    offers: () => [{ label: 'Confirmed or suspect', type: 'choice', values: standings }],
    read: (_, { suspect }) => standings[suspect ? 1 : 0],
  },
  {
    sort: 'linkField',
    offers: ({ linkKinds }) => {
      const found = new Map<string, Offer>();
      for (const { fields = [] } of linkKinds)
        for (const { id, label, options, type } of fields)
          found.set(id, { of: id, label: `Field of links: ${label}`, type: type === 'number' ? 'number' : 'choice', ...(options && { values: options }) });
      return [...found.values()];
    },
    read: (_, { fields }, of) => fields[of] ?? null,
  },
];

export const linkOffers = (scheme: Scheme): (Offer & { sort: string })[] =>
  linkShows.flatMap(({ sort, offers }) => offers(scheme).map((offer) => ({ ...offer, sort })));

export const findLinkOffer = (scheme: Scheme, { sort, of }: Shown): Offer | undefined =>
  linkOffers(scheme).find((one) => one.sort === sort && (one.of ?? '') === (of ?? ''));

/** Which entry colours a link, and what it says where none does. Nothing where the key asks for what is not in the project. */
export function linkColourerOf(scheme: Scheme, key: ColourKey): ((link: LinkTold) => { entry: number; value: string }) | undefined {
  const [show, offer] = [linkShows.find(({ sort }) => sort === key.shown.sort), findLinkOffer(scheme, key.shown)];
  if (!show || !offer) return undefined;
  const placeOf = new Map(key.entries.map(({ value }, place) => [value.toLowerCase(), place]));
  return (link) => {
    const read = show.read(scheme, link, key.shown.of ?? '');
    const value = read === null ? '' : sayValue(read);
    if (!key.ranges || value === '') {
      const values = Array.isArray(read) ? (read as readonly string[]) : [value];
      const found = values.flatMap((one) => placeOf.get(one.toLowerCase()) ?? []);
      return { entry: found.length > 0 ? Math.min(...found) : -1, value };
    }
    return { entry: key.entries.findIndex(({ value: bound }) => bound === '' || Number(read) <= Number(bound)), value };
  };
}
