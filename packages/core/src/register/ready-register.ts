import type { Scheme } from '../scheme/scheme.js';
import type { Column, RegisterWhat, Shown, WayStep } from './register.js';
import { sayColumn } from './say-register.js';
import { shows } from './shows/shows.js';

const nothing = { conditions: [], match: 'all', sort: [], group: [], shape: 'list' } as const satisfies Partial<RegisterWhat>;

/** A column with an id that none of the others has. */
export function addColumn(columns: readonly Column[], { way, shown, as }: Pick<Column, 'way' | 'shown' | 'as'>): Column {
  const base = [...way.map(({ end, linkKind }) => `${end}.${linkKind}`), shown.sort, ...(shown.of ? [shown.of] : [])].join('-').slice(0, 50);
  let id = base;
  for (let at = 2; columns.some((one) => one.id === id); at++) id = `${base}~${at}`;
  return { id, way: [...way], shown, as };
}

/** The register that a kind has until somebody makes another: its fields, its state, and what it is linked with. */
export function readyRegister(scheme: Scheme, kindId: string | undefined): RegisterWhat {
  const kind = scheme.kinds.find(({ id }) => id === kindId);
  const shown: Shown[] = [{ sort: 'reference' }, { sort: 'title' }];
  if (!kind) shown.push({ sort: 'kind' }, { sort: 'collection' });
  if (!kind?.informative) shown.push({ sort: 'state' });
  for (const { id, type } of kind?.fields ?? []) if (type !== 'rich') shown.push({ sort: 'field', of: id });
  const columns: Column[] = [];
  for (const one of shown) columns.push(addColumn(columns, { way: [], shown: one, as: 'list' }));
  for (const { id, fromKinds, toKinds, retired } of scheme.linkKinds) {
    if (!kind || retired) continue;
    for (const [end, kinds] of [
      ['from', fromKinds],
      ['to', toKinds],
    ] as const)
      if (kinds.includes(kind.id)) columns.push(addColumn(columns, { way: [{ linkKind: id, end }], shown: { sort: 'reference' }, as: 'list' }));
  }
  columns.push(addColumn(columns, { way: [], shown: { sort: 'changedAt' }, as: 'list' }));
  return { ...nothing, conditions: [], sort: [], group: [], kinds: kind ? [kind.id] : [], columns };
}

/** Ways of so many steps that items of some kinds can be followed along. */
function waysFrom(scheme: Scheme, kinds: readonly string[], steps: number): { way: WayStep[]; to: string[] }[] {
  if (steps === 0) return [];
  const found: { way: WayStep[]; to: string[] }[] = [];
  for (const { id, fromKinds, toKinds, retired } of scheme.linkKinds) {
    if (retired) continue;
    for (const [end, own, others] of [
      ['from', fromKinds, toKinds],
      ['to', toKinds, fromKinds],
    ] as const) {
      if (kinds.length > 0 && !kinds.some((kind) => own.includes(kind))) continue;
      const step: WayStep = { linkKind: id, end };
      found.push({ way: [step], to: others }, ...waysFrom(scheme, others, steps - 1).map(({ way, to }) => ({ way: [step, ...way], to })));
    }
  }
  return found;
}

const STEPS_PROPOSED = 2;

/** Every way and column that may be meant by some words, the shortest first: each word must stand in its name. */
export function proposeColumns(scheme: Scheme, kinds: readonly string[], words: string, most = 12): Omit<Column, 'id'>[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const own = [{ way: [] as WayStep[], to: [...kinds] }, ...waysFrom(scheme, kinds, STEPS_PROPOSED)].sort((a, b) => a.way.length - b.way.length);
  const found: Omit<Column, 'id'>[] = [];
  for (const { way, to } of own)
    for (const show of shows) {
      if (way.length > 0 && show.sort === 'text') continue;
      for (const { of, values } of show.offers(scheme)) {
        if (show.sort === 'field' && to.length > 0 && !scheme.kinds.some((kind) => to.includes(kind.id) && kind.fields.some(({ id }) => id === of))) continue;
        const shown = { sort: show.sort, ...(of !== undefined && { of }) };
        const base = { way, shown };
        const forms: Omit<Column, 'id'>[] = [{ ...base, as: 'list' }];
        if (way.length > 0 && values) forms.push({ ...base, as: 'worst' });
        if (way.length > 0 && show.sort === 'reference') forms.push({ ...base, as: 'count' });
        for (const form of forms) {
          const name = sayColumn(scheme, form).toLowerCase();
          if (wanted.every((word) => name.includes(word))) found.push(form);
          if (found.length >= most) return found;
        }
      }
    }
  return found;
}
