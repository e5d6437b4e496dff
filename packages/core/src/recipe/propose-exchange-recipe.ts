import { tableOf } from '../records/table-of.js';
import type { LinkRole } from '../scheme/role-names.js';
import { getUsualKind } from '../scheme/roles.js';
import { offeredKinds, offeredLinkKinds, type Scheme } from '../scheme/scheme.js';
import type { ExchangeDocument, ExchangeType } from '../source/exchange.js';
import { LONGEST_REFERENCE } from './propose-by-values.js';
import { splitReferences } from './field-value.js';
import type { ExchangeMeaning, ExchangeRecipe } from './exchange-recipe.js';
import { proposeMeaning } from './propose-meaning.js';
import { KindNames } from './row-kind.js';

/** Attribute names that the ReqIF implementation guide reserves, and what they mean. */
const RESERVED = tableOf<ExchangeMeaning>({
  'reqif.foreignid': { as: 'reference' },
  'reqif.name': { as: 'title' },
  'reqif.text': { as: 'text' },
  'reqif.chaptername': { as: 'heading' },
});

/** A first recipe, from the names of types, attributes and relations. */
export function proposeExchangeRecipe(scheme: Scheme, document: ExchangeDocument, kind = getUsualKind(scheme).id): ExchangeRecipe {
  return {
    name: 'Proposed from the file',
    types: document.types.map((type) => {
      const own = proposeKind(scheme, type, kind);
      return { type: type.id, name: type.name, kind: own, attributes: proposeAttributes(scheme, own, type, document) };
    }),
    relations: document.relationTypes.map(({ id, name }) => ({ type: id, name, ...proposeLink(scheme, name) })),
  };
}

function proposeKind(scheme: Scheme, type: ExchangeType, usual: string): string {
  const name = type.name.toLowerCase();
  const found = offeredKinds(scheme).find((kind) => name.includes(kind.label.toLowerCase()));
  return found && !found.informative ? found.id : usual;
}

/** Values of an attribute that are looked at. */
const LOOKED_AT = 400;

/** By name; where a kind or links would be read from values, the values must bear it out. */
function proposeAttributes(
  scheme: Scheme,
  kind: string,
  type: ExchangeType,
  document: ExchangeDocument,
): { id: string; name: string; meaning: ExchangeMeaning }[] {
  const own = document.objects.filter((object) => object.type === type.id).slice(0, LOOKED_AT);
  const kinds = new KindNames(scheme);
  return type.attributes.map(({ id, name }) => {
    const reserved = RESERVED[name.toLowerCase()];
    if (reserved) return { id, name, meaning: reserved };
    const meaning = proposeMeaning(scheme, kind, name.replace(/^ReqIF\./i, ''));
    const most = (holds: (value: string) => boolean) => {
      const values = own.flatMap((object) => object.values[id] ?? []).filter((value) => value.trim());
      return values.filter(holds).length * 2 >= values.length;
    };
    const isBorne =
      meaning.as === 'kind'
        ? most((value) => kinds.find(value, kind) !== undefined)
        : meaning.as === 'link'
          ? most((value) => splitReferences(value).every((one) => one.length <= LONGEST_REFERENCE && /\d/.test(one)))
          : meaning.as !== 'parent' && meaning.as !== 'number';
    return { id, name, meaning: isBorne ? meaning : { as: 'ignore' } };
  });
}

/** Words of relations by what they say, beside those of the scheme's own phrases. */
const STEMS: Record<LinkRole, string> = {
  verifies: 'verif',
  satisfies: 'satis',
  refines: 'refin',
  derives: 'deriv',
  allocates: 'alloc',
  realises: 'reali',
  leads: 'preced',
  composes: 'compo',
  types: 'typed',
  depends: 'depen',
};

/** By the words of the link kinds themselves, else by what part they play; "trace" and the like are left for the person to say. */
function proposeLink(scheme: Scheme, name: string): { linkKind: string | null; reversed: boolean } {
  const words = name.toLowerCase().replace(/[^a-z]+/g, ' ');
  const kinds = offeredLinkKinds(scheme);
  const found = kinds.find((kind) => saysPhrase(words, kind.phrase)) ?? kinds.find((kind) => kind.role && words.includes(STEMS[kind.role]));
  return found ? { linkKind: found.id, reversed: /\b(is|are) \w+ by\b/.test(words) } : { linkKind: null, reversed: false };
}

/** Whether a name holds the beginning of a phrase's longest word, if that word is long enough to tell anything. */
function saysPhrase(words: string, phrase: string): boolean {
  const [longest = ''] = phrase
    .toLowerCase()
    .split(/[^a-z]+/)
    .sort((a, b) => b.length - a.length);
  return longest.length >= 5 && words.includes(longest.slice(0, 5));
}
