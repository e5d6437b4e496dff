import { localName, walkXml } from '../xml/walk-xml.js';

export interface ParagraphStyle {
  name: string;
  basedOn?: string;
  /** Outline level from 0, as written in the file; 9 is body text. */
  outline?: number;
  /** Numbering that its paragraphs follow, and the level of it. */
  numId?: string;
  level?: number;
  /** Its words are hidden. */
  hidden?: boolean;
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
        // Styles of characters hide words too.
        if (attributes['w:type'] === 'paragraph' || attributes['w:type'] === 'character') styles.set(attributes['w:styleId'] ?? '', current);
      } else if (!current) return;
      else if (local === 'name') current.name = value;
      else if (local === 'basedOn') current.basedOn = value;
      else if (local === 'outlineLvl') current.outline = Number(value);
      else if (local === 'numId') current.numId = value;
      else if (local === 'ilvl') current.level = Number(value) || 0;
      else if (local === 'vanish') current.hidden = !/^(?:0|false|off)$/.test(value);
    },
    close(name) {
      if (localName(name) === 'style') current = undefined;
    },
  });
  return styles;
}

/** Names of heading styles as writers in other languages save them; most keep the English name inside the file, some do not. */
const HEADING =
  /^(?:heading|überschrift|titre|título|titulo|titolo|kop|rubrik|overskrift|otsikko|nagłówek|nadpis|címsor|başlık|заголовок|見出し|标题|標題|제목) ?([1-9])$/iu;

/** Numbering of a paragraph that names none itself: that of its style, or of one the style is based on. */
export function findNumbering(styles: Map<string, ParagraphStyle>, id: string): { numId: string; level: number | undefined } | undefined {
  const seen = new Set<string>();
  for (let at: string | undefined = id; at && !seen.has(at); at = styles.get(at)?.basedOn) {
    seen.add(at);
    const style = styles.get(at);
    if (style?.numId !== undefined) return style.numId === '0' ? undefined : { numId: style.numId, level: style.level };
  }
  return undefined;
}

/** Whether a style, or one that it is based on, hides its words. */
export function isHidden(styles: Map<string, ParagraphStyle>, id: string): boolean {
  const seen = new Set<string>();
  for (let at: string | undefined = id; at && !seen.has(at); at = styles.get(at)?.basedOn) {
    seen.add(at);
    const hidden = styles.get(at)?.hidden;
    if (hidden !== undefined) return hidden;
  }
  return false;
}

/** Heading level 1 to 9 of a style, by its own or inherited outline level, else by its name; 0 for body text. */
export function findLevel(styles: Map<string, ParagraphStyle>, id: string): number {
  const seen = new Set<string>();
  for (let at: string | undefined = id; at && !seen.has(at); at = styles.get(at)?.basedOn) {
    seen.add(at);
    const style = styles.get(at);
    if (style?.outline !== undefined) return style.outline >= 0 && style.outline < 9 ? style.outline + 1 : 0;
    const named = HEADING.exec(style?.name ?? at);
    if (named) return Number(named[1]);
  }
  return 0;
}
