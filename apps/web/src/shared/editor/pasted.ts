import { counted, richTextTags } from '@coomb/core';
import DOMPurify from 'dompurify';

export interface Pasted {
  /** What a text may hold, in its own elements; pictures still by the addresses they came with. */
  html: string;
  /** What was left out, in words: "colours and fonts". */
  left: string[];
}

/** Pictures that can be fetched from where they are: written into what was pasted, or stored in a project of this server. */
export const isAtHand = (address: string): boolean => /^(?:data:image\/|blob:|\/api\/projects\/)/.test(address);

/**
 * What office programs, browsers and mail put on the clipboard, as a text here may hold it: paragraphs, lists, tables, indices, formulas,
 * links and pictures stay; everything else is left out and named.
 */
export function cleanPasted(markup: string): Pasted {
  const { body } = new DOMParser().parseFromString(markup.replace(/^[\s\S]*?<!--StartFragment-->|<!--EndFragment-->[\s\S]*$/g, ''), 'text/html');
  const left: string[] = [];
  const take = (selector: string, name?: string) => {
    const found = [...body.querySelectorAll(selector)];
    for (const element of found) element.remove();
    if (name && found.length > 0) left.push(counted(found.length, name));
  };
  take('style, script, meta, link, title, xml, o\\:p:empty, noscript, template, button, input, select, textarea');
  take('del, [style*="mso-comment"], .MsoCommentReference, a[href*="_msocom_"]', 'deleted passage or comment');
  take('video, audio, iframe, object, embed, svg, canvas', 'object');
  for (const comment of commentsIn(body)) comment.remove();
  readWordLists(body);
  if ([...body.querySelectorAll('[style], font')].some(hasLooks)) left.push('colours and fonts');
  readStyles(body);
  const headings = [...body.querySelectorAll('h1, h2, h3, h4, h5, h6')];
  for (const heading of headings) rename(heading, 'p', 'strong');
  if (headings.length > 0) left.push(`${counted(headings.length, 'heading')} (now strong words)`);
  for (const box of [...body.querySelectorAll('div, section, article, main, header, footer, dl, dt, dd, center')].reverse())
    if (box.querySelector('p, ul, ol, table, blockquote, pre, figure')) box.replaceWith(...box.childNodes);
    else rename(box, 'p');
  const pictures = [...body.querySelectorAll('img')].filter((picture) => !isAtHand(picture.getAttribute('src') ?? ''));
  for (const picture of pictures) picture.remove();
  if (pictures.length > 0) left.push(`${counted(pictures.length, 'picture')} that ${pictures.length === 1 ? 'lies' : 'lie'} elsewhere`);
  for (const empty of body.querySelectorAll('p, strong, em, u, s, a')) if (!empty.textContent?.trim() && !empty.querySelector('img, br, math')) empty.remove();
  const html = DOMPurify.sanitize(body.innerHTML, {
    ALLOWED_TAGS: [...richTextTags],
    ALLOWED_ATTR: ['href', 'src', 'alt', 'colspan', 'rowspan', 'display', 'encoding', 'mathvariant'],
    ADD_URI_SAFE_ATTR: ['colspan', 'rowspan', 'display', 'encoding', 'mathvariant'],
    ALLOWED_URI_REGEXP: /^(?:(?:https?|mailto|coomb-item):|\/api\/|data:image\/|blob:)/i,
  });
  return { html, left };
}

/** What was left out, as one sentence; empty where nothing was. */
export const sayLeft = (left: readonly string[]): string => (left.length > 0 ? `Pasted without ${left.join(', ')}.` : '');

function commentsIn(body: Element): Comment[] {
  const walker = document.createTreeWalker(body, NodeFilter.SHOW_COMMENT);
  const found: Comment[] = [];
  while (walker.nextNode()) found.push(walker.currentNode as Comment);
  return found;
}

function hasLooks(element: Element): boolean {
  if (element.localName === 'font') return true;
  return /(?:^|;)\s*(?:color|background(?:-color)?|font-family|font-size)\s*:\s*(?!inherit|initial|windowtext|auto|black|transparent|none)/i.test(
    element.getAttribute('style') ?? '',
  );
}

