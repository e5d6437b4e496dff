import type { Passage } from '@coomb/core';

/** The passage of one block that is selected in the page, in characters of the block's text. Undefined when nothing is, or more than one block. */
export function readSelection(root: HTMLElement): (Passage & { quote: string }) | undefined {
  const selection = root.ownerDocument.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return undefined;
  const range = selection.getRangeAt(0);
  const block = blockOf(range.startContainer, root);
  if (!block || blockOf(range.endContainer, root) !== block) return undefined;
  const before = range.cloneRange();
  before.selectNodeContents(block);
  before.setEnd(range.startContainer, range.startOffset);
  const start = before.toString().length;
  const quote = range.toString();
  const lead = quote.length - quote.trimStart().length;
  const trimmed = quote.trim();
  return trimmed ? { block: Number(block.dataset.block), start: start + lead, end: start + lead + trimmed.length, quote: trimmed } : undefined;
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
