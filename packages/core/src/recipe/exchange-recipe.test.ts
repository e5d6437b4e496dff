import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import type { ExchangeAttribute, ExchangeDocument, ExchangeObject } from '../source/exchange.js';
import { applyExchangeRecipe } from './exchange-recipe.js';
import { proposeExchangeRecipe } from './propose-exchange-recipe.js';

const attributes: ExchangeAttribute[] = [
  { id: 'a-id', name: 'ReqIF.ForeignID', type: 'text' },
  { id: 'a-text', name: 'ReqIF.Text', type: 'text' },
];

/** Objects by the values they have beside an identifier and a text; one outline shows them in order. */
function documentOf(more: ExchangeAttribute[], rows: Record<string, string | string[]>[]): ExchangeDocument {
  const objects = rows.map(
    (values, index): ExchangeObject => ({
      id: `o-${index}`,
      type: 't',
      name: '',
      line: index + 1,
      values: { 'a-id': `G-${index}`, 'a-text': 'Stop.', ...values },
    }),
  );
  return {
    title: 'Gates',
    tool: '',
    types: [{ id: 't', name: 'Object', attributes: [...attributes, ...more], count: rows.length }],
    relationTypes: [],
    objects,
    outlines: [{ id: 's', name: 'Gates', nodes: objects.map(({ id }) => ({ object: id, children: [] })) }],
    relations: [],
    pictures: new Map(),
    embedded: new Map(),
  };
}

const propose = (document: ExchangeDocument) => proposeExchangeRecipe(defaultScheme, document);
const meaningOf = (document: ExchangeDocument, id: string) => propose(document).types[0]!.attributes.find((one) => one.id === id)!.meaning;

describe('attributes that name other items', () => {
  const derived: ExchangeAttribute = { id: 'a-from', name: 'Derived from', type: 'text' };

  it('make links where their values look like references', () => {
    const document = documentOf([derived], [{ 'a-from': 'NEED-1, NEED-2' }, {}]);
    expect(applyExchangeRecipe(defaultScheme, propose(document), document).links).toMatchObject([
      { draft: 0, linkKind: 'derives', reversed: false, target: 'NEED-1' },
      { draft: 0, linkKind: 'derives', reversed: false, target: 'NEED-2' },
    ]);
  });

  it('are left alone where they are told in words', () => {
    expect(meaningOf(documentOf([derived], [{ 'a-from': 'the meeting at the lock' }, { 'a-from': 'a letter' }]), 'a-from')).toEqual({ as: 'ignore' });
  });
});

describe('attributes that say the kind', () => {
  const type: ExchangeAttribute = { id: 'a-type', name: 'Object Type', type: 'choice', options: ['Heading', 'Requirement', 'Test case'] };

  it('tell sections from items, and which fields an item has', () => {
    const document = documentOf(
      [type, { id: 'a-w', name: 'Why', type: 'text' }],
      [{ 'a-type': ['Heading'] }, { 'a-type': ['Test case'] }, { 'a-type': 'Requirement' }, {}],
    );
    const { drafts, issues } = applyExchangeRecipe(defaultScheme, propose(document), document);
    expect(drafts.map((draft) => [draft.role, draft.kind])).toEqual([
      ['section', 'requirement'],
      ['item', 'testCase'],
      ['item', 'requirement'],
      ['item', 'requirement'],
    ]);
    expect(issues).toEqual([]);
  });

  it('are said where a name is none of the project', () => {
    const document = documentOf([type], [{ 'a-type': ['Requirement'] }, { 'a-type': ['Remark'] }]);
    expect(applyExchangeRecipe(defaultScheme, propose(document), document).issues).toMatchObject([
      {
        severity: 'warning',
        code: 'kind-unknown',
        at: 'line 2',
        message: 'Object Type: "Remark" is no kind of the project; the item stays a requirement (object o-1)',
      },
    ]);
  });

  it('are left alone where their values are no kinds', () => {
    expect(meaningOf(documentOf([type], [{ 'a-type': ['Functional'] }, { 'a-type': ['Safety'] }]), 'a-type')).toEqual({ as: 'ignore' });
  });
});
