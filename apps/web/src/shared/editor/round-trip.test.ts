import { join } from 'node:path';
import { randomText, textsOfFiles } from '@coomb/formats/testing';
import { Editor } from '@tiptap/core';
import { describe, expect, it } from 'vitest';
import { textExtensions } from './text-schema';
import { tidyHtml } from './tidy-html';

/** What the editor makes of a text that is opened and stored. */
function throughEditor(html: string): string {
  const editor = new Editor({ extensions: textExtensions, content: html });
  const text = tidyHtml(editor.getHTML());
  editor.destroy();
  return text;
}

const SPACE = /[ \t\r\n]+/g;

/**
 * What a text holds, however it is written: its elements with words, order and attributes. Two ways to write the same are one here: the order
 * in which marks stand around the same words, blanks at the edges of lines, a sole paragraph in a cell or item, the body of a table.
 */
function holds(html: string): string[] {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  const found: string[] = [];
  const walk = (node: Node, path: string, marks: string[], exact: boolean) => {
    if (node.nodeType === Node.TEXT_NODE) {
      const words = exact ? node.nodeValue! : node.nodeValue!.replace(SPACE, ' ');
      if (exact || words.trim())
        for (const character of exact ? words : words.replace(/ /g, '')) found.push(`${path} ${[...new Set(marks)].sort().join('+')} ${character}`);
      return;
    }
    const element = node as Element;
    const name = element.localName;
    if (/^(?:strong|em|u|s|sub|sup|code)$/.test(name) && !(name === 'code' && element.parentElement?.localName === 'pre')) marks = [...marks, name];
    else if (name === 'a') marks = [...marks, `a:${element.getAttribute('href')}`];
    else if (name === 'math') {
      found.push(`${path} ${element.outerHTML}`);
      return;
    } else if (name === 'img') found.push(`${path} ${[...new Set(marks)].sort().join('+')} img ${element.getAttribute('src')} ${element.getAttribute('alt')}`);
    else if (name === 'br') found.push(`${path} br`);
    else if (!/^(?:body|p|tbody|html)$/.test(name)) {
      const spans = ['colspan', 'rowspan'].map((span) => element.getAttribute(span) ?? '').join();
      found.push(`${path} <${name} ${spans}>`);
      path = `${path}/${name}`;
    } else if (name === 'p' && (element.textContent || element.firstElementChild) && !beginsHolder(element)) found.push(`${path} ¶`);
    for (const child of element.childNodes) walk(child, path, marks, exact || name === 'pre');
  };
  walk(body, '', [], false);
  return found;
}

/** A cell's own words are its first paragraph. */
const beginsHolder = (paragraph: Element) => !paragraph.previousSibling && /^(?:td|th|li)$/.test(paragraph.parentElement!.localName);
const demo = join(import.meta.dirname, '../../../../../demo/files');

describe('a text that is opened and stored', () => {
  it('holds what it held, for every text that the files of the demo become', async () => {
    const texts = await textsOfFiles(demo);
    expect(texts.length).toBeGreaterThan(150);
    expect(texts.some((text) => text.includes('<table>'))).toBe(true);
    for (const text of texts) expect(holds(throughEditor(text)), text).toEqual(holds(text));
  });

  it.each([1, 2, 3, 4])('holds what it held, whatever a text may hold (%i)', (round) => {
    for (let seed = round * 1000; seed < round * 1000 + 60; seed++) {
      const text = randomText(seed);
      expect(holds(throughEditor(text)), `seed ${seed}: ${text}`).toEqual(holds(text));
    }
  });

  it('is the same once it was through the editor', () => {
    for (let seed = 1; seed < 40; seed++) {
      const once = throughEditor(randomText(seed));
      expect(throughEditor(once)).toBe(once);
    }
  });
});
