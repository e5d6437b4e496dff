import { afterEach, describe, expect, it } from 'vitest';
import { rangeOf, readSelection } from './selection';

function page(html: string): HTMLElement {
  document.body.innerHTML = `<div id="root">${html}</div>`;
  return document.getElementById('root')!;
}

function select(from: Node, start: number, to: Node, end: number): void {
  const range = document.createRange();
  range.setStart(from, start);
  range.setEnd(to, end);
  const selection = document.getSelection()!;
  selection.removeAllRanges();
  selection.addRange(range);
}

describe('a selected passage', () => {
  afterEach(() => document.getSelection()?.removeAllRanges());

  it('is counted in characters of its block, across markup, without blanks at its ends', () => {
    const root = page('<p data-block="4">The <strong>gate</strong> shall stop. </p>');
    const block = root.querySelector('p')!;
    select(block.firstChild!, 3, block.lastChild!, 12);
    expect(readSelection(root)).toEqual({ block: 4, start: 4, end: 20, quote: 'gate shall stop.' });
  });

  it('is none when it spans blocks, is empty, or lies elsewhere', () => {
    const root = page('<p data-block="0">one</p><p data-block="1">two</p>');
    const [one, two] = root.querySelectorAll('p');
    select(one!.firstChild!, 0, two!.firstChild!, 2);
    expect(readSelection(root)).toBeUndefined();
    select(one!.firstChild!, 1, one!.firstChild!, 1);
    expect(readSelection(root)).toBeUndefined();
    select(document.body, 0, document.body, 1);
    expect(readSelection(root)).toBeUndefined();
  });

  it('is found again by its characters', () => {
    const block = page('<p data-block="0">The <strong>gate</strong> shall stop.</p>').querySelector('p')!;
    expect(rangeOf(block, 4, 14)?.toString()).toBe('gate shall');
    expect(rangeOf(block, 0, 3)?.toString()).toBe('The');
    expect(rangeOf(block, 4, 99)).toBeUndefined();
  });
});
