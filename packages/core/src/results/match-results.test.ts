import { describe, expect, it } from 'vitest';
import { matchResults } from './match-results.js';

const tests = [
  { id: '1', reference: 'TC-001', bindings: [{ externalId: 'ext-77' }], title: 'Opens the gate' },
  { id: '2', reference: 'TC-012', bindings: [], title: 'Closes the gate' },
  { id: '3', reference: 'TC-013', bindings: [], title: 'Closes the gate' },
];
const match = (name: string, more: { suite?: string; properties?: string[] } = {}) =>
  matchResults([{ suite: more.suite ?? '', name, properties: more.properties ?? [] }], tests)[0]!;

describe('matchResults', () => {
  it.each([
    ['a property that holds the reference', 'whatever', { properties: ['tc-012'] }, '2', 'property'],
    ['a property that holds the external id', 'whatever', { properties: ['ext-77'] }, '1', 'property'],
    ['the reference in the name', 'TC-001: opens', {}, '1', 'reference'],
    ['the reference as code writes it', 'test_TC_012_closes', {}, '2', 'reference'],
    ['the reference without a hyphen', 'tc013 closes', {}, '3', 'reference'],
    ['the reference in the suite', 'closes', { suite: 'larkbeck.TC-012' }, '2', 'reference'],
    ['the title, spaces and letter case aside', '  opens THE gate ', {}, '1', 'title'],
  ] as const)('matches by %s', (_, name, more, test, reason) => {
    expect(match(name, more as { suite?: string; properties?: string[] })).toEqual({ test, reason, ambiguous: false });
  });

  it('takes none of several that fit, and says so', () => {
    expect(match('Closes the gate')).toEqual({ test: null, reason: null, ambiguous: true });
    expect(match('TC-001 and TC-012')).toEqual({ test: null, reason: null, ambiguous: true });
  });

  it('does not take part of a number for a reference', () => {
    expect(match('TC-0012 something').test).toBeNull();
    expect(match('nothing known')).toEqual({ test: null, reason: null, ambiguous: false });
  });

  it('lets a property win over the name', () => {
    expect(match('TC-001', { properties: ['TC-012'] })).toMatchObject({ test: '2', reason: 'property' });
  });
});
