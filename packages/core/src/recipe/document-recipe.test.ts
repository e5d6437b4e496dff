import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import type { SourceBlock, SourceCell, SourceDocument } from '../source/document.js';
import { documentOf, type Line } from '../testing/document.js';
import { applyDocumentRecipe } from './apply-document-recipe.js';
import { findDocumentDepartures } from './departures.js';
import { buildIdentifier, type DocumentRecipe, usualIdentifier } from './document-recipe.js';
import { proposeDocumentRecipe } from './propose-document-recipe.js';

function gather(document: SourceDocument, change: Partial<DocumentRecipe> = {}, kind?: string) {
  const recipe = { ...proposeDocumentRecipe(defaultScheme, document, kind), ...change };
  return applyDocumentRecipe(defaultScheme, recipe, document);
}

const show = (outcome: ReturnType<typeof gather>) =>
  outcome.drafts.map((draft) => `${draft.role === 'section' ? '#' : (draft.reference ?? '?')} ${draft.title}`);

describe('requirements in tables', () => {
  const table = {
    table: [
      ['ID', 'Title', 'Requirement', 'Priority', 'Derived from'],
      ['SYS-001', 'Band', 'Hold the level.', 'High', 'NEED-001, NEED-002'],
      ['SYS-002', '', 'Refuse others.', 'Urgent', ''],
    ],
  };

  it('reads rows as items with fields and links', () => {
    const outcome = gather(documentOf([1, 'Levels'], table));
    expect(show(outcome)).toEqual(['# Levels', 'SYS-001 Band', 'SYS-002 Refuse others.']);
    expect(outcome.drafts[1]).toMatchObject({
      parent: 0,
      html: '<p>Hold the level.</p>',
      fields: { priority: 'High' },
      place: { block: 1, row: 1, says: 'table 1, row 2' },
    });
    expect(outcome.links.map((link) => [link.draft, link.linkKind, link.target])).toEqual([
      [1, 'derives', 'NEED-001'],
      [1, 'derives', 'NEED-002'],
    ]);
    expect(outcome.issues).toMatchObject([{ code: 'field-value', at: 'table 1, row 3' }]);
  });

  it('says what became of empty rows, rows across the table, rows without an item', () => {
    const document = documentOf([1, 'A'], {
      table: [
        ['ID', 'Requirement', 'Priority'],
        ['', '', ''],
        ['SYS-001', 'One', ''],
        ['', '', 'High'],
      ],
    });
    (document.blocks[1] as { rows: SourceCell[][] }).rows.push([{ text: 'Part two', html: 'Part two', span: 3 }]);
    const outcome = gather(document);
    expect(outcome.issues.map((issue) => [issue.code, issue.at])).toEqual([
      ['row-empty', 'table 1, row 2'],
      ['row-without-item', 'table 1, row 4'],
      ['row-foot', 'table 1, row 5'],
    ]);
    expect(outcome.drafts.filter((draft) => draft.role === 'item')).toHaveLength(1);
  });

  it('keeps a table that means nothing as text, and tables of another shape are named', () => {
    const sample = documentOf([1, 'A'], table);
    const recipe = proposeDocumentRecipe(defaultScheme, sample);
    const outcome = applyDocumentRecipe(
      defaultScheme,
      recipe,
      documentOf([1, 'A'], {
        table: [
          ['Term', 'Meaning'],
          ['Pool', 'River'],
        ],
      }),
    );
    expect(outcome.issues).toMatchObject([{ code: 'table-unknown', at: 'table 1', severity: 'warning' }]);
    expect(outcome.drafts[0]!.html).toContain('<td>Pool</td>');
  });

  it('takes a reference that stands twice once, and says where the first is', () => {
    const outcome = gather(
      documentOf([1, 'A'], {
        table: [
          ['ID', 'Requirement'],
          ['SYS-001', 'One'],
          ['sys-001', 'Two'],
        ],
      }),
    );
    expect(outcome.drafts.map((draft) => draft.reference)).toEqual([null, 'SYS-001', null]);
    expect(outcome.issues).toMatchObject([{ code: 'reference-twice', message: expect.stringContaining('table 1, row 2') }]);
  });

  it('reads a table of label and value as one item', () => {
    const card = {
      table: [
        ['ID', 'SYS-009'],
        ['Requirement', 'Hold.'],
        ['Priority', 'Low'],
      ],
    };
    const outcome = gather(documentOf([1, 'A'], card));
    expect(outcome.drafts[1]).toMatchObject({ reference: 'SYS-009', html: '<p>Hold.</p>', fields: { priority: 'Low' } });
  });

  it('follows spanning cells to their columns', () => {
    const document = documentOf([1, 'A'], {
      table: [
        ['ID', 'Title', 'Requirement'],
        ['SYS-001', '', ''],
      ],
    });
    (document.blocks[1] as { rows: SourceCell[][] }).rows[1] = [
      { text: 'SYS-001', html: 'SYS-001', span: 2 },
      { text: 'Wide.', html: 'Wide.', span: 1 },
    ];
    expect(gather(document).drafts[1]).toMatchObject({ reference: 'SYS-001', html: '<p>Wide.</p>' });
  });
});

