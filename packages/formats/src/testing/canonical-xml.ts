import { SaxesParser } from 'saxes';

/** What an XML file says, one line an event: attributes sorted, blank text between elements left out. Two files that say the same give the same lines. */
export function canonicalXml(xml: string): string[] {
  const lines: string[] = [];
  const parser = new SaxesParser({ xmlns: false });
  let text = '';
  const flush = () => {
    if (text.trim()) lines.push(`text ${text}`);
    text = '';
  };
  parser.on('opentag', (tag) => {
    flush();
    const attributes = Object.entries(tag.attributes).sort(([a], [b]) => (a < b ? -1 : 1));
    lines.push(`open ${tag.name} ${JSON.stringify(attributes)}`);
  });
  parser.on('closetag', (tag) => {
    flush();
    lines.push(`close ${tag.name}`);
  });
  parser.on('text', (part) => {
    text += part;
  });
  parser.on('cdata', (part) => {
    text += part;
  });
  parser.on('comment', (part) => {
    flush();
    lines.push(`comment ${part}`);
  });
  parser.on('processinginstruction', ({ target, body }) => lines.push(`instruction ${target} ${body}`));
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(xml).close();
  return lines;
}
