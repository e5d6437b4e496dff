import { describe, expect, it } from 'vitest';
import { joinFieldValues } from './field-value.js';
import { readFieldValue } from '../fields/read-field.js';
import { OutlinePlacing } from './outline-placing.js';
import { readDate } from '../fields/read-date.js';
import { readNumber } from '../fields/read-number.js';

describe('numbers', () => {
  it.each([
    ['12', 12],
    ['-12.5', -12.5],
    ['−3', -3],
    ['+4', 4],
    ['3,40 m', 3.4],
    ['0,250', 0.25],
    ['1.250', 1.25],
    ['1,250,000', 1_250_000],
    ['1.250.000', 1_250_000],
    ['1,250.75', 1250.75],
    ['1.250,75', 1250.75],
    ['12 500 kg', 12_500],
    ["12'500", 12_500],
    ['1.5e3', 1500],
    ['40 m3/s', 40],
    ['9.81 m s-2', 9.81],
    ['5%', 5],
  ])('%s is %d', (text, value) => {
    expect(readNumber(text)).toEqual({ value });
  });

  it.each(['5 to 10', '10-20 m', '3.4.5', '12 4', 'many', '5 ± 1', '1,2,3', '1 or 2', 'v2'])('"%s" is no number, and is told', (text) => {
    expect(readNumber(text)).toEqual({ value: null, problem: expect.stringContaining(text) });
  });

  it('tells what a number cannot hold, and what could be read in two ways', () => {
    expect(readNumber('≤ 30 s')).toEqual({ value: 30, problem: expect.stringContaining('≤') });
    expect(readNumber('1,250')).toEqual({ value: 1250, problem: expect.stringContaining('two ways') });
  });

  it('tells another unit than that of the field', () => {
    expect(readNumber('30 min', 's')).toEqual({ value: 30, problem: expect.stringContaining('unit of the field, s') });
    expect(readNumber('30 s', 's')).toEqual({ value: 30 });
    expect(readNumber('30', 's')).toEqual({ value: 30 });
  });
});

describe('dates', () => {
  it.each([
    ['2026-03-14', '2026-03-14'],
    ['2026-03-14T10:00:00Z', '2026-03-14'],
    ['14.3.2026', '2026-03-14'],
    ['14 March 2026', '2026-03-14'],
    ['14 Mar 2026', '2026-03-14'],
    ['March 14, 2026', '2026-03-14'],
    ['14-Mar-2026', '2026-03-14'],
    ['2026/3/14', '2026-03-14'],
    ['20260314', '2026-03-14'],
    ['14/03/2026', '2026-03-14'],
    ['03/14/2026', '2026-03-14'],
    ['3/3/2026', '2026-03-03'],
  ])('%s is %s', (text, date) => {
    expect(readDate(text)).toBe(date);
  });

  it.each(['03/04/2026', '2026-02-30', '31.2.2026', '14 March', 'soon', '2026-03-145', '14/13/2026'])('%s is none that can be read for sure', (text) => {
    expect(readDate(text)).toBeUndefined();
  });
});

it('takes an option that holds a comma whole', () => {
  const field = { id: 'm', label: 'M', type: 'choices' as const, options: ['Test, witnessed', 'Test'] };
  expect(readFieldValue(field, 'Test, witnessed')).toEqual({ value: ['Test, witnessed'] });
});

it('joins what can stand together', () => {
  expect(joinFieldValues('choices', ['a'], ['b', 'a'])).toEqual(['a', 'b']);
  expect(joinFieldValues('rich', '<p>a</p>', '<p>b</p>')).toBe('<p>a</p><p>b</p>');
  expect(joinFieldValues('choice', 'a', 'a')).toBe('a');
  expect(joinFieldValues('choice', 'a', 'b')).toBeUndefined();
});

describe('places in an outline', () => {
  const place = (placing: OutlinePlacing, ...numbers: string[]) => numbers.map((number, key) => placing.place(key, number));

  it('follow outline numbers, over numbers that are left out', () => {
    expect(place(new OutlinePlacing(true), '1', '1.1', '1.2.3', '2', '2.1.')).toEqual([undefined, 0, 0, undefined, 3]);
  });

  it('follow levels where no number has a point', () => {
    expect(place(new OutlinePlacing(false), '1', '2', '3', '2', '1')).toEqual([undefined, 0, 1, 0, undefined]);
  });

  it('follow how far words are set in, and begin anew when told', () => {
    const placing = new OutlinePlacing(false);
    expect([placing.place(0, '', 0), placing.place(1, '', 4), placing.place(2, '', 2)]).toEqual([undefined, 0, 0]);
    placing.restart();
    expect(placing.place(3, '', 4)).toBeUndefined();
  });
});