describe('requirements in running text', () => {
  it('reads numbered sentences with labels after them', () => {
    const outcome = gather(
      documentOf(
        [1, 'Drives'],
        'SYS-017: The drive shall move.',
        'Priority: Medium',
        'Derived from: NEED-001',
        'A remark.',
        'SYS-018: The drive shall stop.',
        'Priority: High',
      ),
    );
    expect(show(outcome)).toEqual(['# Drives', 'SYS-017 The drive shall move.', 'SYS-018 The drive shall stop.']);
    expect(outcome.drafts[1]).toMatchObject({ fields: { priority: 'Medium' }, html: '<p>The drive shall move.</p><p>A remark.</p>' });
    expect(outcome.links).toMatchObject([{ draft: 1, target: 'NEED-001', reversed: false }]);
  });

  it('cuts the reference off marked-up text without breaking it', () => {
    const document = documentOf([1, 'A'], 'SYS-001: x & y shall hold.');
    (document.blocks[1] as { html: string }).html = '<strong>SYS-001</strong>: x &amp; <em>y</em> shall hold.';
    expect(gather(document).drafts[1]!.html).toBe('<p>x &amp; <em>y</em> shall hold.</p>');
  });

  it('reads headings that carry a reference as items, with text and lists below', () => {
    const outcome = gather(
      documentOf(
        [1, 'Lock'],
        [2, 'SYS-032 Cycle time'],
        'Within 14 minutes.',
        { list: 'up' },
        { list: 'down' },
        'Priority: Low',
        [2, 'SYS-033 Queue'],
        'Up to four.',
      ),
    );
    expect(show(outcome)).toEqual(['# Lock', 'SYS-032 Cycle time', 'SYS-033 Queue']);
    expect(outcome.drafts[1]!.html).toBe('<p>Within 14 minutes.</p><ul><li>up</li><li>down</li></ul>');
    expect(outcome.drafts[2]!.parent).toBe(0);
  });

  it('takes sentences with a binding word where there are no references', () => {
    const outcome = gather(documentOf([1, 'Rules'], 'The operator shall sign.', 'This is background.', 'Nobody shall enter.'), { between: 'before' });
    expect(outcome.drafts.map((draft) => [draft.role, draft.reference])).toEqual([
      ['section', null],
      ['item', null],
      ['item', null],
    ]);
    expect(outcome.drafts[1]!.html).toContain('background');
    expect(gather(documentOf([1, 'A'], 'Marshall helps.'), { bindingWords: ['shall'] }).drafts).toHaveLength(1);
  });

  it('shortens a long sentence to a title at a word', () => {
    const long = `SYS-001: ${'word '.repeat(40)}`;
    const { title } = gather(documentOf([1, 'A'], long)).drafts[1]!;
    expect(title.length).toBeLessThanOrEqual(81);
    expect(title.endsWith('word…')).toBe(true);
  });

  it('names labels and text that belong to nothing', () => {
    const outcome = gather(documentOf('Before all.', [1, 'A'], 'Priority: High', 'Priority: Low'));
    expect(outcome.issues.map((issue) => issue.code)).toEqual(['text-before', 'label-outside', 'label-outside']);
  });
});

