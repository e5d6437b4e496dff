import { applyExchangeRecipe, defaultScheme, proposeExchangeRecipe } from '@coomb/core';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { canonicalXml } from '../testing/canonical-xml.js';
import { dialects, reqifOf } from '../testing/reqif-files.js';
import { readReqifFile } from './read-reqif-file.js';
import { noEdits } from './rewrite-reqif.js';
import { rewriteReqifFile } from './rewrite-reqif-file.js';

const plain = reqifOf(
  dialects['default namespace']!,
  [
    { id: 'o-1', foreign: 'G-1', text: '<p>Tür, “Grüße” – 5 €</p>', priority: 'High', methods: ['Test'] },
    { id: 'o-2', foreign: 'G-2', text: '<p>日本語 Ω</p>', priority: 'Low' },
  ],
  [{ object: 'o-1' }, { object: 'o-2' }],
  [['o-2', 'o-1']],
);
const declared = (encoding: string) => plain.replace('encoding="UTF-8"', `encoding="${encoding}"`);
const latin = declared('ISO-8859-1').replace('日本語 Ω', 'Überlauf');
const windows = declared('windows-1252').replace('日本語 Ω', 'Überlauf');
/** Windows-1252 by hand, so that nothing of ours is tested against itself. */
const toWindows = (text: string) => Buffer.from([...text].map((one) => ({ '€': 0x80, '“': 0x93, '”': 0x94, '–': 0x96 })[one] ?? one.charCodeAt(0)));
const decodeWindows = (bytes: Buffer) => [...bytes].map((byte) => ({ 128: '€', 147: '“', 148: '”', 150: '–' })[byte] ?? String.fromCharCode(byte)).join('');

describe('ReqIF in encodings of elsewhere', () => {
  it.each<[string, Buffer, (bytes: Buffer) => string]>([
    ['UTF-8 with a mark', Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from(plain)]), (bytes) => bytes.subarray(3).toString()],
    [
      'UTF-16, little end first',
      Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(declared('UTF-16'), 'utf16le')]),
      (bytes) => bytes.subarray(2).toString('utf16le'),
    ],
    [
      'UTF-16, big end first',
      Buffer.concat([Buffer.from([0xfe, 0xff]), Buffer.from(declared('UTF-16'), 'utf16le').swap16()]),
      (bytes) => Buffer.from(bytes.subarray(2)).swap16().toString('utf16le'),
    ],
    ['UTF-16 without a mark', Buffer.from(declared('UTF-16'), 'utf16le'), (bytes) => bytes.toString('utf16le')],
    ['Windows-1252', toWindows(windows), decodeWindows],
    ['ISO-8859-1, as Windows writes it', toWindows(latin), decodeWindows],
  ])('%s is read, and goes out in the same encoding with every letter', async (_, bytes, decode) => {
    const { exchange } = await readReqifFile(bytes);
    expect(exchange.objects[0]!.values['a-text']).toBe('<p>Tür, “Grüße” – 5 €</p>');
    const written = await rewriteReqifFile(bytes, noEdits);
    expect(written.bytes.subarray(0, 2)).toEqual(bytes.subarray(0, 2));
    expect(await canonicalXml(decode(written.bytes).replace(/encoding="[^"]*"/, ''))).toEqual(
      await canonicalXml(decode(bytes).replace(/encoding="[^"]*"/, '')),
    );
    expect(/encoding="([^"]*)"/.exec(decode(written.bytes))?.[1]).toBe(/encoding="([^"]*)"/.exec(decode(bytes))?.[1]);
    // Letters that the encoding lacks are written as references.
    const edited = await rewriteReqifFile(bytes, {
      ...noEdits,
      values: new Map([['o-1', new Map([['a-text', { kind: 'rich', html: '<p>Ω und ä</p>' }]])]]),
      now: '2026-11-27T00:00:00Z',
    });
    expect((await readReqifFile(edited.bytes)).exchange.objects[0]!.values['a-text']).toBe('<p>Ω und ä</p>');
  });
});

