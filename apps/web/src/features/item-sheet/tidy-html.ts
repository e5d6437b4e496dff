/** The editor's HTML as texts are stored here: no widths of columns, no spans of one, no paragraph that is all of a cell or list item. */
export function tidyHtml(html: string): string {
  return html
    .replace(/<colgroup>.*?<\/colgroup>/gs, '')
    .replace(/(<table)[^>]*>/g, '$1>')
    .replace(/ (?:col|row)span="1"/g, '')
    .replace(/(<(td|th|li)(?: [^>]*)?>)<p>((?:(?!<\/?p>).)*)<\/p>(?=<\/\2>|<[uo]l>)/gs, '$1$3');
}
