import { type Draft, findKind, findLinkKind, isSame, phraseAt, readUseTarget, type RecipeOutcome, type Scheme, writeUseTarget } from '@coomb/core';
import type { ReqifItem } from '../reqif/build-reqif-edits.js';
import { plainText } from '../rich-text/sanitise.js';

/** How what was read back from an exported file differs from what went out. */
export interface Difference {
  /** What is not as it was, such as "Text" or "Priority". */
  what: string;
  items: { id: string; reference: string }[];
  /** The first of them: what went out, and what came back. */
  before: string;
  after: string;
  /** Both are markup: their words are the same. */
  isMarkup: boolean;
}

export interface ReadBack {
  items: { out: number; back: number };
  links: { out: number; back: number };
  pictures: { out: number; back: number };
  differences: Difference[];
}

/** Compares items that went out with the drafts that an exported file became: what is missing, what is added, and every value that is not the same. */
export function compareBack(scheme: Scheme, items: readonly ReqifItem[], outcome: RecipeOutcome): ReadBack {
  const comparison = new Comparison();
  const draftOf = matchDrafts(items, outcome.drafts);
  const referenceOf = new Map(items.flatMap((item) => (draftOf.has(item) ? [[draftOf.get(item)!.key, item.reference] as const] : [])));
  for (const item of items) {
    const draft = draftOf.get(item);
    if (draft) compareItem(scheme, comparison, item, draft, draft.parent < 0 ? null : (referenceOf.get(draft.parent) ?? ''));
    else comparison.add('Item', item, item.title, '');
  }
  const matched = new Set([...draftOf.values()].map((draft) => draft.key));
  for (const draft of outcome.drafts)
    if (!matched.has(draft.key)) comparison.add('Item that did not go out', { id: '', reference: draft.reference ?? draft.place.says }, '', draft.title);
  const links = compareLinks(scheme, comparison, items, draftOf, outcome);
  return {
    items: { out: items.length, back: draftOf.size },
    links,
    pictures: {
      out: items.reduce((sum, item) => sum + countPictures(item.html), 0),
      back: [...draftOf.values()].reduce((sum, draft) => sum + countPictures(draft.html), 0),
    },
    differences: comparison.differences,
  };
}

class Comparison {
  readonly differences: Difference[] = [];
  private readonly byName = new Map<string, Difference>();

  add(what: string, { id, reference }: { id: string; reference: string }, before: string, after: string, isMarkup = false): void {
    const known = this.byName.get(what);
    if (known) known.items.push({ id, reference });
    else {
      const difference = { what, items: [{ id, reference }], before, after, isMarkup };
      this.byName.set(what, difference);
      this.differences.push(difference);
    }
  }
}

/** By the identifier of the source where the file has it, else by reference; where names are identifiers, by a title that no other has. */
function matchDrafts(items: readonly ReqifItem[], drafts: readonly Draft[]): Map<ReqifItem, Draft> {
  const byId = new Map(drafts.flatMap((draft) => (draft.externalId === null ? [] : [[draft.externalId.toLowerCase(), draft] as const])));
  const byReference = new Map(drafts.flatMap((draft) => (draft.reference === null ? [] : [[draft.reference.toLowerCase(), draft] as const])));
  const taken = new Set<Draft>();
  const found = new Map<ReqifItem, Draft>();
  for (const item of items) {
    const own = item.externalId === null ? undefined : byId.get(item.externalId.toLowerCase());
    const draft = own ?? byId.get(`coomb-${item.id}`) ?? byReference.get(item.reference.toLowerCase());
    if (!draft || taken.has(draft)) continue;
    taken.add(draft);
    found.set(item, draft);
  }
  const titled = new Map<string, Draft | null>();
  for (const draft of drafts) if (!taken.has(draft)) titled.set(draft.title, titled.has(draft.title) ? null : draft);
  if (titled.size === 0) return found;
  const left = items.filter((item) => !found.has(item));
  for (const item of left) {
    const draft = titled.get(item.title);
    if (draft && draft.externalId !== null && draft.reference === null && left.every((other) => other === item || other.title !== item.title))
      found.set(item, draft);
  }
  return found;
}

function compareItem(scheme: Scheme, comparison: Comparison, item: ReqifItem, draft: Draft, parent: string | null): void {
  const check = (what: string, before: string, after: string) => {
    if (before !== after) comparison.add(what, item, before, after);
  };
  const checkForm = (what: string, before: string, after: string) => {
    if (formOf(before) !== formOf(after)) comparison.add(what, item, before, after, true);
  };
  check('Title', oneLine(item.title), oneLine(draft.title));
  check('Section or item', item.heading ? 'section' : 'item', draft.role);
  check('Parent', item.parent ?? 'none', parent ?? 'none');
  if (!item.heading) check('Kind', nameKind(scheme, item.kind), nameKind(scheme, draft.kind));
  const [before, after] = [wordsByLine(item.html), wordsByLine(draft.html)];
  check('Text', before, after);
  if (before === after) {
    const areThere = countPictures(item.html) === countPictures(draft.html);
    const [own, back] = areThere ? [item.html, draft.html] : [withoutPictures(item.html), withoutPictures(draft.html)];
    checkForm('Formatting of the text', own, back);
  }
  check('Pictures', String(countPictures(item.html)), String(countPictures(draft.html)));
  for (const field of findKind(scheme, item.kind)?.fields ?? []) {
    const [own, back] = [item.fields[field.id] ?? null, draft.fields[field.id] ?? null];
    if (isSame(own, back)) continue;
    if (field.type !== 'rich') check(field.label, String(own ?? ''), String(back ?? ''));
    else {
      const [words, wordsBack] = [wordsByLine(String(own ?? '')), wordsByLine(String(back ?? ''))];
      check(field.label, words, wordsBack);
      if (words === wordsBack) checkForm(`Formatting of ${field.label.toLowerCase()}`, String(own ?? ''), String(back ?? ''));
    }
  }
}