describe('outline', () => {
  it('nests sections by level, over gaps in the levels', () => {
    const outcome = gather(documentOf([1, 'A'], [3, 'B'], [2, 'C'], [1, 'D']));
    expect(outcome.drafts.map((draft) => draft.parent)).toEqual([-1, 0, 0, -1]);
  });

  it('leaves headings out when the recipe says so, and tells', () => {
    const outcome = gather(documentOf([1, 'A'], [2, 'B'], 'SYS-001: x'), { headings: ['section', 'ignore'] });
    expect(show(outcome)).toEqual(['# A', 'SYS-001 x']);
    expect(outcome.issues).toMatchObject([{ code: 'heading-ignored', at: 'paragraph 2' }]);
  });

  it('hangs items below a parent named by reference, unless that ties a knot', () => {
    const rows = [
      ['ID', 'Requirement', 'Parent'],
      ['SYS-001', 'One', ''],
      ['SYS-002', 'Two', 'SYS-001'],
      ['SYS-003', 'Three', 'SYS-003'],
      ['SYS-004', 'Four', 'SYS-900'],
    ];
    const outcome = gather(documentOf([1, 'A'], { table: rows }));
    expect(outcome.drafts.map((draft) => draft.parent)).toEqual([-1, 0, 1, 0, 0]);
    expect(outcome.issues.map((issue) => issue.code)).toEqual(['parent-later', 'parent-unknown']);
  });
});

describe('the recipe itself', () => {
  it('proposes links only where the kind may stand', () => {
    const document = documentOf([1, 'A'], {
      table: [
        ['ID', 'Requirement', 'Verifies'],
        ['T-1', 'x', 'SYS-1'],
      ],
    });
    const meaning = (kind: string) => proposeDocumentRecipe(defaultScheme, document, kind).tables[0]!.columns[2]!.meaning;
    expect(meaning('testCase')).toEqual({ as: 'link', linkKind: 'verifies', reversed: false });
    expect(meaning('requirement')).toEqual({ as: 'ignore' });
  });

  it('refuses a pattern that is no regular expression, and runs a costly one in linear time', () => {
    expect(() => buildIdentifier('[A-')).toThrow('not a regular expression');
    expect(() => buildIdentifier('x'.repeat(201))).toThrow('longer than 200');
    expect(buildIdentifier('  ')).toBeUndefined();
    const costly = buildIdentifier('(a+)+b')!;
    expect(costly('a'.repeat(5000))).toBeUndefined();
  });

  it.each([
    ['SYS-001: text', 'SYS-001'],
    ['[REQ_12] text', 'REQ_12'],
    ['SYS-4.2.1 text', undefined],
    ['SYS-4 text', 'SYS-4'],
    ['System 4', undefined],
  ])('recognises references as usual: "%s"', (text, reference) => {
    const found = buildIdentifier(usualIdentifier)!(text)?.reference;
    expect(found).toBe(text.includes('4.2.1') ? 'SYS-4.2.1' : reference);
  });
});

describe('phrases in running text', () => {
  const link = (words: string, more = {}) => ({ words, meaning: { as: 'link' as const, linkKind: 'derives', reversed: false, ...more } });
  const spec = documentOf(
    [1, 'Gates'],
    'SYS-001: The gate shall close. It traces to NEED-004, NEED-005 and [NEED-006]. Priority: High.',
    'SYS-002: The gate shall stop (Part of SYS-001; owner control room).',
    'Traces  TO: NEED-009. See also NEED-010.',
  );

  it('make links, fields and parents, and stay in the text', () => {
    const outcome = gather(spec, {
      labels: [],
      phrases: [link('traces to'), { words: 'Priority', meaning: { as: 'field', field: 'priority' } }, { words: 'part of', meaning: { as: 'parent' } }],
    });
    expect(outcome.links.map(({ draft, target }) => [draft, target])).toEqual([
      [1, 'NEED-004'],
      [1, 'NEED-005'],
      [1, 'NEED-006'],
      [2, 'NEED-009'],
    ]);
    expect(outcome.drafts[1]).toMatchObject({ fields: { priority: 'High' }, html: expect.stringContaining('traces to NEED-004') });
    expect(outcome.drafts[2]!.parent).toBe(1);
  });

  it('name other ends by title, within collections, up to the end of the sentence', () => {
    const outcome = gather(documentOf([1, 'A'], 'SYS-001: Stop. Serves Safe passage of boats; Dry cellars. More.'), {
      phrases: [link('serves', { by: 'title', within: ['Needs'] })],
    });
    expect(outcome.links).toMatchObject([{ target: 'Safe passage of boats', by: 'title', within: ['Needs'] }]);
  });

  it('are proposed where they lead to references more than once', () => {
    const text = (number: number) => `SYS-00${number}: The gate shall close, traces to NEED-00${number}.`;
    expect(proposeDocumentRecipe(defaultScheme, documentOf(text(1), text(2))).phrases).toEqual([link('traces to')]);
    expect(proposeDocumentRecipe(defaultScheme, documentOf(text(1))).phrases).toBeUndefined();
  });

  it('are listed, left out for now, where unknown words lead to references in three places or more, in cells too', () => {
    const text = (number: number) => `SYS-00${number}: The gate shall close. In answer to NEED-00${number}, and NEED-010.`;
    const table = [
      ['ID', 'Requirement'],
      ['SYS-003', 'The gate shall stop at either end. In answer to: NEED-003.'],
    ];
    const cells = documentOf(text(1), text(2), { table });
    const unknown = [{ words: 'In answer to', meaning: { as: 'ignore' } }];
    expect(proposeDocumentRecipe(defaultScheme, cells).phrases).toEqual(unknown);
    expect(proposeDocumentRecipe(defaultScheme, documentOf(text(1), text(2))).phrases).toBeUndefined();
    expect(findDocumentDepartures(proposeDocumentRecipe(defaultScheme, cells), documentOf(text(1)))).not.toContainEqual(
      expect.objectContaining({ code: 'phrase-missing' }),
    );
  });

  it('of other words are none, and text without them is left alone', () => {
    const outcome = gather(spec, { labels: [], phrases: [link('races to'), { words: 'priority', meaning: { as: 'ignore' } }] });
    expect(outcome.links).toEqual([]);
    expect(outcome.drafts[1]!.fields).toEqual({});
  });
});

