import type { ComparedRow } from '@coomb/contract';
import { defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import type { ItemValue, LinkValue } from '../ledger/change.js';
import { becameOfItem, becameOfLink, didOf, itemParts, linkParts } from './compare-rows.js';

// Only what is compared is said of them.
const item = (change: Partial<ItemValue> = {}) =>
  ({
    title: 'Level',
    html: '<p>Hold it.</p>',
    kind: 'requirement',
    reference: 'SYS-1',
    fields: {},
    parentId: null,
    collectionId: 'a',
    withdrawn: false,
    ...change,
  }) as ItemValue;
const link = (change: Partial<LinkValue> = {}) =>
  ({ kind: 'verifies', fromId: 't', toId: 'r', fields: {}, fromUsage: null, toUsage: null, withdrawn: false, ...change }) as LinkValue;
const said = (parts: ComparedRow['parts']) => parts.map(({ part, words }) => [part, ...words.map(({ type, text }) => `${type} ${text}`)]);
const placeOf = ({ parentId, collectionId }: ItemValue) => parentId ?? collectionId;

describe('what became of a row', () => {
  const became = () => 'changed' as const;

  it('is that it came or went by whether it was there, withdrawn or not yet made', () => {
    const gone = { withdrawn: true };
    const there = { withdrawn: false };
    expect([didOf(null, there, became), didOf(gone, there, became), didOf(there, gone, became), didOf(there, undefined, became)]).toEqual([
      'came',
      'came',
      'went',
      'went',
    ]);
    expect([didOf(null, gone, became), didOf(gone, gone, became), didOf(null, undefined, became), didOf(there, there, () => undefined)]).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });

  it('is a change of what an item says, before where it stands', () => {
    expect(becameOfItem(item(), item())).toBeUndefined();
    expect(becameOfItem(item(), item({ parentId: 'p' }))).toBe('moved');
    expect(becameOfItem(item(), item({ parentId: 'p', title: 'Other' }))).toBe('changed');
    expect(becameOfItem(item(), item({ fields: { priority: 'High' } }))).toBe('changed');
    expect(becameOfItem(item({ fields: { priority: null } }), item())).toBeUndefined();
    expect(becameOfLink(link(), link({ toUsage: 'u' }))).toBe('changed');
    expect(becameOfLink(link(), link())).toBeUndefined();
  });
});

describe('the parts that are different', () => {
  it('are told by words, with fields as they are called and places by their names', () => {
    const now = item({ title: 'Upper level', html: '<p>Hold <b>it</b>.</p>', fields: { priority: 'High' }, parentId: 'Flood' });
    expect(said(itemParts(defaultScheme, item(), now, placeOf))).toEqual([
      ['Title', 'removed Level', 'added Upper level'],
      ['Priority', 'added High'],
      ['Place', 'removed a', 'added Flood'],
    ]);
  });

  it('say so where only the form of a text changed', () => {
    expect(said(itemParts(defaultScheme, item(), item({ html: '<p><b>Hold it.</b></p>' }), placeOf))).toEqual([
      ['Text', 'same The same words in another form'],
    ]);
  });

  it('are the whole of what came or went', () => {
    expect(said(itemParts(defaultScheme, undefined, item(), placeOf))).toEqual([
      ['Title', 'added Level'],
      ['Text', 'added Hold it.'],
    ]);
  });

  it('are kind, ends and fields of a link', () => {
    expect(said(linkParts(defaultScheme, link(), link({ kind: 'refines', toId: 'q' }), (id) => id))).toEqual([
      ['Kind', 'removed verifies', 'added refines'],
      ['To', 'removed r', 'added q'],
    ]);
  });
});
