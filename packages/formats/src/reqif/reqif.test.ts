import { applyExchangeRecipe, defaultScheme, proposeExchangeRecipe } from '@coomb/core';
import { below, pick, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { sanitiseRichText } from '../rich-text/sanitise.js';
import { canonicalXml } from '../testing/canonical-xml.js';
import { type Dialect, dialects, type GeneratedNode, type GeneratedObject, reqifOf } from '../testing/reqif-files.js';
import { inChunks } from '../xml/walk-xml.js';
import { readReqif } from './read-reqif.js';
import { noEdits, type ReqifEdits, rewriteReqif } from './rewrite-reqif.js';

const objects: GeneratedObject[] = [
  { id: 'o-1', foreign: 'CH-1', text: '', chapter: 'Movement &amp; rest' },
  {
    id: 'o-2',
    foreign: 'G-1',
    text: '<p>The gate shall <b>stop</b> within 2&#160;s.</p><ul><li>at once</li></ul>',
    priority: 'High',
    methods: ['Test', 'Analysis'],
    weight: 2.5,
    due: '2026-12-24',
  },
  { id: 'o-3', foreign: 'G-2', text: 'See <object data="media/gate.png" type="image/png">gate</object>', priority: 'Low' },
];
const nodes: GeneratedNode[] = [{ object: 'o-1', children: [{ object: 'o-2', children: [{ object: 'o-3' }] }, { object: 'o-3' }] }];
const relations: [string, string][] = [['o-3', 'o-2']];

const read = (xml: string, size = 1 << 16) => readReqif(inChunks(Buffer.from(xml), size));
const rewrite = async (xml: string, edits: Partial<ReqifEdits> = {}, size = 1 << 16) => {
  let out = '';
  for await (const part of rewriteReqif(inChunks(Buffer.from(xml), size), { ...noEdits, now: '2026-11-23T12:00:00Z', ...edits })) out += part;
  return out;
};
const draftsOf = async (xml: string) => {
  const { document } = await read(xml);
  return applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, document), document);
};

