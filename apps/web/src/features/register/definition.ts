import { registerWhatSchema, registerWhereSchema } from '@coomb/contract';
import { readyRegister, type RegisterWhat, type RegisterWhere, type Scheme } from '@coomb/core';

const nowhere: RegisterWhere = { collections: [], below: [] };

/** What an address shows: what is written in it, else the ready register of the kind it names, else that of the first kind. */
export function readWhat(scheme: Scheme, text: string, kind: string): RegisterWhat {
  const written = text ? registerWhatSchema.safeParse(parse(text)) : undefined;
  if (written?.success) return written.data;
  const first = kind || scheme.verification.of.kinds[0] || scheme.kinds[0]?.id;
  return readyRegister(scheme, scheme.kinds.some(({ id }) => id === first) ? first : undefined);
}

export function readWhere(text: string): RegisterWhere {
  const written = text ? registerWhereSchema.safeParse(parse(text)) : undefined;
  return written?.success ? written.data : nowhere;
}

/** As an address keeps it: short, as far as it goes. */
export const writeWhere = (where: RegisterWhere): string =>
  where.collections.length + where.below.length + (where.usedIn?.length ?? 0) === 0 && !where.lens ? '' : JSON.stringify(where);

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** The column sorted by another way, or by one more where `also`: up, down, not at all. */
export function sortBy(what: RegisterWhat, column: string, also: boolean): RegisterWhat['sort'] {
  const known = what.sort.find((one) => one.column === column);
  const others = also ? what.sort.filter((one) => one.column !== column) : [];
  if (!known) return [...others, { column, descending: false }];
  return known.descending ? others : [...others, { column, descending: true }];
}
