import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { sanitise } from './rich-text';

describe('markup that reaches the page', () => {
  it('keeps what rich text may hold', () => {
    const html =
      '<p>H<sub>2</sub>O <strong>a</strong> <a href="mailto:desk@weir.example">b</a> <img src="/api/projects/p/files/f" alt="Plan"></p><table><tbody><tr><td colspan="2">c</td></tr></tbody></table><p><ins>new</ins><del>old</del></p>';
    expect(sanitise(html)).toBe(html);
  });

  it('opens pages elsewhere beside this one, and tells links to items', () => {
    expect(sanitise('<a href="https://weir.example/a">b</a>')).toBe('<a href="https://weir.example/a" target="_blank" rel="noopener noreferrer">b</a>');
    expect(sanitise('<a href="coomb-item:01890000-0000-7000-8000-000000000001">SYS-001</a>')).toContain('data-item="01890000-0000-7000-8000-000000000001"');
  });

  it('keeps formulas and lets nothing else into them', () => {
    const formula =
      '<math display="block"><mfrac linethickness="0"><mi mathvariant="bold">a</mi><mn>2</mn></mfrac><annotation encoding="application/x-tex">a/2</annotation></math>';
    expect(sanitise(formula)).toBe(formula);
    expect(
      sanitise('<math href="javascript:x()"><mi onclick="x()">a</mi><annotation-xml encoding="text/html"><img src="x" onerror="x()"></annotation-xml></math>'),
    ).not.toMatch(/javascript|onclick|onerror|annotation-xml/);
  });

  it.each([
    ['a list', ['<img src=x onerror=alert(1)>'], '<img'],
    ['a list in a list', [['<meta http-equiv="refresh" content="0;url=https://elsewhere.example">']], '<meta'],
    ['a thing', { toString: (): string => '<script>1</script>' }, '<script'],
    ['scripts and events', '<p onclick="x()">a<script>x()</script><svg onload=x()></svg></p>', /onclick|script|svg/],
    [
      'pages elsewhere',
      '<meta http-equiv=refresh content="0;url=https://elsewhere.example"><base href="https://elsewhere.example"><form action="https://elsewhere.example"></form>',
      /meta|base|form/,
    ],
    [
      'addresses that run',
      '<a href="javascript:x()">a</a><a href=" java\nscript:x()">b</a><img src="https://elsewhere.example/p.png">',
      /javascript|java\n|elsewhere/,
    ],
    ['styles', '<p style="position:fixed">a</p><style>*{display:none}</style>', /style/],
  ])('lets nothing else through: %s', (_, value, never) => {
    const shown = sanitise(value);
    if (typeof never === 'string') expect(shown).not.toContain(never);
    else expect(shown).not.toMatch(never);
  });

  it('has no other way in', () => {
    const source = join(import.meta.dirname, '..', '..');
    const files = readdirSync(source, { recursive: true, encoding: 'utf8' }).filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name));
    expect(files.length).toBeGreaterThan(100);
    const ways = files.filter((name) =>
      /dangerouslySetInnerHTML|\.innerHTML\s*=|insertAdjacentHTML|outerHTML\s*=/.test(readFileSync(join(source, name), 'utf8')),
    );
    expect(ways).toEqual(['shared/ui/rich-text.tsx']);
  });
});