describe.each(Object.entries(dialects))('ReqIF in the dialect "%s"', (_, dialect: Dialect) => {
  const xml = reqifOf(dialect, objects, nodes, relations);

  it('reads types, values of every datatype, the hierarchy and relations', async () => {
    const { document } = await read(xml);
    expect(document).toMatchObject({ title: 'Gates & locks', tool: 'Generator' });
    expect(document.types[0]!.attributes.map((one) => [one.name, one.type, one.options])).toEqual([
      ['ReqIF.ForeignID', 'text', undefined],
      ['ReqIF.Text', 'rich', undefined],
      ['ReqIF.ChapterName', 'rich', undefined],
      ['Priority', 'choice', ['High', 'Low']],
      ['Verification method', 'choices', ['Test', 'Analysis']],
      ['Weight', 'number', undefined],
      ['Due', 'date', undefined],
    ]);
    expect(document.objects[1]!.values).toMatchObject({
      'a-foreign': 'G-1',
      'a-priority': ['High'],
      'a-methods': ['Test', 'Analysis'],
      'a-weight': '2.5',
      'a-due': '2026-12-24',
    });
    expect(document.objects[1]!.values['a-text']).toBe('<p>The gate shall <strong>stop</strong> within 2\u00a0s.</p><ul><li>at once</li></ul>');
    expect(document.objects[2]!.values['a-text']).toContain('<img src="coomb-picture:media/gate.png"');
    expect(document.outlines).toMatchObject([
      { name: 'Gates', nodes: [{ object: 'o-1', children: [{ object: 'o-2', children: [{ object: 'o-3' }] }, { object: 'o-3' }] }] },
    ]);
    expect(document.relations).toMatchObject([{ type: 't-derives', from: 'o-3', to: 'o-2' }]);
  });

  it('names what has no place here', async () => {
    const { issues } = await read(xml);
    expect(issues.map((issue) => issue.at)).toEqual(dialect.extensions ? ['relation groups', 'tool extensions'] : ['relation groups']);
  });

  it('becomes items, chapters and links by the proposed recipe', async () => {
    const { drafts, links, issues } = await draftsOf(xml);
    expect(drafts.map((draft) => [draft.role, draft.reference, draft.title, draft.parent])).toEqual([
      ['section', 'CH-1', 'Movement & rest', -1],
      ['item', 'G-1', expect.stringContaining('The gate shall stop'), 0],
      ['item', 'G-2', expect.any(String), 1],
    ]);
    expect(drafts[1]!.fields).toMatchObject({ priority: 'High', method: ['Test', 'Analysis'] });
    expect(links).toMatchObject([{ draft: 2, linkKind: 'derives', reversed: false, target: 'o-2' }]);
    expect(issues.map((issue) => issue.code)).toContain('object-shared');
  });

  it('goes out again as it came in when nothing was edited, whatever the pieces it is read in', async () => {
    for (const size of [1 << 16, 997, 61]) expect(canonicalXml(await rewrite(xml, {}, size))).toEqual(canonicalXml(xml));
  });

  it('carries edits of values, and nothing else changes', async () => {
    const out = await rewrite(xml, {
      values: new Map([
        [
          'o-2',
          new Map([
            ['a-text', { kind: 'rich' as const, html: '<p>Stop within <u>3</u> s.<br>Always.</p>' }],
            ['a-methods', { kind: 'choice' as const, labels: ['Analysis'] }],
            ['a-weight', null],
          ]),
        ],
      ]),
    });
    const { document } = await read(out);
    expect(document.objects[1]!.values).toMatchObject({
      'a-foreign': 'G-1',
      'a-text': '<p>Stop within <u>3</u> s.<br />Always.</p>',
      'a-methods': ['Analysis'],
    });
    expect(document.objects[1]!.values['a-weight']).toBeUndefined();
    const others = (text: string) => canonicalXml(text).filter((line) => !/o-2/.test(line)).length;
    expect(document.objects.filter((one) => one.id !== 'o-2')).toEqual(
      (await read(xml)).document.objects.filter((one) => one.id !== 'o-2').map((one) => ({ ...one, line: expect.any(Number) })),
    );
    expect(others(out)).toBeLessThan(others(xml) + 20);
  });

  it('carries new, removed and moved objects and relations', async () => {
    const out = await rewrite(xml, {
      added: [
        {
          id: 'o-9',
          type: 't-requirement',
          values: new Map([
            ['a-foreign', { kind: 'text', text: 'G-9 "new" & <odd>' }],
            ['a-text', { kind: 'rich', html: '<p>New.</p>' }],
          ]),
        },
      ],
      removed: new Set(['o-3']),
      removedRelations: new Set(['r-1']),
      addedRelations: [{ id: 'r-9', type: 't-derives', from: 'o-9', to: 'o-2' }],
      hierarchies: new Map([
        [
          's-1',
          [
            { object: 'o-9', children: [] },
            { object: 'o-1', children: [{ object: 'o-2', children: [] }] },
          ],
        ],
      ]),
    });
    const { document } = await read(out);
    expect(document.objects.map((one) => one.id)).toEqual(['o-1', 'o-2', 'o-9']);
    expect(document.objects[2]!.values['a-foreign']).toBe('G-9 "new" & <odd>');
    expect(document.relations).toEqual([{ id: 'r-9', type: 't-derives', from: 'o-9', to: 'o-2' }]);
    expect(document.outlines[0]!.nodes).toEqual([
      { object: 'o-9', children: [] },
      { object: 'o-1', children: [{ object: 'o-2', children: [] }] },
    ]);
  });
});

