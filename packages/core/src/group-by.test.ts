import { expect, it } from 'vitest';
import { addToGroup, groupBy } from './group-by.js';

it('groups members in the order they come, and adds later ones at the end', () => {
  const groups = groupBy(['gate', 'weir', 'gauge', 'wing wall'], (word) => word[0]);
  addToGroup(groups, 'g', 'groyne');
  addToGroup(groups, 's', 'sill');
  expect([...groups]).toEqual([
    ['g', ['gate', 'gauge', 'groyne']],
    ['w', ['weir', 'wing wall']],
    ['s', ['sill']],
  ]);
});