function compareLinks(
  scheme: Scheme,
  comparison: Comparison,
  items: readonly ReqifItem[],
  draftOf: ReadonlyMap<ReqifItem, Draft>,
  { drafts, links }: RecipeOutcome,
): { out: number; back: number } {
  // Told from either end, with the uses in which it holds, a link is one and the same.
  const keyOf = (linkKind: string, reversed: boolean, own: string, other: string) => {
    const use = readUseTarget(other);
    const ends = [own + (use?.ownUse ? `@${use.ownUse.join('/')}` : ''), (use?.target ?? other) + (use?.otherUse ? `@${use.otherUse.join('/')}` : '')];
    return [linkKind, ...(reversed ? ends.reverse() : ends)].join(' ').toLowerCase();
  };
  const references = new Map([...draftOf].map(([item, draft]) => [draft.key, item.reference]));
  const byExternalId = new Map(drafts.flatMap((draft) => (draft.externalId === null ? [] : [[draft.externalId, references.get(draft.key)] as const])));
  const elsewhere = new Map(items.flatMap(({ ends }) => ends.flatMap((end) => (end.elsewhere ? [[end.elsewhere, end.reference] as const] : []))));
  const nameTarget = ({ target, ownUse, otherUse }: RecipeOutcome['links'][number]) => {
    const known = byExternalId.get(target) ?? elsewhere.get(target);
    if (ownUse || otherUse) {
      const named = (path: string[] | undefined) => path?.map((one) => byExternalId.get(one) ?? one) ?? null;
      return writeUseTarget({ target: known ?? target, ownUse: named(ownUse), otherUse: named(otherUse) });
    }
    const use = known === undefined ? readUseTarget(target) : undefined;
    if (!use) return known ?? target;
    return writeUseTarget({ ...use, target: byExternalId.get(use.target) ?? use.target });
  };
  const back = new Set(links.map((link) => keyOf(link.linkKind, link.reversed, references.get(link.draft) ?? '', nameTarget(link))));
  const out = new Map<string, { item: ReqifItem; what: string; other: string }>();
  for (const item of items)
    for (const { linkKind, reversed, reference } of item.ends) {
      const kind = findLinkKind(scheme, linkKind)!;
      const key = keyOf(linkKind, reversed, item.reference, reference);
      // A link is named at its upstream end's other side, as it is read.
      if (!out.has(key)) out.set(key, { item, what: `Link: ${phraseAt(kind, reversed ? 'to' : 'from')}`, other: reference });
    }
  for (const [key, { item, what, other }] of out) if (!back.has(key)) comparison.add(what, item, other, '');
  const added = [...back].filter((key) => !out.has(key));
  for (const key of added) comparison.add('Link that did not go out', { id: '', reference: key.split(' ').slice(1).join(' to ') }, '', key);
  return { out: out.size, back: back.size - added.length };
}

const nameKind = (scheme: Scheme, id: string) => findKind(scheme, id)?.label ?? id;
const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim();
const withoutPictures = (html: string) => html.replace(/<img [^>]*>/g, '');
const countPictures = (html: string) => html.match(/<img /g)?.length ?? 0;

/** Words line by line; blanks, empty lines, how indices are written and what parts the cells of a table do not count. */
export function wordsByLine(html: string): string {
  return plainText(html)
    .normalize('NFKC')
    .replace(/−/g, '-')
    .split('\n')
    .map((line) => line.replace(/[ \t\u00a0|]+/g, ' ').trim())
    .filter(Boolean)
    .join('\n');
}

/** Markup without what makes no difference to a reader: addresses of pictures and files, wrappers of rows and of the words of list items. */
function formOf(html: string): string {
  return html
    .replace(/<img [^>]*>/g, '<img>')
    .replace(/ href="(?:\/api\/|coomb-)[^"]*"/g, ' href=""')
    .replace(/<\/?(?:thead|tbody)>/g, '')
    .replace(/<(li|td|th)([^>]*)><p>((?:(?!<\/?p>).)*)<\/p>(?=<\/\1>|<[uo]l>)/g, '<$1$2>$3')
    .replace(/<p><\/p>/g, '')
    .replace(/&quot;/g, '"')
    .replace(/[\s\u00a0]+/g, ' ')
    .replace(/ ?(<[^>]*>) ?/g, '$1')
    .trim();
}
