import { writeFormula } from './write-formula.js';

/** Plain words of rich text, blocks parted by line ends. */
export function plainText(html: string): string {
  if (!/[<&]/.test(html)) return html.trim();
  return (
    html
      .replace(/<math[\s>].*?<\/math>/gs, writeFormula)
      // A list in a list begins a line, and ends with the line of its last item.
      .replace(/(?<!^|<\/(?:p|[uo]l|table|blockquote)>|<(?:li|blockquote|t[dh][^<>]*)>)<[uo]l>/gi, '\n')
      .replace(/(<\/[uo]l>)<\/li>/gi, '$1')
      .replace(/<br\s*\/?>|<\/(p|li|tr|h\d|pre|figure)>|(?<=<img [^<>]*>)(?=<figcaption>)/gi, '\n')
      .replace(/<\/t[dh]>/gi, '\t')
      .replace(/<[^>]*>/g, '')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&quot;/g, '"')
      .replace(/&#39;/g, "'")
      .replace(/&nbsp;/g, ' ')
      .replace(/&amp;/g, '&')
      .trim()
  );
}