describe('numbers', () => {
  const numbered = (number: string, text: string, level = 0): SourceBlock => ({ type: 'paragraph', at: 1, level, number, text, html: text });

  it('become references where the recipe says so: of headings, and of clauses with two parts at least', () => {
    const document = {
      blocks: [numbered('4', 'Gates', 1), numbered('4.1', 'The gate shall close.'), numbered('b)', 'at once'), numbered('3', 'step')],
      pictures: new Map(),
    };
    const outcome = gather(document, { numberPrefix: 'EN-' });
    expect(show(outcome)).toEqual(['# Gates', 'EN-4.1 The gate shall close.']);
    expect(outcome.drafts[0]!.reference).toBe('EN-4');
    expect(outcome.drafts[1]!.html).toContain('at once');
    expect(gather(document).drafts.map((draft) => draft.reference)).toEqual([null, null]);
  });

  it('go to a field where the recipe says so, out of the words where they were typed', () => {
    const blocks = [
      numbered('4', 'Gates', 1),
      numbered('4.1', 'The gate shall close. It shall lock.'),
      { ...numbered('', '4.2 It must open.'), number: undefined } as SourceBlock,
    ];
    const outcome = gather({ blocks, pictures: new Map() }, { numberField: 'rationale', bindingWords: ['shall', 'must'] });
    expect(outcome.drafts.map(({ reference, html, fields }) => [reference, html, fields.rationale])).toEqual([
      [null, '', '4'],
      [null, '<p>The gate shall close. It shall lock.</p>', '4.1'],
      [null, '<p>It must open.</p>', '4.2'],
    ]);
    const split = gather({ blocks, pictures: new Map() }, { numberField: 'rationale', bindingWords: ['shall', 'must'], eachSentence: true });
    expect(split.drafts.map((draft) => draft.fields.rationale)).toEqual(['4', '4.1', '4.1', '4.2']);
  });

  it('are no identity: a newer version is matched by its words', () => {
    const blocks = [numbered('4.1', 'The gate shall close.'), { ...numbered('4.2', 'SYS-001: It opens.') }];
    expect(gather({ blocks, pictures: new Map() }, { numberPrefix: '' }).drafts.map((draft) => [draft.reference, draft.externalId])).toEqual([
      ['4.1', null],
      ['SYS-001', 'SYS-001'],
    ]);
  });

  it('that are typed make headings of short lines, and are proposed where there are no others', () => {
    const document = documentOf(
      '1 Scope',
      'It covers 2 gates.',
      '2 Gates',
      '2.1 Lower gates',
      'They shall close.',
      '12 of them must be grey and last, as was said above.',
      '2.2 small',
    );
    const recipe = proposeDocumentRecipe(defaultScheme, document);
    expect(recipe).toMatchObject({ typedHeadings: true, bindingWords: ['shall', 'must'] });
    const outcome = applyDocumentRecipe(defaultScheme, { ...recipe, numberPrefix: '' }, document);
    expect(outcome.drafts.map((draft) => [draft.role, draft.reference, draft.title, draft.parent])).toEqual([
      ['section', '1', 'Scope', -1],
      ['section', '2', 'Gates', -1],
      ['section', '2.1', 'Lower gates', 1],
      ['item', null, 'They shall close.', 2],
      ['item', null, '12 of them must be grey and last, as was said above.', 2],
      ['item', '2.2', 'small', 2],
    ]);
  });
});

