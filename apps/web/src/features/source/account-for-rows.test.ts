import { expect, it } from 'vitest';
import { accountForRows } from './account-for-rows';

it('counts rows that hold something, and names those that became nothing of their own', () => {
  const rows = [['Register'], [], ['ID', 'Title'], ['A-1', 'Gate'], ['', ' '], ['', 'goes on'], ['A-2', 'Lamp']];
  expect(accountForRows(rows, new Set([3, 6]))).toEqual({ filled: 5, open: [0, 2, 5] });
  expect(accountForRows([], new Set())).toEqual({ filled: 0, open: [] });
});
