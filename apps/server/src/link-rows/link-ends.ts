import { addToGroup, type DraftLink, readUseTarget } from '@coomb/core';
import type { ItemValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';

/** What a link needs to know of an item at its end. */
export type LinkEnd = Pick<ItemValue, 'id' | 'kind' | 'reference' | 'bindings' | 'title' | 'meaningSeq' | 'collectionId'>;

type Key = 'partner' | 'reference' | 'source' | 'title';

/**
 * Finds the items that a file names: those that the file itself brings come first; then what its partner knows by that identifier, whatever others
 * call so; then what is of that reference, or known so to any partner.
 */
export class LinkEnds {
  private readonly indexes = new Map<Key, Map<string, LinkEnd[]>>();
  private readonly collections: Map<string, string>;

  constructor(
    private readonly state: Pick<ProjectState, 'contents' | 'items'>,
    private readonly brought: readonly LinkEnd[],
    private readonly partner: string,
    /** Names of the files of each partner, for ends that a file names by the file that they are in. */
    private readonly fileNames: ReadonlyMap<string, ReadonlySet<string>> = new Map(),
  ) {
    this.collections = new Map(state.contents.collections.filter((one) => !one.withdrawn).map((one) => [one.name.toLowerCase(), one.id]));
  }

  /** The item that a link leads to, or how many answer to the name: none, or several of one title. */
  find({ target, by, within }: Pick<DraftLink, 'target' | 'by' | 'within'>): LinkEnd | { count: number } {
    const places = within?.length ? new Set(within.map((name) => this.collections.get(name.toLowerCase()))) : undefined;
    for (const key of KEYS[by ?? 'any']) {
      const found = (this.index(key).get(normalise(target)) ?? []).filter((end) => !places || places.has(end.collectionId));
      if (found.length === 1 || (found.length > 1 && key !== 'title')) return found[0]!;
      if (found.length > 1) return { count: found.length };
    }
    return this.findInFile(target) ?? { count: 0 };
  }

  /** An end with the uses in which a link holds only, where the text tells of such: all that it names must be there. */
  findInUse(text: string, by: DraftLink['by']): { end: LinkEnd; ownUse: string[] | null; otherUse: string[] | null } | undefined {
    const told = readUseTarget(text);
    return told && this.findUses({ ...told, by });
  }

  /** The same where the uses are told apart from the end. */
  findUses(told: {
    target: string;
    by?: DraftLink['by'];
    ownUse?: string[] | null;
    otherUse?: string[] | null;
  }): { end: LinkEnd; ownUse: string[] | null; otherUse: string[] | null } | undefined {
    const end = this.find(told);
    if ('count' in end) return undefined;
    const idsOf = (names: string[] | null | undefined) => {
      const ends = (names ?? []).map((target) => this.find({ target }));
      return ends.some((one) => 'count' in one) ? undefined : ends.map((one) => (one as LinkEnd).id);
    };
    const [ownUse, otherUse] = [idsOf(told.ownUse), idsOf(told.otherUse)];
    if (!ownUse || !otherUse) return undefined;
    return { end, ownUse: told.ownUse ? ownUse : null, otherUse: told.otherUse ? otherUse : null };
  }

  /** An end by its file and its identifier there: "hydraulics.xmi#_b12". A file that was renamed is taken where the identifier is like no other. */
  private findInFile(target: string): LinkEnd | undefined {
    const hash = target.lastIndexOf('#');
    if (hash <= 0) return undefined;
    const name = normalise(target.slice(hash + 1));
    const file = baseName(target.slice(0, hash));
    const found = this.index('source').get(name) ?? [];
    const isOfFile = ({ bindings }: LinkEnd) =>
      bindings.some(({ partner, externalId }) => externalId !== null && normalise(externalId) === name && this.fileNames.get(partner)?.has(file));
    return found.find(isOfFile) ?? (found.length === 1 && name.length >= TELLING && !name.includes('/') ? found[0] : undefined);
  }

  /** By what names an item, made when first asked for. */
  private index(key: Key): Map<string, LinkEnd[]> {
    let index = this.indexes.get(key);
    if (index) return index;
    this.indexes.set(key, (index = new Map()));
    const brought = new Set(this.brought.map((end) => end.id));
    for (const end of this.brought) this.enter(index, key, end);
    for (const end of this.state.items) if (!end.withdrawn && !brought.has(end.id)) this.enter(index, key, end);
    return index;
  }

  private namesOf(key: Key, end: LinkEnd): string[] {
    if (key === 'reference') return [end.reference];
    if (key === 'title') return end.title ? [end.title] : [];
    return end.bindings.flatMap(({ partner, externalId }) => (externalId !== null && (key === 'source' || partner === this.partner) ? [externalId] : []));
  }

  private enter(index: Map<string, LinkEnd[]>, key: Key, end: LinkEnd): void {
    for (const name of this.namesOf(key, end)) addToGroup(index, normalise(name), end);
  }
}

/** Names that are looked through for what a link says it is known by; where it says nothing, each in turn. */
const KEYS: Record<NonNullable<DraftLink['by']> | 'any', readonly Key[]> = {
  reference: ['reference'],
  source: ['partner', 'source'],
  title: ['title'],
  any: ['partner', 'reference', 'source'],
};

/** An identifier of as many characters, which is no place in a tree, is hardly given twice. */
const TELLING = 12;

/** The last part of an address, as file names are compared. */
export function baseName(address: string): string {
  return normalise(decode(address).replace(/^.*[/\\]/, ''));
}

function decode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

function normalise(name: string): string {
  return name.trim().replace(/\s+/g, ' ').toLowerCase();
}
