import { applyExchangeRecipe, defaultScheme, proposeExchangeRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { openArchive } from '../archive/zip.js';
import { sanitiseRichText } from '../rich-text/sanitise.js';
import { canonicalXml } from '../testing/canonical-xml.js';
import { zipOf } from '../testing/office-files.js';
import { dialects, type GeneratedObject, reqifOf } from '../testing/reqif-files.js';
import { findEmbeddedPart, readReqifFile } from './read-reqif-file.js';
import { rewriteReqifFile } from './rewrite-reqif-file.js';
import { noEdits, type ReqifEdits, type ReqifValue } from './rewrite-reqif.js';

const dialect = dialects['every element prefixed']!;
const objects: GeneratedObject[] = [
  { id: 'o-1', foreign: 'G-1', text: 'See <object data="media\\gate.png" type="image/png">the gate</object>', priority: 'High' },
  {
    id: 'o-2',
    foreign: 'G-2',
    text: '<p>Loads: <object data="loads%20of%202026.ole" type="application/oleobject"><object data="media/loads.png" type="image/png"></object></object></p>',
  },
  { id: 'o-3', foreign: 'G-3', text: '<object data="gone.pdf" type="application/pdf"></object>' },
  { id: 'o-4', foreign: 'G-4', text: '<object data="media/formula.png" type="image/png" name="sum of loads"></object>' },
];
const xml = reqifOf(
  dialect,
  objects,
  objects.map(({ id }) => ({ object: id })),
);
const parts = {
  'x/gates.reqif': xml,
  'x/media/gate.png': 'gate',
  'x/media/loads.png': 'loads',
  'media/formula.png': 'formula',
  'x/loads of 2026.ole': 'ole',
  'notes.txt': 'for nobody',
};
const archive = zipOf(parts);
const partsOf = async (bytes: Uint8Array) => {
  const opened = await openArchive(bytes);
  return Object.fromEntries(await Promise.all(opened.names.map(async (name) => [name, (await opened.read(name)).toString()] as const)));
};
const edit = (more: Partial<ReqifEdits>): ReqifEdits => ({ ...noEdits, now: '2026-11-23T12:00:00Z', ...more });
const rich = (html: string): ReqifValue => ({ kind: 'rich', html });

describe('a ReqIF archive', () => {
  it('gives its pictures and objects by the names that the texts have for them', async () => {
    const { exchange, issues } = await readReqifFile(archive);
    expect([...exchange.pictures].map(([name, { mediaType, bytes }]) => [name, mediaType, Buffer.from(bytes).toString()])).toEqual([
      ['media\\gate.png', 'image/png', 'gate'],
      ['loads%20of%202026.ole', 'application/oleobject', 'ole'],
      ['media/loads.png', 'image/png', 'loads'],
      ['media/formula.png', 'image/png', 'formula'],
    ]);
    expect(issues.filter((issue) => issue.severity === 'warning').map((issue) => [issue.code, issue.at])).toEqual([['object-outside', 'gone.pdf']]);
  });

  it('shows pictures with what stands in for them, and links around other objects', async () => {
    const { exchange } = await readReqifFile(archive);
    const texts = exchange.objects.map((object) => String(object.values['a-text']));
    expect(texts).toEqual([
      '<p>See <img src="coomb-picture:media\\gate.png" alt="the gate" /></p>',
      '<p>Loads: <a href="coomb-file:loads%20of%202026.ole"><img src="coomb-picture:media/loads.png" alt="" /></a></p>',
      '<p><a href="coomb-file:gone.pdf">gone.pdf</a></p>',
      '<p><img src="coomb-picture:media/formula.png" alt="sum of loads" /></p>',
    ]);
    for (const text of texts) expect(sanitiseRichText(text)).toBe(text);
  });

  it('keeps a text that is a picture and nothing else', async () => {
    const { exchange } = await readReqifFile(archive);
    const { drafts } = applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, exchange), exchange);
    expect(drafts.map((draft) => draft.html).filter((html) => html.includes('<img'))).toHaveLength(3);
  });

  it('goes out again with every part as it was', async () => {
    const { bytes, extension } = await rewriteReqifFile(archive, edit({}));
    expect(extension).toBe('reqifz');
    const { 'x/gates.reqif': text, ...others } = await partsOf(bytes);
    expect(canonicalXml(text!)).toEqual(canonicalXml(xml));
    const { 'x/gates.reqif': _, ...before } = parts;
    expect(others).toEqual(before);
  });

  it('carries edited texts with their pictures, objects and new ones', async () => {
    const { exchange } = await readReqifFile(archive);
    const html = `${String(exchange.objects[1]!.values['a-text'])}<p><img src="coomb-picture:objects/new.png" alt="new"></p>`;
    const { bytes } = await rewriteReqifFile(
      archive,
      edit({ values: new Map([['o-2', new Map([['a-text', rich(html)]])]]), mediaTypes: exchange.embedded }),
      new Map([
        ['objects/new.png', { mediaType: 'image/png', bytes: Buffer.from('new') }],
        ['media/loads.png', { mediaType: 'image/png', bytes: Buffer.from('never written') }],
      ]),
    );
    const back = await readReqifFile(bytes);
    expect(back.exchange.objects[1]!.values['a-text']).toBe(html.replace('alt="new">', 'alt="new" />'));
    expect(back.exchange.embedded.get('loads%20of%202026.ole')).toBe('application/oleobject');
    expect(Buffer.from(back.exchange.pictures.get('media/loads.png')!.bytes).toString()).toBe('loads');
    expect((await partsOf(bytes))['x/objects/new.png']).toBe('new');
  });

  it('is made of a plain file when a picture comes in', async () => {
    const plain = Buffer.from(xml);
    expect((await rewriteReqifFile(plain, edit({}))).extension).toBe('reqif');
    const written = await rewriteReqifFile(plain, edit({}), new Map([['objects/a.png', { mediaType: 'image/png', bytes: Buffer.from('a') }]]), 'Gates.reqif');
    expect(written.extension).toBe('reqifz');
    expect(Object.keys(await partsOf(written.bytes))).toEqual(['Gates.reqif', 'objects/a.png']);
  });
});