describe('values of every item', () => {
  it('fill what the document does not say', () => {
    const document = documentOf([1, 'A'], 'SYS-001: Close.', 'Priority: Low', 'SYS-002: Open.');
    expect(gather(document, { constants: { priority: 'High' } }).drafts.map((draft) => draft.fields)).toEqual([{}, { priority: 'Low' }, { priority: 'High' }]);
  });
});

describe('labels on lines of one paragraph', () => {
  const document = documentOf(
    [1, 'Gates'],
    'SYS-001: The gate shall close.\nNote: by hand\nPriority: High\nDerived from: NEED-1, NEED-2',
    'SYS-002: It opens.\nPriority: Low',
  );

  it('are known, proposed and read; other lines stay with the words before them', () => {
    const outcome = gather(document);
    expect(outcome.drafts.slice(1).map((draft) => [draft.reference, draft.html, draft.fields])).toEqual([
      ['SYS-001', '<p>The gate shall close.\nNote: by hand</p>', { priority: 'High' }],
      ['SYS-002', '<p>It opens.</p>', { priority: 'Low' }],
    ]);
    expect(outcome.links.map((link) => link.target)).toEqual(['NEED-1', 'NEED-2']);
  });

  it('stay words where the recipe leaves them out', () => {
    expect(gather(document, { labels: [] }).drafts[2]!.html).toBe('<p>It opens.\nPriority: Low</p>');
  });
});

describe('sentences that bind', () => {
  it('are known in other languages', () => {
    expect(proposeDocumentRecipe(defaultScheme, documentOf('Das Tor muss schließen.', 'Die Lampen müssen brennen.')).bindingWords).toEqual(['muss', 'müssen']);
  });

  const document = documentOf([1, 'Gates'], 'Gates are old. They must close. They are grey. They must open again. Nobody minds.');

  it('make one item a paragraph, or one a sentence with the words around it', () => {
    expect(gather(document).drafts).toHaveLength(2);
    const outcome = gather(document, { eachSentence: true, between: 'before' });
    expect(outcome.drafts.slice(1).map((draft) => draft.html)).toEqual([
      '<p>Gates are old. They must close. They are grey.</p>',
      '<p>They must open again. Nobody minds.</p>',
    ]);
  });

  it('leave the typed number of their clause, and its markup, with the field that takes it', () => {
    const clause = documentOf([1, '4 Gates'], '4.1 The gate must close. It must lock.');
    const { drafts } = gather(clause, { eachSentence: true, numberField: 'rationale', bindingWords: ['must'] });
    expect(drafts.map((draft) => [draft.title, draft.html, draft.fields.rationale])).toEqual([
      ['Gates', '', '4'],
      ['The gate must close.', '<p>The gate must close.</p>', '4.1'],
      ['It must lock.', '<p>It must lock.</p>', '4.1'],
    ]);
  });

  it('are told where several become one item, and where they stand under what only explains', () => {
    const lines = documentOf([1, 'Annex A (informative)'], 'They must close. They must lock.', [1, 'Gates'], 'They must open.');
    const codes = (change: Partial<DocumentRecipe>) => gather(lines, { bindingWords: ['must'], ...change }).issues.map(({ code, at }) => [code, at]);
    expect(codes({})).toEqual([
      ['binding-informative', 'paragraph 2'],
      ['binding-twice', 'paragraph 2'],
    ]);
    expect(codes({ eachSentence: true })).toEqual([
      ['binding-informative', 'paragraph 2'],
      ['binding-informative', 'paragraph 2'],
    ]);
  });

  it.each([
    ['NOTE The word must binds.', true],
    ['NOTE 2: Gates must close by themselves elsewhere.', true],
    ['EXAMPLE — A gate must close.', true],
    ['Note that the gate must close.', false],
    ['Notes of the operator must be kept.', false],
  ])('%s is told and kept as text: %s', (text, isNote) => {
    const { drafts, issues } = gather(documentOf([1, 'Gates'], text), { bindingWords: ['must'] });
    expect(drafts).toHaveLength(isNote ? 1 : 2);
    expect(drafts[0]!.html).toBe(isNote ? `<p>${text}</p>` : '');
    expect(issues.map((issue) => issue.code)).toEqual(isNote ? ['binding-in-note'] : []);
  });

  it('are not looked for where the headings above carry the references', () => {
    const lines = Array.from({ length: 8 }, (_, index): Line[] => [[6, `SYS-00${index} Gate ${index}`], `Gate ${index} must close.`]).flat();
    const recipe = proposeDocumentRecipe(defaultScheme, documentOf([1, 'Gates'], ...lines));
    expect([recipe.bindingWords, recipe.headings[5]]).toEqual([[], 'item']);
  });

  it('are looked for where few paragraphs carry a reference', () => {
    const many = Array.from({ length: 20 }, (_, index) => `Gate ${index} must close.`);
    expect(proposeDocumentRecipe(defaultScheme, documentOf('ISO-9001: quoted', ...many)).bindingWords).toEqual(['must']);
    expect(proposeDocumentRecipe(defaultScheme, documentOf('SYS-001: shall', 'SYS-002: shall', 'It must.')).bindingWords).toEqual([]);
  });
});

