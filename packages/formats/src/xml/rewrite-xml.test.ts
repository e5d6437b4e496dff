import { describe, expect, it } from 'vitest';
import { inChunks, walkXml } from './walk-xml.js';
import { rewriteXml, spliceXml, type XmlEdit } from './rewrite-xml.js';

const file = `<?xml version="1.0"?>
<!-- <not an="element"/> -->
<a x='1 > 0' y = "two">
  <b/>
  <c>old <![CDATA[<d/>]]> text</c>
  <e f="7"><g/><h>kept</h></e>
  tail
</a>
`;
const edit = (edits: [number, XmlEdit][]) => spliceXml(file, new Map(edits));

describe('rewriteXml', () => {
  it('leaves a file that nothing is changed in as it is', () => expect(rewriteXml(Buffer.from(file), new Map()).toString()).toBe(file));

  it('numbers elements as readers meet them', async () => {
    const names: string[] = [];
    await walkXml(inChunks(Buffer.from(file)), { open: (name) => void names.push(name), close: () => undefined });
    names.forEach((name, index) =>
      expect(edit([[index, { attributes: { mark: 'x' } }]])).toMatch(new RegExp(`<${name}(?:[^>"']|'[^']*'|"[^"]*")* mark="x"/?>`)),
    );
  });

  it('sets, adds and takes away attributes, however they are written', () => {
    expect(edit([[0, { attributes: { x: 'a "b" & <c>', z: '$1' } }]])).toContain('<a x="a &quot;b&quot; &amp; &lt;c&gt;" y = "two" z="$1">');
    expect(edit([[0, { attributes: { y: null } }]])).toContain(`<a x='1 > 0'>`);
  });

  it('replaces texts, and gives an empty element one', () => {
    expect(edit([[2, { text: 'new & <better>' }]])).toContain('<c>new &amp; &lt;better&gt;</c>');
    expect(edit([[1, { text: 'filled' }]])).toContain('<b>filled</b>');
  });

  it('drops an element with all that is in it and the line that it stood on', () =>
    expect(edit([[3, { drop: true }]])).toBe(file.replace('\n  <e f="7"><g/><h>kept</h></e>', '')));

  it('keeps counting inside what it drops', () =>
    expect(
      edit([
        [3, { drop: true }],
        [5, { text: 'no' }],
      ]),
    ).toBe(file.replace('\n  <e f="7"><g/><h>kept</h></e>', '')));

  it('appends to full and to empty elements', () => {
    expect(edit([[3, { append: '<n/>' }]])).toContain('<h>kept</h><n/></e>');
    expect(edit([[4, { append: '<n/>' }]])).toContain('<g><n/></g>');
  });

  it.each([
    ['utf16le', 'UTF-16'],
    ['latin1', 'ISO-8859-1'],
  ] as const)('keeps the encoding %s', (encoding, name) => {
    const text = `${encoding === 'utf16le' ? '\ufeff' : ''}<?xml version="1.0" encoding="${name}"?><a n="wär"/>`;
    const written = rewriteXml(Buffer.from(text, encoding), new Map([[0, { attributes: { n: 'größer' } }]]));
    expect(written.toString(encoding)).toBe(text.replace('wär', 'größer'));
  });
});
