import type { Passage } from '@coomb/core';

/**
 * What is selected in the page, as a passage for each block that it takes part of, in characters of the block's text and without blanks at
 * its ends. Empty when nothing is selected, or it begins or ends outside `root`.
 */
export function readSelection(root: HTMLElement): (Passage & { quote: string })[] {
  const selection = root.ownerDocument.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return [];
  const range = selection.getRangeAt(0);
  const first = blockOf(range.startContainer, root);
  const last = blockOf(range.endContainer, root);
  if (!first || !last) return [];
  const blocks = [...root.querySelectorAll<HTMLElement>('[data-block]')].filter((block) => range.intersectsNode(block));
  return blocks.sort((a, b) => numberOf(a) - numberOf(b)).flatMap((block) => readPart(block, range));
}

const numberOf = (block: HTMLElement) => Number(block.dataset.block);

function readPart(block: HTMLElement, range: Range): (Passage & { quote: string })[] {
  const part = block.ownerDocument.createRange();
  part.selectNodeContents(block);
  const before = part.cloneRange();
  if (block.contains(range.startContainer)) part.setStart(range.startContainer, range.startOffset);
  if (block.contains(range.endContainer)) part.setEnd(range.endContainer, range.endOffset);
  before.setEnd(part.startContainer, part.startOffset);
  const start = before.toString().length;
  const quote = part.toString();
  const lead = quote.length - quote.trimStart().length;
  const trimmed = quote.trim();
  return trimmed ? [{ block: numberOf(block), start: start + lead, end: start + lead + trimmed.length, quote: trimmed }] : [];
}

function blockOf(node: Node, root: HTMLElement): HTMLElement | undefined {
  for (let at: Node | null = node; at && at !== root.parentNode; at = at.parentNode) if (at instanceof HTMLElement && at.dataset.block !== undefined) return at;
  return undefined;
}

/** The range of some characters of an element's text. */
export function rangeOf(element: HTMLElement, start: number, end: number): Range | undefined {
  const walker = element.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const range = element.ownerDocument.createRange();
  let at = 0;
  let begun = false;
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const length = node.textContent?.length ?? 0;
    if (!begun && start < at + length) {
      range.setStart(node, start - at);
      begun = true;
    }
    if (begun && end <= at + length) {
      range.setEnd(node, end - at);
      return range;
    }
    at += length;
  }
  return undefined;
}
