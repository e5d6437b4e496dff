import { expect, it } from 'vitest';
import { readShownText } from './shown-text';

function element(html: string): HTMLElement {
  document.body.innerHTML = `<div>${html}</div>`;
  return document.body.firstElementChild as HTMLElement;
}

function cutOut(html: string, words: string, leftOut = 'del'): string | undefined {
  const { text, rangeOf } = readShownText(element(html), leftOut);
  const start = text.indexOf(words);
  return rangeOf(start, start + words.length)?.toString();
}

it('finds words across markup', () => {
  expect(cutOut('Traces <strong>to</strong> SYS-012.', 'Traces to SYS-012')).toBe('Traces to SYS-012');
});

it('reads the version of tracked changes that is asked for', () => {
  const html = 'Traces to <del>SYS-011</del><ins>SYS-012</ins> only.';
  expect(readShownText(element(html), 'del').text).toBe('Traces to SYS-012 only.');
  expect(readShownText(element(html), 'ins').text).toBe('Traces to SYS-011 only.');
  expect(cutOut(html, 'SYS-012 only')).toBe('SYS-012 only');
  expect(cutOut(html, 'SYS-011', 'ins')).toBe('SYS-011');
});

it('parts lines as they read, and gives no range where nothing stands', () => {
  expect(readShownText(element('<p>One</p><p>Two<br>Three</p>'), 'del').text).toBe('One\nTwo\nThree');
  expect(cutOut('<p>One</p><p>Part of SYS-1</p>', 'Part of SYS-1')).toBe('Part of SYS-1');
  expect(readShownText(element(''), 'del').rangeOf(0, 3)).toBeUndefined();
});
