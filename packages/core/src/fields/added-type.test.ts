import { afterAll, describe, expect, it, vi } from 'vitest';
import type { FieldType } from './field-type.js';

/** All that a further type is: a span of time, read from words and kept in seconds. */
const span = {
  id: 'span',
  label: 'span of time',
  takes: 'a span such as 2 h 30 min',
  json: 'number',
  fits: (value) => typeof value === 'number' && value >= 0,
  read: (text) => {
    const parts = [...text.matchAll(/(\d+)\s*(h|min|s)\b/g)];
    const seconds = parts.reduce((sum, [, count, unit]) => sum + Number(count) * { h: 3600, min: 60, s: 1 }[unit as 'h']!, 0);
    return parts.length > 0 ? { value: seconds } : { value: null, problem: `"${text}" is no span of time` };
  },
  write: (value) => `${Number(value) / 60} min`,
  exchange: 'number',
  editor: 'line',
} satisfies FieldType;

// The one line of it in the list.
vi.mock(import('./field-types.js'), async (original) => {
  const { fieldTypes, fieldTypeOf, ...rest } = await original();
  const list: readonly FieldType[] = [...fieldTypes, span];
  // A type that is in the list is one of its ids.
  return { ...rest, fieldTypes: list as never, fieldTypeOf: (id) => list.find((type) => type.id === id) ?? fieldTypeOf(id) };
});

// Other tests of this process have read the list as it is, and go on doing so.
vi.resetModules();
afterAll(() => {
  vi.doUnmock(import('./field-types.js'));
  vi.resetModules();
});

const { convertValue, fitsField } = await import('./fits-field.js');
const { readFieldValue } = await import('./read-field.js');
const { applySheetRecipe } = await import('../recipe/sheet-recipe.js');
const { findFieldFindings } = await import('../scheme/field-findings.js');
const { sayPart } = await import('../scheme/say-part.js');
const { defaultScheme } = await import('../scheme/starters/index.js');

describe('a field type that is added', () => {
  // The scheme knows types by their ids.
  const travel = { id: 'travel', label: 'Travel time', type: 'span' as never, required: true };
  const kind = { ...defaultScheme.kinds.find((one) => one.id === 'requirement')!, fields: [travel] };
  const scheme = { ...defaultScheme, kinds: [kind] };

  it('is read from files, and told where it cannot be', () => {
    const rows = [
      ['ID', 'Title', 'Travel time'],
      ['G-1', 'Gate 1', '2 h 30 min'],
      ['G-2', 'Gate 2', 'soon'],
    ];
    const columns = [
      { name: 'ID', meaning: { as: 'reference' as const } },
      { name: 'Title', meaning: { as: 'title' as const } },
      { name: 'Travel time', meaning: { as: 'field' as const, field: 'travel' } },
    ];
    const { drafts, issues } = applySheetRecipe(scheme, { name: 'Gates', sheet: 'Gates', headerRow: 0, kind: kind.id, columns }, [{ name: 'Gates', rows }]);
    expect(drafts.map((draft) => draft.fields)).toEqual([{ travel: 9000 }, {}]);
    expect(issues).toMatchObject([{ code: 'field-value', at: 'Gates!C3', message: '"soon" is no span of time' }]);
  });

  it('is checked, found where it is missing or does not fit, converted and said', () => {
    expect(fitsField(travel, 60)).toBe(true);
    expect(fitsField(travel, -1)).toBe(false);
    expect(findFieldFindings(kind, { travel: -1 })).toEqual({ missing: [], unfit: ['Travel time'] });
    expect(findFieldFindings(kind, {})).toEqual({ missing: ['Travel time'], unfit: [] });
    expect(convertValue('5 min', travel, readFieldValue)).toBe(300);
    expect(JSON.stringify(sayPart({ ...scheme, kinds: [kind] }, { sort: 'field', body: { ...travel, kinds: [], linkKinds: [] } } as never))).toContain(
      'span of time',
    );
  });
});
