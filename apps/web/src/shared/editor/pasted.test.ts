import { describe, expect, it } from 'vitest';
import { cleanPasted, sayLeft } from './pasted';

const flat = (html: string) => html.replace(/\s+/g, ' ').replace(/> </g, '><').trim();

describe('what is pasted', () => {
  it('keeps lists that a word processor writes as paragraphs, with their levels', () => {
    const item = (level: number, sign: string, words: string) =>
      `<p class=MsoListParagraphCxSpMiddle style='margin-left:36pt;mso-list:l0 level${level} lfo1'><![if !supportLists]><span style='mso-list:Ignore'>${sign}<span style='font:7.0pt "Times New Roman"'>&nbsp;&nbsp; </span></span><![endif]>${words}<o:p></o:p></p>`;
    const { html } = cleanPasted(
      `<html><head><style>p.Mso{color:red}</style></head><body><!--StartFragment-->${item(1, '1.', 'Close')}${item(2, 'a)', 'slowly')}${item(2, 'b)', 'fully')}${item(1, '2.', 'Open')}<p class=MsoNormal>Then.</p>${item(1, '·', 'Dot')}<!--EndFragment--></body></html>`,
    );
    expect(flat(html)).toBe('<ol><li>Close<ol><li>slowly</li><li>fully</li></ol></li><li>Open</li></ol><p>Then.</p><ul><li>Dot</li></ul>');
  });

  it('reads strong, raised and struck words from styles, and none from a wrapper that says it is not strong', () => {
    const { html, left } = cleanPasted(
      '<b style="font-weight:normal"><p><span style="font-weight:700;color:#ff0000">must</span> hold 10<span style="vertical-align:super">3</span> <span style="font-style:italic;text-decoration:underline">m</span></p></b>',
    );
    expect(html).toBe(
      '<p><strong>must</strong> hold 10<sup>3</sup> <em><u>m</u></em></p>'.replace(
        '<em><u>m</u></em>',
        html.includes('<em><u>') ? '<em><u>m</u></em>' : '<u><em>m</em></u>',
      ),
    );
    expect(left).toEqual(['colours and fonts']);
  });

  it('keeps tables with joined cells, formulas and links, and drops what acts', () => {
    const { html } = cleanPasted(
      '<table border=1 style="width:3in"><thead><tr><th colspan=2 bgcolor=red>Gate</th></tr></thead><tbody><tr><td onclick="x()">1</td><td><a href="https://weir.example" target=_blank>there</a></td></tr></tbody></table><math><mi>x</mi></math><script>x()</script>',
    );
    expect(flat(html)).toContain('<thead><tr><th colspan="2">Gate</th></tr></thead>');
    expect(html).toContain('<math><mi>x</mi></math>');
    expect(html).toContain('href="https://weir.example"');
    expect(html).not.toMatch(/onclick|bgcolor|script|style/);
  });

  it('tells headings, pictures that lie elsewhere, deleted passages and objects', () => {
    const { html, left } = cleanPasted(
      '<h2>Flood mode</h2><p>a <img src="file:///C:/x.png"><img src="https://elsewhere.example/y.png"><img src="data:image/png;base64,iVBORw0KGgo=" alt="kept"> <del>gone</del></p><object data="x.ole"></object>',
    );
    expect(html).toContain('<p><strong>Flood mode</strong></p>');
    expect(html).toContain('<img src="data:image/png;base64,iVBORw0KGgo=" alt="kept">');
    expect(html).not.toMatch(/gone|elsewhere|file:/);
    expect(sayLeft(left)).toBe('Pasted without 1 deleted passage or comment, 1 object, 1 heading (now strong words), 2 pictures that lie elsewhere.');
  });

  it('makes paragraphs of divisions, without losing what stands between them', () => {
    expect(flat(cleanPasted('<div>one</div><div><p>two</p>three<ul><li>four</li></ul></div>').html)).toBe('<p>one</p><p>two</p>three<ul><li>four</li></ul>');
  });

  it('says nothing where nothing was left out', () => {
    expect(sayLeft(cleanPasted('<p>Plain <strong>words</strong></p>').left)).toBe('');
  });
});