describe('shapes of references', () => {
  it.each([
    ['usual ones', (at: number) => `SYS-${at} Close.`, 'SYS-3'],
    ['in brackets with a blank', (at: number) => `[REQ 4.2.${at}] Close.`, 'REQ 4.2.3'],
    ['of several parts', (at: number) => `WS-SRS-G${at}: Close.`, 'WS-SRS-G3'],
    ['short ones before a colon', (at: number) => `R${at}: Close.`, 'R3'],
    ['any word in brackets', (at: number) => `[gate.close.${at}] Close.`, 'gate.close.3'],
  ])('%s are proposed from the document', (_, line, third) => {
    const outcome = gather(documentOf([1, 'A'], ...[1, 2, 3, 4].map(line)));
    expect(outcome.drafts[3]).toMatchObject({ reference: third, title: 'Close.', html: '<p>Close.</p>' });
  });
});

describe('what stands beside the text', () => {
  const words = (text: string, more: Partial<SourceCell> = {}) => ({ text, html: text, ...more });

  it('comes along as footnotes under the text, out of the title', () => {
    const block: SourceBlock = { type: 'paragraph', at: 1, level: 0, ...words('SYS-001: Hold[1] it.', { footnotes: [{ mark: '[1]', html: 'Always' }] }) };
    expect(gather({ blocks: [block], pictures: new Map() }).drafts[0]).toMatchObject({
      title: 'Hold it.',
      html: '<p>Hold[1] it.</p><p><sup>[1]</sup> Always</p>',
    });
  });

  it('is read as it was before tracked changes, where the recipe says so', () => {
    const tracked = { text: 'SYS-001: It may close.', html: 'SYS-001: It may close.', marked: '' };
    const block: SourceBlock = { type: 'paragraph', at: 1, level: 0, ...words('SYS-001: It shall close.', { tracked }) };
    const document = { blocks: [block], pictures: new Map() };
    expect(gather(document).drafts[0]!.title).toBe('It shall close.');
    expect(gather(document, { changes: 'rejected' }).drafts[0]!.title).toBe('It may close.');
  });

  it('is an item in a table inside a table only where the recipe makes items of such tables', () => {
    const rows = [
      ['ID', 'Requirement'],
      ['SYS-001', 'Close.'],
    ].map((row) => row.map((text): SourceCell => ({ text, html: text, span: 1 })));
    const blocks: SourceBlock[] = [
      { type: 'paragraph', at: 1, level: 1, text: 'A', html: 'A' },
      { type: 'table', at: 1, rows: [[{ text: 'frame', html: 'frame', span: 1 }]] },
      { type: 'table', at: 2, inside: 1, rows },
    ];
    expect(show(gather({ blocks, pictures: new Map() }))).toEqual(['# A', 'SYS-001 Close.']);
    expect(show(gather({ blocks, pictures: new Map() }, { tables: [] }))).toEqual(['# A']);
  });
});

