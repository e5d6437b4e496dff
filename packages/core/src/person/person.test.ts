import { describe, expect, it } from 'vitest';
import { buildInitials, personColours } from './person.js';

describe('buildInitials', () => {
  it.each([
    ['Ada Wick', 'AW'],
    ['maren van der Holt', 'MH'],
    ['Ida', 'I'],
    ['  Élise  Marín-Öst ', 'ÉÖ'],
    ['(Rig 7)', 'R7'],
    ['', ''],
    ['…', ''],
  ])('of %j are %j', (name, initials) => {
    expect(buildInitials(name)).toBe(initials);
  });

  it('stand on colours that are all different', () => {
    expect(new Set(personColours).size).toBe(personColours.length);
  });
});
