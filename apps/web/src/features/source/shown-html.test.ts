import { expect, it } from 'vitest';
import { findPictures, findShownHtml } from './shown-html';

const block = (text: string, html: string) => ({ type: 'paragraph' as const, at: 1, level: 0, text, html });

it('shows formatting and names pictures where characters stay the same', () => {
  expect(findShownHtml(block('5 kN/m2 & more', '5 kN/m<sup>2</sup> &amp; more'))).toBe('5 kN/m<sup>2</sup> &amp; more');
  expect(findShownHtml(block('See', 'See<img src="coomb-picture:a.png" alt="A gate">'))).toBe('See<i data-picture="A gate"></i>');
  const stored = 'See<img src="/api/projects/p/files/f" alt="A gate">';
  expect(findShownHtml(block('See', stored))).toBe(stored);
  expect(findPictures(`${stored}<img src="coomb-picture:a.png" alt="other">`)).toEqual([{ src: '/api/projects/p/files/f', alt: 'A gate' }]);
});

it('shows the plain text where they would not, or nothing is formatted', () => {
  expect(findShownHtml(block('one\ntwo', 'one<br>two'))).toBeUndefined();
  expect(findShownHtml(block('plain', 'plain'))).toBeUndefined();
});
