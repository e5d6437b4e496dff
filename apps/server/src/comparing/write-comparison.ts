import type { ComparedRow, compareMoments, ReplyOf } from '@coomb/contract';
import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';

type Comparison = ReplyOf<typeof compareMoments>;

const didWords = { came: 'came', went: 'went', changed: 'changed', moved: 'moved' };
const sayDay = (at: string) => new Date(at).toISOString().slice(0, 16).replace('T', ' ');
const nameOf = ({ item, phrase, other }: ComparedRow) =>
  `${item.reference} ${item.title}${phrase ? ` ${phrase} ${other ? `${other.reference} ${other.title}` : ''}` : ''}`;
const words = (row: ComparedRow['parts'][number], without: 'added' | 'removed') =>
  row.words
    .filter(({ type }) => type !== without)
    .map(({ text }) => text)
    .join('');

/** One row for each part that is different, so that a spreadsheet can be sorted and filtered by any of it. */
export function* comparisonTable({ rows }: Comparison): Generator<string[]> {
  yield ['Sort', 'What became of it', 'Reference', 'Title', 'Link', 'Other end', 'Part', 'Before', 'After', 'Person', 'Change', 'When'];
  for (const row of rows) {
    const { entity, did, item, phrase, other, person, seq, at } = row;
    const head = [entity, didWords[did], item.reference, item.title, phrase ?? '', other ? `${other.reference} ${other.title}` : ''];
    const tail = [person, String(seq), sayDay(at)];
    if (row.parts.length === 0) yield [...head, '', '', '', ...tail];
    for (const part of row.parts) yield [...head, part.part, words(part, 'added'), words(part, 'removed'), ...tail];
  }
}

/** A document with marks in the text: what went is struck, what came is underlined. */
export function comparisonDocument(title: string, comparison: Comparison): Promise<Buffer> {
  const { from, to, items, links, rows } = comparison;
  const count = ({ came, went, changed, moved }: Comparison['items']) => `${came} came, ${went} went, ${changed} changed, ${moved} moved`;
  const paragraphs: Paragraph[] = [
    new Paragraph({ heading: HeadingLevel.TITLE, children: [new TextRun(title)] }),
    new Paragraph({ children: [new TextRun(`From change ${from.seq} (${sayDay(from.at)}) to change ${to.seq} (${sayDay(to.at)}), times in UTC.`)] }),
    new Paragraph({ children: [new TextRun(`Items: ${count(items)}. Links: ${count(links)}.`)], spacing: { after: 200 } }),
  ];
  let group: string | undefined;
  for (const row of rows) {
    if (row.group !== group) {
      group = row.group;
      paragraphs.push(new Paragraph({ heading: HeadingLevel.HEADING_1, children: [new TextRun(group)] }));
    }
    paragraphs.push(
      new Paragraph({
        spacing: { before: 160 },
        keepNext: row.parts.length > 0,
        children: [
          new TextRun({ text: nameOf(row), bold: true, ...(row.did === 'went' && { strike: true }) }),
          new TextRun({ text: `  ${row.entity === 'link' ? 'link ' : ''}${didWords[row.did]}; ${row.person}, change ${row.seq}`, color: '6B6658', size: 18 }),
        ],
      }),
    );
    for (const { part, words: list } of row.parts)
      paragraphs.push(
        new Paragraph({
          indent: { left: 360 },
          children: [
            new TextRun({ text: `${part}: `, color: '6B6658' }),
            ...list.map(
              ({ type, text }) =>
                new TextRun({
                  text,
                  ...(type === 'added' && { underline: {}, color: '3D6A1F' }),
                  ...(type === 'removed' && { strike: true, color: '9B3420' }),
                }),
            ),
          ],
        }),
      );
  }
  return Packer.toBuffer(
    new Document({ creator: 'Coomb', title, styles: { default: { document: { run: { font: 'Georgia', size: 21 } } } }, sections: [{ children: paragraphs }] }),
  );
}
