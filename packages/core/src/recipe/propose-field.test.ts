import { describe, expect, it } from 'vitest';
import { fieldOfAttribute, proposeField } from './propose-field.js';

describe('the field that holds the values of a column', () => {
  it.each([
    ['nothing', ['', ' '], 'text'],
    ['yes and no', ['yes', '', 'No', 'x'], 'yesNo'],
    ['days', ['2026-01-02', '2026-01-03T10:00:00Z'], 'date'],
    ['numbers', ['1', '-2.5', '3,5'], 'number'],
    ['numbers with different units', ['1 m', '2 mm', '3 m'], 'text'],
    ['digits that are no numbers', ['007', '012'], 'text'],
    ['one word that comes again', ['see note', 'see note', 'see note'], 'text'],
    ['addresses', ['https://example.org/a'], 'address'],
    ['several lines', ['a\nb', 'c'], 'rich'],
    ['words that differ', ['a', 'b', 'c'], 'text'],
    ['long words that come again', ['x'.repeat(60), 'x'.repeat(60)], 'text'],
  ])('%s', (_, values, type) => {
    expect(proposeField(values)).toEqual({ type });
  });

  it.each([
    [['1 m', '-2,5 m'], 'm'],
    [['9%', '12.5%'], '%'],
    [['4 kN/m²', '5 kN/m²'], 'kN/m²'],
  ])('is a number where all have one unit', (values, unit) => {
    expect(proposeField(values)).toEqual({ type: 'number', unit });
  });

  it('is a choice of the words that come again', () => {
    expect(proposeField(['Pump', 'Gate', 'Gate', 'Pump', ''])).toEqual({ type: 'choice', options: ['Pump', 'Gate'] });
  });

  it('is what an exchange file says of its attribute', () => {
    expect(fieldOfAttribute({ id: 'a', name: 'A', type: 'choices', options: ['x'] })).toEqual({ type: 'choices', options: ['x'] });
    expect(fieldOfAttribute({ id: 'a', name: 'A', type: 'date' })).toEqual({ type: 'date' });
  });
});
