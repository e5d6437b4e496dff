import { defaultScheme, proposeDocumentRecipe } from '@coomb/core';
import { beforeEach, expect, it } from 'vitest';
import { findDraft, forgetDraft, keepDraft } from './recipe-draft';

beforeEach(() => localStorage.clear());

it('keeps a recipe for its file until it is forgotten', () => {
  const recipe = proposeDocumentRecipe(defaultScheme, { blocks: [], pictures: new Map() });
  keepDraft('a', { body: { reads: 'document', recipe }, kept: 'k' });
  expect(findDraft('a')).toEqual({ body: { reads: 'document', recipe }, kept: 'k' });
  expect(findDraft('b')).toBeUndefined();
  forgetDraft('a');
  expect(findDraft('a')).toBeUndefined();
});

it.each(['{', '{"body":{"reads":"document","recipe":{"kind":1}}}', '[]'])('passes over what no version of today can follow: %s', (text) => {
  localStorage.setItem('coomb.recipe.a', text);
  expect(findDraft('a')).toBeUndefined();
});
