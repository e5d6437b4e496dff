import { describe, expect, it } from 'vitest';
import { tidyHtml } from './tidy-html';

describe('the HTML of the editor', () => {
  it.each([
    [
      '<table style="min-width: 50px;"><colgroup><col></colgroup><tbody><tr><td colspan="1" rowspan="1"><p>3 m</p></td></tr></tbody></table>',
      '<table><tbody><tr><td>3 m</td></tr></tbody></table>',
    ],
    [
      '<table><tbody><tr><td colspan="2" rowspan="1"><p>a</p><p>b</p></td></tr></tbody></table>',
      '<table><tbody><tr><td colspan="2"><p>a</p><p>b</p></td></tr></tbody></table>',
    ],
    ['<ul><li><p>One <em>x</em></p><ul><li><p>Two</p></li></ul></li></ul>', '<ul><li>One <em>x</em><ul><li>Two</li></ul></li></ul>'],
    ['<p>As it is</p>', '<p>As it is</p>'],
  ])('%s', (html, tidy) => expect(tidyHtml(html)).toBe(tidy));
});