describe('ReqIF from elsewhere', () => {
  const dialect = dialects['default namespace']!;

  it.each([1, 2, 3, 4])('of any shape comes back equal (seed %i)', async (seed) => {
    const random = seeded(seed);
    const many = Array.from(
      { length: 60 },
      (_, i): GeneratedObject => ({
        id: `o-${i}`,
        foreign: `G-${i}`,
        text: pick(random, ['plain', '<p>one</p><p>two &amp; three</p>', 'a<br/>b', '<table><tr><td>1</td></tr></table>']),
        ...(random() < 0.5 && { priority: pick(random, ['High', 'Low'] as const) }),
        ...(random() < 0.3 && { weight: below(random, 100) / 4 }),
        ...(random() < 0.2 && { chapter: `Chapter ${i}` }),
      }),
    );
    const shape: GeneratedNode[] = [];
    const open: GeneratedNode[] = [];
    for (const { id } of many) {
      const node: GeneratedNode = { object: id, children: [] };
      (open.length && random() < 0.6 ? pick(random, open).children! : shape).push(node);
      open.push(node);
    }
    const xml = reqifOf(
      pick(random, Object.values(dialects)),
      many,
      shape,
      Array.from({ length: 20 }, () => [`o-${below(random, 60)}`, `o-${below(random, 60)}`]),
    );
    expect(canonicalXml(await rewrite(xml, {}, 1 + below(random, 4000)))).toEqual(canonicalXml(xml));
    const { drafts } = await draftsOf(xml);
    expect(drafts).toHaveLength(60);
    expect(drafts.every((draft) => draft.parent < draft.key)).toBe(true);
  });

  it('names identifiers given twice, dangling relations and missing objects', async () => {
    const xml = reqifOf(
      dialect,
      [objects[1]!, objects[1]!],
      [{ object: 'o-2' }, { object: 'nowhere' }],
      [
        ['o-2', 'elsewhere'],
        ['gone', 'o-2'],
        ['gone', 'elsewhere'],
      ],
    );
    const { document, issues } = await read(xml);
    expect(issues.map((issue) => issue.code)).toContain('identifier-twice');
    const outcome = applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, document), document);
    expect(outcome.issues.map((issue) => issue.code)).toEqual(expect.arrayContaining(['object-missing', 'relation-outside', 'relation-dangling']));
    expect(outcome.drafts).toHaveLength(1);
    expect(outcome.links).toMatchObject([
      { draft: 0, reversed: false, target: 'elsewhere' },
      { draft: 0, reversed: true, target: 'gone' },
    ]);
  });

  it('keeps objects that no outline shows, and says so', async () => {
    const { drafts, issues } = await draftsOf(reqifOf(dialect, objects, [{ object: 'o-1' }]));
    expect(drafts.map((draft) => draft.externalId)).toEqual(['o-1', 'o-2', 'o-3']);
    expect(issues).toContainEqual(expect.objectContaining({ code: 'object-loose', message: expect.stringContaining('2 objects') }));
  });

  it('moves children up where the recipe leaves a type out, and counts what it leaves', async () => {
    const { document } = await read(reqifOf(dialect, objects, nodes));
    const recipe = proposeExchangeRecipe(defaultScheme, document);
    const outcome = applyExchangeRecipe(defaultScheme, { ...recipe, types: recipe.types.map((type) => ({ ...type, kind: null })) }, document);
    expect(outcome.drafts).toEqual([]);
    expect(outcome.issues).toContainEqual(expect.objectContaining({ code: 'type-left', message: expect.stringContaining('3 objects') }));
  });

  it('says of relations without a kind that they make no links', async () => {
    const { document } = await read(reqifOf(dialect, objects, nodes, relations));
    const recipe = proposeExchangeRecipe(defaultScheme, document);
    const { links, issues } = applyExchangeRecipe(
      defaultScheme,
      { ...recipe, relations: recipe.relations.map((one) => ({ ...one, linkKind: null })) },
      document,
    );
    expect(links).toEqual([]);
    expect(issues).toContainEqual(expect.objectContaining({ code: 'relation-unsaid', at: 'derived from' }));
  });

  it('shows drawings as pictures', async () => {
    const text = '<object data="objects/f.svg" type="image/svg+xml">sum</object>';
    const { document } = await read(reqifOf(dialect, [{ id: 'o-1', foreign: 'A', text }], [{ object: 'o-1' }]));
    expect(document.objects[0]!.values['a-text']).toContain('<img src="coomb-picture:objects/f.svg" alt="sum"');
  });

  it('refuses XML of another kind', async () => {
    await expect(read('<project/>')).rejects.toThrow('starts with <project>');
  });
});

describe('rich text of an exchange', () => {
  const pieces = [
    'a &amp; b',
    '<p>one</p>',
    '<ul><li>x</li><li><b>y</b></li></ul>',
    '<br/>',
    '<i>z</i>',
    '<script>alert(1)</script>',
    '<style>p{}</style>',
    '<a href="javascript:x()">j</a>',
  ];
  const more = [
    '<a href="https://example.org/?a=1&amp;b=2">h</a>',
    '<object data="a.png" type="image/png">t</object>',
    '<p onclick="x()" style="color:red">s</p>',
    '<table><tr><td>1</td></tr></table>',
    '<span>&#60;b&#62;</span>',
  ];

  it.each([1, 2, 3, 4, 5, 6])('needs no sanitising after it was read (seed %i)', async (seed) => {
    const random = seeded(seed);
    const text = Array.from({ length: 12 }, () => pick(random, [...pieces, ...more])).join('');
    const { document } = await read(reqifOf(dialects['default namespace']!, [{ id: 'o-1', foreign: 'A', text }], [{ object: 'o-1' }]));
    const html = String(document.objects[0]!.values['a-text']);
    expect(html).not.toMatch(/script|onclick|style|javascript/);
    expect(sanitiseRichText(html)).toBe(html);
  });
});
