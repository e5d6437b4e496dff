import { describe, expect, it } from 'vitest';
import { buildFormula, typedFormula } from './type-formula';

describe('a formula that is typed', () => {
  it('is MathML that remembers how it was typed', () => {
    const mathml = buildFormula('Q = \\frac{V}{t}', false);
    expect(mathml).toMatch(/^<math><semantics>/);
    expect(mathml).toContain('<mfrac><mi>V</mi><mi>t</mi></mfrac>');
    expect(mathml).not.toMatch(/class=|style=|xmlns/);
    expect(typedFormula(mathml)).toBe('Q = \\frac{V}{t}');
  });

  it('stands on a line of its own when that is wanted', () => expect(buildFormula('x', true)).toMatch(/^<math display="block">/));

  it('says what cannot be read', () => {
    expect(() => buildFormula('\\fra{', false)).toThrow(/\\fra/);
    expect(typedFormula('<math><mi>x</mi></math>')).toBe('');
  });
});