describe('what may be a requirement and became none', () => {
  const codes = (outcome: ReturnType<typeof gather>) => outcome.issues.map((issue) => `${issue.code} ${issue.at}`);

  it('is told: a binding sentence in a section, and a second one of an item', () => {
    const document = documentOf([1, 'Gates'], 'Nobody must enter.', 'SYS-001: The gate shall close.', 'It is heavy.', 'It shall also lock.', 'SYS-002: Open.');
    const outcome = gather(document, { bindingWords: [] });
    expect(show(outcome)).toEqual(['# Gates', 'SYS-001 The gate shall close.', 'SYS-002 Open.']);
    expect(outcome.issues.map(({ code, at, severity }) => [code, at, severity])).toEqual([
      ['binding-loose', 'paragraph 2', 'warning'],
      ['binding-second', 'paragraph 5', 'note'],
    ]);
    expect(outcome.issues[1]!.message).toBe('"It shall also lock." says "shall" a second time; it became text of SYS-001');
  });

  it('is told of a table read as text that binds', () => {
    const table = {
      table: [
        ['Class', 'Remark'],
        ['I', 'The cover must be locked.'],
      ],
    };
    const document = documentOf([1, 'A'], 'The gate must close.', table);
    expect(codes(gather(document, { bindingWords: ['must'] }))).toEqual(['binding-in-table table 1']);
    expect(codes(gather(document, { bindingWords: ['shall'] }))).not.toContain('binding-in-table table 1');
  });

  it('is told of a table before the first heading', () => {
    const table = {
      table: [
        ['Issue', 'Date', 'By'],
        ['1', '2026', 'Ida'],
      ],
    };
    expect(codes(gather(documentOf(table, [1, 'A'], 'SYS-001: Close.')))).toEqual(['text-before table 1']);
  });
});

describe('rows across a table of items', () => {
  it('are the titles of those below them, as far as the table goes', () => {
    const table = {
      table: [['ID', 'Requirement'], ['Gates'], ['SYS-001', 'Close.'], ['Pumps'], ['SYS-002', 'Stop.']],
    };
    const outcome = gather(documentOf([1, 'A'], table, 'SYS-003: Open.', 'SYS-004: Wait.', 'SYS-005: Rest.'));
    expect(show(outcome)).toEqual(['# A', '# Gates', 'SYS-001 Close.', '# Pumps', 'SYS-002 Stop.', 'SYS-003 Open.', 'SYS-004 Wait.', 'SYS-005 Rest.']);
    expect(outcome.drafts.map((draft) => draft.parent)).toEqual([-1, 0, 1, 0, 3, 0, 0, 0]);
  });
});

describe('words in brackets that recur', () => {
  it('are no references', () => {
    const lines = Array.from({ length: 12 }, (_, at) => `[${['build', 'target', 'unstable'][at % 3]}] Something stands here.`);
    expect(proposeDocumentRecipe(defaultScheme, documentOf([1, 'A'], ...lines)).identifier).toBe(usualIdentifier);
    const different = lines.map((line, at) => line.replace(']', `.${at}]`));
    expect(proposeDocumentRecipe(defaultScheme, documentOf([1, 'A'], ...different)).identifier).not.toBe(usualIdentifier);
  });
});

