import { expect, it } from 'vitest';
import { findColumnWidths } from './column-widths';

const row = (...texts: (string | [string, number])[]) =>
  texts.map((one) => (typeof one === 'string' ? { text: one, span: 1 } : { text: one[0], span: one[1] }));

it('gives columns room by the text that they hold, within bounds', () => {
  const [id, text, priority] = findColumnWidths([
    row('ID', 'Requirement', 'Priority'),
    row('SYS-001', 'x'.repeat(400), 'High'),
    row('SYS-002', 'x'.repeat(300), 'Low'),
  ]);
  expect(text! / id!).toBeCloseTo((1.2 + Math.sqrt(120)) / (1.2 + Math.sqrt(7)));
  expect(priority! / id!).toBeCloseTo((1.2 + 4) / (1.2 + Math.sqrt(7)));
  expect(id! + text! + priority!).toBeCloseTo(100);
});

it('asks no cell that goes over several columns', () => {
  expect(findColumnWidths([row(['a long title over both', 2]), row('a', 'b')])).toEqual([50, 50]);
  expect(findColumnWidths([row(['only', 3])])).toHaveLength(3);
  expect(findColumnWidths([])).toEqual([]);
});