describe('an archive of several exchanges', () => {
  const of = (ids: string[], relations: [string, string][] = []) =>
    reqifOf(
      dialect,
      ids.map((id) => ({ id, foreign: id.toUpperCase(), text: `The ${id} shall hold.` })),
      ids.map((object) => ({ object })),
      relations,
    );
  const two = zipOf({ 'b.reqif': of(['b-1', 'a-1']), 'a.reqif': of(['a-1', 'a-2'], [['a-2', 'b-1']]) });

  it('is read as one, and says which object stands where', async () => {
    const { exchange, issues } = await readReqifFile(two);
    expect(exchange.objects.map(({ id, part }) => [id, part])).toEqual([
      ['a-1', 'a.reqif'],
      ['a-2', 'a.reqif'],
      ['b-1', 'b.reqif'],
    ]);
    expect(exchange.types).toMatchObject([{ id: 't-requirement', count: 4 }]);
    expect(issues.at(-1)).toMatchObject({ code: 'identifier-twice', at: expect.stringMatching(/^b\.reqif, line \d+$/) });
    const { drafts, links } = applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, exchange), exchange);
    expect(drafts.find((draft) => draft.externalId === 'b-1')!.place.says).toMatch(/^b\.reqif, line \d+$/);
    expect(links).toMatchObject([{ linkKind: 'derives', target: 'b-1' }]);
  });

  it('is edited each part by itself, and takes what is new once', async () => {
    const { bytes } = await rewriteReqifFile(
      two,
      edit({
        values: new Map([['b-1', new Map([['a-text', rich('<p>New.</p>')]])]]),
        added: [{ id: 'n-1', type: 't-requirement', values: new Map([['a-foreign', { kind: 'text', text: 'N-1' }]]) }],
        addedRelations: [{ id: 'r-n', type: 't-derives', from: 'n-1', to: 'b-1' }],
      }),
    );
    const { exchange } = await readReqifFile(bytes);
    expect(exchange.objects.map((object) => object.id)).toEqual(['a-1', 'a-2', 'n-1', 'b-1']);
    expect(exchange.objects.at(-1)!.values['a-text']).toBe('<p>New.</p>');
    expect(exchange.relations.map((relation) => relation.id)).toContain('r-n');
    expect(exchange.relations).toHaveLength(2);
  });
});

describe('choices that the file has no option for', () => {
  it('become options, after those that are there', async () => {
    const plain = Buffer.from(xml);
    const values = new Map([['o-1', new Map([['a-priority', { kind: 'choice', labels: ['Urgent & now'] } satisfies ReqifValue]])]]);
    const { bytes } = await rewriteReqifFile(plain, edit({ values, options: new Map([['d-Priority', ['Urgent & now']]]) }));
    const { exchange } = await readReqifFile(bytes);
    expect(exchange.objects[0]!.values['a-priority']).toEqual(['Urgent & now']);
    expect(exchange.types[0]!.attributes.find((one) => one.id === 'a-priority')).toMatchObject({
      datatype: 'd-Priority',
      options: ['High', 'Low', 'Urgent & now'],
    });
    expect(bytes.toString()).toContain('KEY="2"');
  });

  it.each([
    ['an empty list', '<reqif:SPECIFIED-VALUES></reqif:SPECIFIED-VALUES>'],
    ['an empty list in one tag', '<reqif:SPECIFIED-VALUES/>'],
    ['no list', ''],
  ])('become the first ones where a datatype has %s', async (_, list) => {
    const bare = xml.replace(/(LONG-NAME="Priority">)<reqif:SPECIFIED-VALUES>.*?<\/reqif:SPECIFIED-VALUES>/s, `$1${list}`);
    expect(bare).not.toContain('e-High" LAST');
    const values = new Map([['o-1', new Map([['a-priority', { kind: 'choice', labels: ['New'] } satisfies ReqifValue]])]]);
    const { bytes } = await rewriteReqifFile(Buffer.from(bare), edit({ values, options: new Map([['d-Priority', ['New']]]) }));
    const { exchange } = await readReqifFile(bytes);
    expect(exchange.objects[0]!.values['a-priority']).toEqual(['New']);
  });
});

describe('the address of an object', () => {
  const names = new Set(['x/a b.png', 'c.png', 'x/50%.png']);

  it.each([
    ['a b.png', 'x/a b.png'],
    ['./a%20b.png', 'x/a b.png'],
    ['50%.png', 'x/50%.png'],
    ['c.png', 'c.png'],
    ['..\\x\\a b.png', undefined],
    ['https://example.org/c.png', undefined],
  ])('%s means %s', (address, part) => {
    expect(findEmbeddedPart(names, 'x/e.reqif', address)).toBe(part);
  });
});
