import { describe, expect, it } from 'vitest';
import { plainText, sanitiseRichText } from './sanitise.js';
import { writeFormula } from './write-formula.js';

describe('a formula in a line of words', () => {
  it.each([
    ['<math><mfrac><mi>a</mi><mrow><mi>b</mi><mo>+</mo><mn>1</mn></mrow></mfrac></math>', 'a/(b+1)'],
    ['<math><msqrt><mn>2</mn><mi>g</mi><mi>h</mi></msqrt></math>', '√2gh'],
    ['<math><mroot><mi>x</mi><mn>3</mn></mroot></math>', 'root 3 of x'],
    ['<math><msubsup><mi>h</mi><mn>0</mn><mn>2</mn></msubsup></math>', 'h_0^2'],
    ['<math><munderover><mo>∑</mo><mrow><mi>i</mi><mo>=</mo><mn>0</mn></mrow><mi>n</mi></munderover><mi>i</mi></math>', '∑_(i=0)^ni'],
    [
      '<math><mtable><mtr><mtd><mn>1</mn></mtd><mtd><mn>0</mn></mtd></mtr><mtr><mtd><mn>0</mn></mtd><mtd><mn>1</mn></mtd></mtr></mtable></math>',
      '[1, 0; 0, 1]',
    ],
    ['<math><semantics><mi>Q</mi><annotation encoding="application/x-tex">Q</annotation></semantics></math>', 'Q'],
    ['<math><mi>a</mi><mspace width="1em"/><mi>b</mi></math>', 'a b'],
    ['<math><mi>a</mi></mrow></mrow>', 'a'],
    ['<math><mrow><mi>a</mi>', 'a'],
  ])('%s', (mathml, words) => expect(writeFormula(mathml)).toBe(words));

  it('is what plain words of a text say in its place', () => {
    expect(plainText('<p>Flow <math display="block"><mfrac><mi>V</mi><mi>t</mi></mfrac></math> &lt; 3</p>')).toBe('Flow V/t < 3');
    expect(plainText('<figure><img src="/api/f" alt="Plan" /><figcaption>Gate 1</figcaption></figure><pre><code>a\n  b</code></pre><p>c</p>')).toBe(
      'Gate 1\na\n  b\nc',
    );
  });
});

describe('formulas in rich text', () => {
  it.each([
    ['<math display="block"><mi mathvariant="bold">x</mi></math>', '<math display="block"><mi mathvariant="bold">x</mi></math>'],
    ['<math xmlns="http://www.w3.org/1998/Math/MathML" class="x" style="color:red"><mi>x</mi></math>', '<math><mi>x</mi></math>'],
    [
      '<math><annotation-xml encoding="text/html"><script>x()</script></annotation-xml><mi href="javascript:x()" onclick="x()">x</mi></math>',
      '<math><mi>x</mi></math>',
    ],
    ['<math><mtext><img src="x" onerror="x()" /></mtext></math>', '<math><mtext></mtext></math>'],
    ['<a href="coomb-item:01890000-0000-7000-8000-000000000001">SYS-001</a>', '<a href="coomb-item:01890000-0000-7000-8000-000000000001">SYS-001</a>'],
    [
      '<figure onclick="x()"><img src="/api/f" alt="" /><figcaption>c</figcaption></figure>',
      '<figure><img src="/api/f" alt="" /><figcaption>c</figcaption></figure>',
    ],
    ['<pre class="x"><code>a\n b</code></pre>', '<pre><code>a\n b</code></pre>'],
  ])('%s', (html, safe) => expect(sanitiseRichText(html)).toBe(safe));
});
