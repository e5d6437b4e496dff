import { defaultScheme } from '../scheme/starters/index.js';
import { takeApart } from '../scheme/scheme-part.js';
import { writeSchemeFile, type SchemeFile } from '../scheme/scheme-file.js';

const VOWELS: Record<string, string> = { a: 'o', e: 'u', i: 'a', o: 'e', u: 'i' };

/** A word that nobody's code knows: "requirement" becomes "zruqaarumunt". */
const strange = (word: string) => `z${word.toLowerCase().replace(/[aeiou]/g, (vowel) => VOWELS[vowel]!)}`;
const strangeKey = (key: string) => (key === '' ? '' : `k${strange(key).replaceAll(' ', '')}`);

/** The usual scheme in which every key and every label is another: only what its parts are taken for is the same. Options stay, for they are values of files. */
export function buildStrangeScheme(): SchemeFile {
  const file = writeSchemeFile('Strange', takeApart(defaultScheme));
  const keys = (list: readonly string[]) => list.map(strangeKey);
  return {
    ...file,
    layers: file.layers.map(({ key, label }) => ({ key: strangeKey(key), label: strange(label) })),
    kinds: file.kinds.map(({ key, label, plural, layer, ...kind }) => ({
      ...{ key: strangeKey(key), label: strange(label), plural: strange(plural), layer: strangeKey(layer) },
      ...kind,
    })),
    fields: file.fields.map(({ key, label, kinds, linkKinds, ...field }) => ({
      ...{ key: strangeKey(key), label: strange(label), ...field, kinds: keys(kinds) },
      ...(linkKinds && { linkKinds: keys(linkKinds) }),
    })),
    linkKinds: file.linkKinds.map(({ key, phrase, reverse, fromKinds, toKinds, ...link }) => ({
      ...{ key: strangeKey(key), phrase: strange(phrase), reverse: `${strange(reverse)} back`, fromKinds: keys(fromKinds), toKinds: keys(toKinds) },
      ...link,
    })),
    rules: file.rules.map(({ key, label, of, along, reach, ...rule }) => ({
      ...{ key: strangeKey(key), label: strange(label), of: { kinds: keys(of.kinds) }, reach: { kinds: keys(reach.kinds) } },
      along: along.map(({ linkKind, direction }) => ({ linkKind: strangeKey(linkKind), direction })),
      ...rule,
    })),
    verification: {
      of: { kinds: keys(file.verification.of.kinds) },
      verifies: strangeKey(file.verification.verifies),
      derives: file.verification.derives === null ? null : strangeKey(file.verification.derives),
      waivedBy: strangeKey(file.verification.waivedBy),
    },
  };
}
