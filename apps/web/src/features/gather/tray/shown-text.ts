/**
 * The text of an element as it reads, and ranges of its characters. Elements named in `leftOut` do not count, such as words that
 * a tracked change takes away; paragraphs and line breaks part lines.
 */
export function readShownText(element: HTMLElement, leftOut: string): { text: string; rangeOf: (start: number, end: number) => Range | undefined } {
  const pieces: { node: Text; from: number }[] = [];
  let text = '';
  const walker = element.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT, (node) =>
    node instanceof Element && node.localName === leftOut ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_ACCEPT,
  );
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (node instanceof Text) {
      pieces.push({ node, from: text.length });
      text += node.data;
    } else if (/^(br|p|li|tr|td)$/.test((node as Element).localName) && text) text += '\n';
  }
  const placeOf = (at: number, isEnd: boolean) => {
    const piece = pieces.findLast(({ from }) => (isEnd ? from < at : from <= at));
    return piece && { node: piece.node, offset: Math.min(at - piece.from, piece.node.length) };
  };
  return {
    text,
    rangeOf: (start, end) => {
      const [first, last] = [placeOf(start, false), placeOf(end, true)];
      if (!first || !last) return undefined;
      const range = element.ownerDocument.createRange();
      range.setStart(first.node, first.offset);
      range.setEnd(last.node, last.offset);
      return range;
    },
  };
}
