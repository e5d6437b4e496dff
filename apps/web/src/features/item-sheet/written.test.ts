import { defaultScheme, getKind } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { findWritten } from './written';

const kind = {
  ...getKind(defaultScheme, 'requirement'),
  fields: [
    { id: 'a', label: 'A', type: 'text' as const },
    { id: 'b', label: 'B', type: 'choices' as const },
  ],
};
const before = { title: 'Pool', html: '<p>Band</p>', fields: { a: 'x', b: ['1'] } };

describe('what was written', () => {
  it.each([
    ['nothing', {}, {}],
    ['spaces around the title', { title: ' Pool ' }, {}],
    ['the title', { title: 'Pools' }, { title: 'Pools' }],
    ['the text', { html: '' }, { html: '' }],
    ['a field, cleared', { fields: { b: ['1'] } }, { fields: { a: null } }],
    ['a field of several values, the same ones', { fields: { a: 'x', b: ['1'] } }, {}],
    ['a field of several values', { fields: { a: 'x', b: ['1', '2'] } }, { fields: { b: ['1', '2'] } }],
  ])('%s', (_, change, found) => expect(findWritten(before, { ...before, ...change }, kind)).toEqual(found));

  it('takes a field that was never filled and one that was emptied as the same', () => {
    expect(findWritten({ ...before, fields: {} }, { ...before, fields: { a: '', b: [] } }, kind)).toEqual({});
  });

  it('leaves fields alone where they are not shown', () => {
    expect(findWritten(before, { ...before, fields: {} }, undefined)).toEqual({});
  });
});
