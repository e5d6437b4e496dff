import { describe, expect, it } from 'vitest';
import type { RecipeOutcome } from '../recipe/draft.js';
import { defaultScheme } from '../scheme/starters/index.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { documentOf } from '../testing/document.js';
import type { ContentType } from './content-type.js';
import { contentTypeOf, contentTypeOwning, contentTypeReading, contentTypes } from './content-types.js';

describe('sorts of content', () => {
  it('each own the recipes that they propose, and no others', () => {
    const contents: Record<string, object> = {
      document: { document: documentOf('GATE-1: The gate shall close.') },
      sheets: {
        sheets: [
          {
            name: 'Gates',
            rows: [
              ['ID', 'Text'],
              ['1', 'The gate shall close.'],
            ],
          },
        ],
      },
      exchange: { exchange: { types: [], relationTypes: [], objects: [], relations: [], outlines: [], pictures: new Map(), embedded: new Map() } },
      model: { model: { notation: 'uml', exporter: '', elements: [], relations: [], drawings: [], unknown: new Map(), missing: [] } },
    };
    for (const type of contentTypes) {
      const recipe = type.propose(defaultScheme, contents[type.type]);
      expect(contentTypeOwning(recipe)?.type, type.type).toBe(type.reads === null ? undefined : type.type);
      if (type.reads !== null) expect(contentTypeReading(type.reads)).toBe(type);
      expect(
        finish(type.read(defaultScheme, type.align(defaultScheme, recipe, contents[type.type]), contents[type.type])).drafts.length,
      ).toBeGreaterThanOrEqual(0);
    }
  });

  it('refuse what no items are made of', () => expect(() => contentTypeOf('results')).toThrow('No items can be made of results'));
});

/** All that a further sort is: its content, its recipe, and how the one becomes drafts by the other. */
const steps: ContentType<'steps', { steps: string[] }, { kind: string; every: number }> = {
  type: 'steps',
  reads: 'steps',
  propose: (scheme, _, kind = scheme.kinds[0]!.id) => ({ kind, every: 1 }),
  *read(_, { kind, every }, content): Stepwise<RecipeOutcome> {
    const drafts: RecipeOutcome['drafts'] = [];
    for (const title of content.steps.filter((__, index) => index % every === 0)) {
      const key = drafts.length;
      drafts.push({
        ...{ key, parent: -1, role: 'item', kind, reference: null, externalId: null, title, html: '', fields: {} },
        place: { says: `step ${key + 1}` } as never,
      });
      yield;
    }
    return { drafts, links: [], issues: [] };
  },
  show: (_, content) => content,
  align: (_, recipe) => recipe,
  owns: (recipe) => 'every' in recipe,
};

describe('a sort of content that is added', () => {
  it('is found by its name and becomes items, by one file and one line', () => {
    const type = contentTypeOf('steps', [...contentTypes, steps]);
    const content = { steps: ['Lower the gate', 'Wait', 'Lock it'] };
    const { drafts } = finish(type.read(defaultScheme, type.propose(defaultScheme, content, 'requirement'), content));
    expect(drafts.map(({ title, kind }) => [title, kind])).toEqual(content.steps.map((title) => [title, 'requirement']));
  });
});
