import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { buildQuestion, buildSteps, type CoverageItems } from './question.js';

interface Row {
  kind: string;
  withdrawn?: boolean;
  heading?: boolean;
  fields?: Record<string, unknown>;
  waived?: boolean;
}

const asItems = (rows: Row[]): CoverageItems => ({
  count: rows.length,
  kindOf: (node) => rows[node]!.kind,
  isPresent: (node) => !rows[node]!.withdrawn,
  isHeading: (node) => rows[node]!.heading === true,
  fieldOf: (node, field) => rows[node]!.fields?.[field],
  isWaived: (node) => rows[node]!.waived === true,
});

const tested = defaultScheme.rules.find((rule) => rule.id === 'tested')!;

describe('buildQuestion', () => {
  it('asks about present items of the kinds, and no headings', () => {
    const question = buildQuestion(
      defaultScheme,
      tested,
      asItems([
        { kind: 'requirement' },
        { kind: 'requirement', heading: true },
        { kind: 'requirement', withdrawn: true },
        { kind: 'testCase' },
        { kind: 'requirement', waived: true },
      ]),
    );
    expect([...question.subject]).toEqual([1, 0, 0, 0, 1]);
    expect([...question.target]).toEqual([0, 0, 0, 1, 0]);
    expect([...question.present!]).toEqual([1, 1, 0, 1, 1]);
    expect([...question.waived!]).toEqual([0, 0, 0, 0, 1]);
  });

  it('asks only about items whose field holds one of the values', () => {
    const rule = { ...tested, of: { kinds: ['requirement'], field: { id: 'method', oneOf: ['Test'] } } };
    const rows: Row[] = [
      { kind: 'requirement', fields: { method: ['Analysis', 'Test'] } },
      { kind: 'requirement', fields: { method: 'Test' } },
      { kind: 'requirement', fields: { method: ['Inspection'] } },
      { kind: 'requirement' },
    ];
    expect([...buildQuestion(defaultScheme, rule, asItems(rows)).subject]).toEqual([1, 1, 0, 0]);
  });

  it('leaves out link kinds that the project lacks', () => {
    expect(
      buildSteps(defaultScheme, [
        { linkKind: 'verifies', direction: 'in' },
        { linkKind: 'imagined', direction: 'out' },
      ]),
    ).toEqual([{ kind: defaultScheme.linkKinds.findIndex((kind) => kind.id === 'verifies'), direction: 'in' }]);
  });
});
