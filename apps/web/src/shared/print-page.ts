/** Prints a page of its own, out of sight: `body` is HTML whose texts are escaped already. */
export function printPage(title: string, style: string, body: string): void {
  const frame = document.createElement('iframe');
  Object.assign(frame.style, { position: 'fixed', width: '0', height: '0', border: '0' });
  frame.title = title;
  frame.srcdoc = `<!doctype html><meta charset="utf-8"><title>${escapeText(title)}</title><style>${style}</style>${body}`;
  frame.onload = () => {
    frame.contentWindow!.onafterprint = () => frame.remove();
    frame.contentWindow!.print();
  };
  document.body.append(frame);
}

const signs: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
export const escapeText = (text: string): string => text.replace(/[&<>"']/g, (sign) => signs[sign]!);