describe('ReqIF whose parts stand in another order', () => {
  const move = (xml: string, part: string, before: string) => {
    const [whole] = new RegExp(`<${part}>[\\s\\S]*</${part}>\\n?`).exec(xml)!;
    return xml.replace(whole, '').replace(`<${before}>`, `${whole}<${before}>`);
  };
  const turned = move(plain, 'SPEC-OBJECTS', 'DATATYPES');

  it('names choices all the same, and writes them', async () => {
    expect(turned.indexOf('<SPEC-OBJECTS>')).toBeLessThan(turned.indexOf('<DATATYPES>'));
    const { exchange } = await readReqifFile(Buffer.from(turned));
    expect(exchange.objects[0]!.values).toMatchObject({ 'a-priority': ['High'], 'a-methods': ['Test'] });
    const edited = await rewriteReqifFile(Buffer.from(turned), {
      ...noEdits,
      values: new Map([['o-1', new Map([['a-priority', { kind: 'choice', labels: ['Low'] }]])]]),
      now: '2026-11-27T00:00:00Z',
    });
    expect((await readReqifFile(edited.bytes)).exchange.objects[0]!.values['a-priority']).toEqual(['Low']);
  });
});

describe('ReqIF that leaves things to its types', () => {
  const withDefaults = plain
    .replace(/(<ATTRIBUTE-DEFINITION-REAL [^>]*>)/, '$1<DEFAULT-VALUE><ATTRIBUTE-VALUE-REAL THE-VALUE="7.5"/></DEFAULT-VALUE>')
    .replace(
      /(<ATTRIBUTE-DEFINITION-ENUMERATION IDENTIFIER="a-methods"[^>]*>)/,
      '$1<DEFAULT-VALUE><ATTRIBUTE-VALUE-ENUMERATION><VALUES><ENUM-VALUE-REF>m-2</ENUM-VALUE-REF></VALUES></ATTRIBUTE-VALUE-ENUMERATION></DEFAULT-VALUE>',
    );

  it('takes default values for what an object says nothing of, and for nothing else', async () => {
    const { exchange } = await readReqifFile(Buffer.from(withDefaults));
    const [first, second] = exchange.objects;
    expect([first!.values['a-weight'], second!.values['a-weight']]).toEqual(['7.5', '7.5']);
    expect(first!.values['a-methods']).toEqual(['Test']);
    expect(second!.values['a-methods']).toHaveLength(1);
    expect(await canonicalXml((await rewriteReqifFile(Buffer.from(withDefaults), noEdits)).bytes.toString())).toEqual(await canonicalXml(withDefaults));
  });

  it('tells an object without a usable type by its identifier, and keeps it in the file', async () => {
    const broken = plain.replace(/(<SPEC-OBJECT IDENTIFIER="o-2"[\s\S]*?<SPEC-OBJECT-TYPE-REF>)[^<]*/, '$1t-none');
    const { exchange, issues } = await readReqifFile(Buffer.from(broken));
    expect(issues).toContainEqual(expect.objectContaining({ code: 'object-typeless', message: expect.stringMatching(/object o-2 is of the type t-none/) }));
    const { drafts } = applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, exchange), exchange);
    expect(drafts.map((draft) => draft.externalId)).toEqual(['o-1']);
    expect(await canonicalXml((await rewriteReqifFile(Buffer.from(broken), noEdits)).bytes.toString())).toEqual(await canonicalXml(broken));
  });
});

describe('ReqIF archives as computers pack them', () => {
  it('are read past hidden resource files, which go out again', async () => {
    const fork = new Uint8Array([0, 5, 22, 7, 0]);
    const archive = zipSync({ 'a/x.reqif': Buffer.from(plain), '__MACOSX/a/._x.reqif': fork, 'a/._x.reqif': fork, '.DS_Store': fork });
    const { exchange } = await readReqifFile(archive);
    expect(exchange.objects).toHaveLength(2);
    const { exchange: again } = await readReqifFile((await rewriteReqifFile(archive, noEdits)).bytes);
    expect(again.objects).toEqual(exchange.objects);
  });
});
