import type { ComparedRow } from '@coomb/contract';
import { buildWordDiff, type FieldValue, fieldTypeOf, findKind, findLinkKind, isNoValue, type Scheme } from '@coomb/core';
import { plainText } from '@coomb/formats';
import type { ItemValue, LinkValue } from '../ledger/change.js';

export type Did = ComparedRow['did'];

/** What became of a row between two moments; nothing where it is as it was, or was and is not there. */
export function didOf<Row extends { withdrawn: boolean }>(
  then: Row | null | undefined,
  now: Row | undefined,
  isSame: (then: Row, now: Row) => Did | undefined,
): Did | undefined {
  const [was, is] = [then && !then.withdrawn ? then : undefined, now && !now.withdrawn ? now : undefined];
  if (!was || !is) return was ? 'went' : is ? 'came' : undefined;
  return isSame(was, is);
}

const sameValue = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** Whether an item says something else, or only stands elsewhere. */
export function becameOfItem(then: ItemValue, now: ItemValue): Did | undefined {
  const fields = new Set([...Object.keys(then.fields), ...Object.keys(now.fields)]);
  const says = then.title !== now.title || then.html !== now.html || then.kind !== now.kind || then.reference !== now.reference;
  if (says || [...fields].some((field) => !sameValue(then.fields[field], now.fields[field]))) return 'changed';
  return then.parentId !== now.parentId || then.collectionId !== now.collectionId ? 'moved' : undefined;
}

/** Whether a link is of another kind, hangs on another item, or says something else. */
export function becameOfLink(then: LinkValue, now: LinkValue): Did | undefined {
  const isSame = then.kind === now.kind && then.fromId === now.fromId && then.toId === now.toId && sameValue(then.fields, now.fields);
  return isSame && then.fromUsage === now.fromUsage && then.toUsage === now.toUsage ? undefined : 'changed';
}

type Parts = ComparedRow['parts'];

const difference = (part: string, before: string, after: string): Parts => (before === after ? [] : [{ part, words: buildWordDiff(before, after) }]);

/** What is different between two values of an item, part by part. What came or went is told whole. */
export function itemParts(scheme: Scheme, then: ItemValue | undefined, now: ItemValue | undefined, placeOf: (row: ItemValue) => string): Parts {
  const text = (row: ItemValue | undefined) => (row ? plainText(row.html) : '');
  const kind = (row: ItemValue | undefined) => (row ? (findKind(scheme, row.kind)?.label ?? row.kind) : '');
  const fields = findKind(scheme, (now ?? then)!.kind)?.fields ?? [];
  const parts = [
    ...difference('Title', then?.title ?? '', now?.title ?? ''),
    ...difference('Text', text(then), text(now)),
    ...(then && now ? difference('Kind', kind(then), kind(now)) : []),
    ...(then && now ? difference('Reference', then.reference, now.reference) : []),
    ...fields.flatMap((field) => difference(field.label, sayField(field.type, then?.fields[field.id]), sayField(field.type, now?.fields[field.id]))),
    ...(then && now && (then.parentId !== now.parentId || then.collectionId !== now.collectionId) ? difference('Place', placeOf(then), placeOf(now)) : []),
  ];
  if (parts.length === 0 && then && now && then.html !== now.html) return [{ part: 'Text', words: [{ type: 'same', text: 'The same words in another form' }] }];
  return parts;
}

function sayField(type: Parameters<typeof fieldTypeOf>[0], value: FieldValue | undefined): string {
  if (value === undefined || isNoValue(value)) return '';
  const { rich, write } = fieldTypeOf(type);
  return rich ? plainText(write(value)) : write(value);
}

/** What is different of a link that stayed. */
export function linkParts(scheme: Scheme, then: LinkValue, now: LinkValue, nameOf: (id: string) => string): Parts {
  const kind = (row: LinkValue) => findLinkKind(scheme, row.kind)?.phrase ?? row.kind;
  const fields = findLinkKind(scheme, now.kind)?.fields ?? [];
  return [
    ...difference('Kind', kind(then), kind(now)),
    ...difference('From', nameOf(then.fromId), nameOf(now.fromId)),
    ...difference('To', nameOf(then.toId), nameOf(now.toId)),
    ...fields.flatMap((field) => difference(field.label, sayField(field.type, then.fields[field.id]), sayField(field.type, now.fields[field.id]))),
  ];
}