describe('text between binding sentences', () => {
  const document = documentOf([1, 'Gates'], 'The gate must close.', 'It is grey.', { list: 'on both sides' }, 'The gate must lock.');
  const show = (outcome: ReturnType<typeof gather>) => outcome.drafts.map(({ kind, html }) => [kind, html]);
  const [close, lock] = ['<p>The gate must close.</p>', '<p>The gate must lock.</p>'];
  const grey = '<p>It is grey.</p><ul><li>on both sides</li></ul>';

  it('is proposed as text of the section, which no item has to answer for', () => {
    expect(proposeDocumentRecipe(defaultScheme, document).between).toBe('section');
    expect(show(gather(document)).map(([, html]) => html)).toEqual([grey, close, lock]);
  });

  it('is one item of information, with the list that it leads in', () => {
    const informative = defaultScheme.kinds.find((kind) => kind.informative && kind.layer === 'requirements')!.id;
    expect(show(gather(document, { between: 'information' }))).toEqual([
      ['requirement', ''],
      ['requirement', close],
      [informative, grey],
      ['requirement', lock],
    ]);
  });

  it('goes with the item before, or is left out and told', () => {
    expect(show(gather(document, { between: 'before' })).map(([, html]) => html)).toEqual(['', close + grey, lock]);
    const skipped = gather(document, { between: 'skip' });
    expect(show(skipped).map(([, html]) => html)).toEqual(['', close, lock]);
    expect(skipped.issues.map(({ code, at }) => [code, at])).toEqual([
      ['text-between', 'paragraph 3'],
      ['text-between', 'paragraph 4'],
    ]);
  });

  it('inside a paragraph is parted from the sentences that bind where it has a place of its own', () => {
    const one = documentOf([1, 'Gates'], 'Gates are old. They must close. They are grey. They must lock. Nobody minds.');
    const htmls = (between: DocumentRecipe['between']) => gather(one, { eachSentence: true, between }).drafts.map((draft) => draft.html);
    expect(htmls('section')).toEqual(['<p>Gates are old.</p><p>They are grey.</p><p>Nobody minds.</p>', '<p>They must close.</p>', '<p>They must lock.</p>']);
    expect(htmls('information')).toEqual([
      '<p>Gates are old.</p>',
      '<p>They must close.</p>',
      '<p>They are grey.</p>',
      '<p>They must lock.</p>',
      '<p>Nobody minds.</p>',
    ]);
  });
});

describe('documents that tell no items', () => {
  it('make one of each paragraph, or of each numbered one, so that nothing is lost', () => {
    const plain = documentOf('Close the gates at dusk.', 'Keep the lamps lit.');
    expect(proposeDocumentRecipe(defaultScheme, plain).paragraphs).toBe('each');
    expect(show(gather(plain))).toEqual(['? Close the gates at dusk.', '? Keep the lamps lit.']);
    const numbered = documentOf('How to do it.', '1.1 Close the gates at dusk.', '1.2 Keep the lamps lit.', '1.3 Sweep the stair.', 'Always.');
    expect(proposeDocumentRecipe(defaultScheme, numbered).paragraphs).toBe('numbered');
    const outcome = gather(numbered, { typedHeadings: false });
    expect(outcome.drafts.map((draft) => draft.html)).toEqual([
      '<p>1.1 Close the gates at dusk.</p>',
      '<p>1.2 Keep the lamps lit.</p>',
      '<p>1.3 Sweep the stair.</p><p>Always.</p>',
    ]);
    expect(outcome.issues.map((issue) => issue.code)).toEqual(['text-before']);
  });

  it('are not those with references, binding words or headings', () => {
    for (const document of [documentOf('SYS-001: Close.', 'It is old.'), documentOf('The gate must close.'), documentOf([1, 'Gates'], 'They are old.')])
      expect(proposeDocumentRecipe(defaultScheme, document).paragraphs).toBeUndefined();
  });
});

describe('what only looks like items', () => {
  it('stays text: labels and headings in samples of code', () => {
    const code: SourceBlock = { type: 'paragraph', at: 3, level: 0, text: 'Priority: High', html: 'Priority: High', aside: 'code' };
    const document = documentOf([1, 'A'], 'SYS-001: Close.');
    document.blocks.push(code, { ...code, text: 'SYS-002: Open.', html: 'SYS-002: Open.' });
    const outcome = gather(document, { labels: [{ label: 'Priority', meaning: { as: 'field', field: 'priority' } }] });
    expect(show(outcome)).toEqual(['# A', 'SYS-001 Close.']);
    expect([outcome.drafts[1]!.fields, outcome.drafts[1]!.html]).toEqual([{}, expect.stringContaining('SYS-002: Open.')]);
  });

  it('is told and skipped: lines of a table of contents', () => {
    const line: SourceBlock = { type: 'paragraph', at: 1, level: 0, text: '1.2 Gates ..... 7', html: '1.2 Gates ..... 7', aside: 'contents' };
    const document = documentOf([1, 'A'], 'SYS-001: Close.');
    document.blocks.unshift(line);
    const outcome = gather(document);
    expect(outcome.issues.map((issue) => issue.code)).toEqual(['contents-skipped']);
    expect(show(outcome)).toEqual(['# A', 'SYS-001 Close.']);
  });
});
