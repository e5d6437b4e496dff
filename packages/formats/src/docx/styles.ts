import { localName, walkXml } from '../xml/walk-xml.js';

export interface ParagraphStyle {
  name: string;
  basedOn?: string;
  /** Outline level from 0, as written in the file; 9 is body text. */
  outline?: number;
  numbered?: boolean;
}

/** Styles by id. Localised and renamed headings are known by their outline level, not their name alone. */
export async function readStyles(chunks: AsyncIterable<Uint8Array>): Promise<Map<string, ParagraphStyle>> {
  const styles = new Map<string, ParagraphStyle>();
  let current: ParagraphStyle | undefined;
  await walkXml(chunks, {
    open(name, attributes) {
      const local = localName(name);
      const value = attributes['w:val'] ?? '';
      if (local === 'style') {
        current = { name: '' };
        if (attributes['w:type'] === 'paragraph') styles.set(attributes['w:styleId'] ?? '', current);
      } else if (!current) return;
      else if (local === 'name') current.name = value;
      else if (local === 'basedOn') current.basedOn = value;
      else if (local === 'outlineLvl') current.outline = Number(value);
      else if (local === 'numPr') current.numbered = true;
    },
    close(name) {
      if (localName(name) === 'style') current = undefined;
    },
  });
  return styles;
}

/** Heading level 1 to 9 of a style, by its own or inherited outline level, else by its name; 0 for body text. */
export function findLevel(styles: Map<string, ParagraphStyle>, id: string): number {
  const seen = new Set<string>();
  for (let at: string | undefined = id; at && !seen.has(at); at = styles.get(at)?.basedOn) {
    seen.add(at);
    const style = styles.get(at);
    if (style?.outline !== undefined) return style.outline >= 0 && style.outline < 9 ? style.outline + 1 : 0;
    const named = /^heading ?([1-9])$/i.exec(style?.name ?? at);
    if (named) return Number(named[1]);
  }
  return 0;
}

/** For each numbering id and level: whether it counts (1, a, iv) rather than marks (•). */
export async function readNumbering(chunks: AsyncIterable<Uint8Array>): Promise<(numId: string, level: number) => boolean> {
  const formats = new Map<string, Map<number, string>>();
  const abstractOf = new Map<string, string>();
  let abstract = '';
  let num = '';
  let level = 0;
  await walkXml(chunks, {
    open(name, attributes) {
      const local = localName(name);
      if (local === 'abstractNum') {
        abstract = attributes['w:abstractNumId'] ?? '';
        formats.set(abstract, new Map());
      } else if (local === 'lvl') level = Number(attributes['w:ilvl']);
      else if (local === 'numFmt') formats.get(abstract)?.set(level, attributes['w:val'] ?? '');
      else if (local === 'num') num = attributes['w:numId'] ?? '';
      else if (local === 'abstractNumId' && num) abstractOf.set(num, attributes['w:val'] ?? '');
    },
    close() {},
  });
  return (numId, at) => {
    const format = formats.get(abstractOf.get(numId) ?? '')?.get(at);
    return format !== undefined && format !== 'bullet' && format !== 'none';
  };
}
