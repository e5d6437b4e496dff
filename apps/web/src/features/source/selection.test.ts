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
    expect(readSelection(root)).toEqual([{ block: 4, start: 4, end: 20, quote: 'gate shall stop.' }]);
  });

  it('has a part for each block that it goes over', () => {
    const root = page('<p data-block="0">one two</p><p data-block="1">three</p><p>between</p><p data-block="2">four five</p>');
    const [first, last] = [root.querySelector('p')!, root.querySelector('[data-block="2"]')!];
    select(first.firstChild!, 4, last.firstChild!, 4);
    expect(readSelection(root)).toEqual([
      { block: 0, start: 4, end: 7, quote: 'two' },
      { block: 1, start: 0, end: 5, quote: 'three' },
      { block: 2, start: 0, end: 4, quote: 'four' },
    ]);
  });

  it('is none when it is empty, or lies elsewhere', () => {
    const root = page('<p data-block="0">one</p><p data-block="1">two</p>');
    const one = root.querySelector('p')!;
    select(one.firstChild!, 1, one.firstChild!, 1);
    expect(readSelection(root)).toEqual([]);
    select(document.body, 0, document.body, 1);
    expect(readSelection(root)).toEqual([]);
  });

  it('is found again by its characters', () => {
    const block = page('<p data-block="0">The <strong>gate</strong> shall stop.</p>').querySelector('p')!;
    expect(rangeOf(block, 4, 14)?.toString()).toBe('gate shall');
    expect(rangeOf(block, 0, 3)?.toString()).toBe('The');
    expect(rangeOf(block, 4, 99)).toBeUndefined();
  });
});