/** Puts another element in the place of one, with what stood in it; `inside` once more around that. */
function rename(element: Element, name: string, inside?: string): Element {
  const next = document.createElement(name);
  const inner = inside ? next.appendChild(document.createElement(inside)) : next;
  inner.append(...element.childNodes);
  element.replaceWith(next);
  return next;
}

const MARKS: [name: string, test: RegExp][] = [
  ['strong', /(?:^|;)\s*font-weight\s*:\s*(?:bold|[6-9]00)/i],
  ['em', /(?:^|;)\s*font-style\s*:\s*(?:italic|oblique)/i],
  ['u', /(?:^|;)\s*text-decoration(?:-line)?\s*:[^;]*underline/i],
  ['s', /(?:^|;)\s*text-decoration(?:-line)?\s*:[^;]*line-through/i],
  ['sup', /(?:^|;)\s*vertical-align\s*:\s*super/i],
  ['sub', /(?:^|;)\s*vertical-align\s*:\s*sub/i],
];

/** Programs that write `<span style="font-weight:700">` mean strong words; some wrap all in `<b style="font-weight:normal">`, which means none. */
function readStyles(body: Element): void {
  for (const element of [...body.querySelectorAll('b, i')])
    if (/font-(?:weight|style)\s*:\s*normal/i.test(element.getAttribute('style') ?? '')) element.replaceWith(...element.childNodes);
  for (const [from, to] of [
    ['b', 'strong'],
    ['i', 'em'],
    ['strike', 's'],
    ['ins', 'u'],
    ['tt', 'code'],
    ['kbd', 'code'],
    ['samp', 'code'],
  ] as const)
    for (const element of [...body.querySelectorAll(from)]) rename(element, to);
  for (const element of [...body.querySelectorAll('span[style]')]) {
    const style = element.getAttribute('style')!;
    for (const [name, test] of MARKS)
      if (test.test(style)) {
        const mark = document.createElement(name);
        mark.append(...element.childNodes);
        element.append(mark);
      }
  }
}

/** Some programs write the items of lists as paragraphs that carry their level and sign: they become lists again. */
function readWordLists(body: Element): void {
  const isItem = (element: Element | null): element is HTMLElement =>
    element?.localName === 'p' && /mso-list\s*:\s*l\d+\s+level\d+/i.test(element.getAttribute('style') ?? '');
  for (const first of [...body.querySelectorAll('p')]) {
    if (!first.isConnected || !isItem(first)) continue;
    const items: { level: number; ordered: boolean; element: Element }[] = [];
    for (let next: Element | null = first; isItem(next); next = next.nextElementSibling) {
      const sign = next.querySelector('[style*="mso-list:Ignore"], [style*="mso-list: Ignore"]');
      items.push({
        level: Number(/level(\d+)/i.exec(next.getAttribute('style')!)![1]),
        ordered: /^\s*\(?[\p{L}\d]{1,4}[.)]/u.test(sign?.textContent ?? ''),
        element: next,
      });
      sign?.remove();
    }
    const at = document.createElement('div');
    first.before(at);
    at.replaceWith(...nestItems(items));
  }
}

function nestItems(items: readonly { level: number; ordered: boolean; element: Element }[]): Element[] {
  const made: Element[] = [];
  const open: { level: number; list: Element }[] = [];
  for (const { level, ordered, element } of items) {
    while (open.length > 0 && open.at(-1)!.level > level) open.pop();
    const name = ordered ? 'ol' : 'ul';
    if (open.at(-1)?.level !== level || open.at(-1)!.list.localName !== name) {
      if (open.at(-1)?.level === level) open.pop();
      const list = document.createElement(name);
      const above = open.at(-1)?.list.lastElementChild;
      if (above) above.append(list);
      else made.push(list);
      open.push({ level, list });
    }
    const item = document.createElement('li');
    item.append(...element.childNodes);
    element.remove();
    open.at(-1)!.list.append(item);
  }
  return made;
}
