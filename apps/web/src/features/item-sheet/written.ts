import type { FieldValue, Kind } from '@coomb/core';

export interface Text {
  title: string;
  html: string;
  fields: Record<string, FieldValue>;
}

/** Parts of an item that somebody changed. */
export type Written = Partial<Text>;

/** What of a text differs from what it was begun on; fields one by one, a cleared one as null. Without a kind fields are left alone. */
export function findWritten(before: Text, now: Text, kind: Kind | undefined): Written {
  const fields = (kind?.fields ?? []).flatMap(({ id }) => (isSame(before.fields[id], now.fields[id]) ? [] : [[id, now.fields[id] ?? null] as const]));
  return {
    ...(now.title.trim() !== before.title && { title: now.title }),
    ...(now.html !== before.html && { html: now.html }),
    ...(fields.length > 0 && { fields: Object.fromEntries(fields) }),
  };
}

function isSame(before: FieldValue | undefined, now: FieldValue | undefined): boolean {
  return isEmpty(before) && isEmpty(now) ? true : JSON.stringify(before) === JSON.stringify(now);
}

const isEmpty = (value: FieldValue | undefined) => value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0);
