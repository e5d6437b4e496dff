const PART = /(<[^>]*>|&[a-zA-Z0-9#]+;)/;
const nameOf = (tag: string) => /^<([a-z0-9]+)/i.exec(tag)?.[1] ?? '';

/**
 * Characters `start` to `end` of marked-up text, in the marks they stand in. A line break counts as one character, as in the plain text of a block.
 * `html` is what our readers write: every element closed.
 */
export function sliceHtml(html: string, start: number, end = Number.POSITIVE_INFINITY): string {
  const open: string[] = [];
  const written: string[] = [];
  let slice = '';
  let at = 0;
  const close = (until: number) => {
    while (written.length > until) slice += `</${nameOf(written.pop()!)}>`;
  };
  const write = (text: string) => {
    let shared = 0;
    while (shared < written.length && written[shared] === open[shared]) shared++;
    close(shared);
    for (const tag of open.slice(shared)) {
      slice += tag;
      written.push(tag);
    }
    slice += text;
  };
  for (const part of html.split(PART)) {
    if (part.startsWith('</')) open.pop();
    else if (part.startsWith('<') && !/^<(?:br|img)\b/.test(part)) open.push(part);
    else if (part.startsWith('<img')) {
      if (at >= start && at < end) write(part);
    } else if (part !== '') {
      const whole = part.startsWith('<') || part.startsWith('&');
      const size = whole ? 1 : part.length;
      const [from, until] = [Math.max(start, at), Math.min(end, at + size)];
      if (from < until) write(whole ? part : part.slice(from - at, until - at));
      at += size;
    }
  }
  close(0);
  return slice.trim();
}
