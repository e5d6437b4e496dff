import { describe, expect, it } from 'vitest';
import type { Field } from '../fields/field.js';
import { splitReferences } from './field-value.js';
import { readFieldValue } from '../fields/read-field.js';

const field = (type: Field['type'], options?: string[]): Field => ({ id: 'f', label: 'F', type, ...(options && { options }) });

describe('readFieldValue', () => {
  it.each([
    ['text', 'hello ', 'hello'],
    ['number', '3,40 m', 3.4],
    ['number', '-12', -12],
    ['yesNo', 'Yes', true],
    ['yesNo', '-', false],
    ['date', '2026-03-14 10:00', '2026-03-14'],
  ] as [Field['type'], string, unknown][])('reads %s "%s"', (type, text, value) => {
    expect(readFieldValue(field(type), text)).toEqual({ value });
  });

  it('finds options whatever their letter case', () => {
    expect(readFieldValue(field('choice', ['High', 'Low']), 'HIGH')).toEqual({ value: 'High' });
    expect(readFieldValue(field('choices', ['Test', 'Analysis']), 'analysis; test')).toEqual({ value: ['Analysis', 'Test'] });
  });

  it('keeps what fits no option, and names it', () => {
    expect(readFieldValue(field('choice', ['High', 'Low']), 'Urgent')).toEqual({
      value: 'Urgent',
      problem: '"Urgent" is none of High, Low; it was kept as it stands',
    });
    expect(readFieldValue(field('choices', ['Test']), 'Test, Prayer').problem).toContain('"Prayer"');
  });

  it.each([
    ['number', 'many'],
    ['yesNo', 'perhaps'],
    ['date', '14 March'],
  ] as [Field['type'], string][])('leaves a %s empty that reads "%s", and says so', (type, text) => {
    expect(readFieldValue(field(type), text)).toMatchObject({ value: null, problem: expect.stringContaining(text) });
  });

  it('has nothing to say about nothing', () => {
    expect(readFieldValue(field('number'), '  ')).toEqual({ value: null });
  });
});

describe('splitReferences', () => {
  it.each([
    ['SYS-001, SYS-002; SYS-003', ['SYS-001', 'SYS-002', 'SYS-003']],
    ['SYS-001 and SYS-002.', ['SYS-001', 'SYS-002']],
    ['[SYS-001]\n[SYS-002]', ['SYS-001', 'SYS-002']],
    ['SYS-001 SYS-002', ['SYS-001', 'SYS-002']],
    ['SYS-001, SYS-001', ['SYS-001']],
    ['', []],
  ])('splits "%s"', (text, references) => {
    expect(splitReferences(text)).toEqual(references);
  });
});
