import { applyDocumentRecipe, defaultScheme, proposeDocumentRecipe } from '@coomb/core';
import { openArchive, readDocx } from '@coomb/formats';
import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow } from 'docx';
import { SaxesParser } from 'saxes';
import { seeded } from '@coomb/core/testing';
import { type Row, time } from './measure.js';

const REQUIREMENTS = 5000;

export async function makeLargeDocument(): Promise<Buffer> {
  const random = seeded(11);
  const words = ['gate', 'level', 'weir', 'control', 'pool', 'drive', 'signal', 'alarm', 'river', 'flow'];
  const sentence = () =>
    `The ${words[Math.floor(random() * 10)]} shall hold the ${words[Math.floor(random() * 10)]} within ${Math.floor(random() * 90)} cm of the ${words[Math.floor(random() * 10)]} while it is in use.`;
  const cells = (texts: string[]) => new TableRow({ children: texts.map((text) => new TableCell({ children: [new Paragraph(text)] })) });
  const children: (Paragraph | Table)[] = [];
  for (let section = 0; section < REQUIREMENTS / 50; section++) {
    children.push(new Paragraph({ text: `Section ${section + 1}`, heading: HeadingLevel.HEADING_1 }));
    const own = Array.from({ length: 50 }, (_, index) => [`SYS-${section * 50 + index + 1}`, sentence(), 'High', 'Test']);
    if (section % 2) children.push(new Table({ rows: [cells(['ID', 'Requirement', 'Priority', 'Verification method']), ...own.map(cells)] }));
    else for (const [id, text] of own) children.push(new Paragraph(`${id}: ${text}`), new Paragraph('Priority: High'));
  }
  return Packer.toBuffer(new Document({ sections: [{ children }] }));
}

/** Reading a document, as a ratio to unzipping and bare parsing of the same bytes. */
export async function benchFormats(): Promise<Row[]> {
  const bytes = await makeLargeDocument();
  const bare = async () => {
    const archive = await openArchive(bytes);
    const parser = new SaxesParser({ xmlns: false, position: true });
    const decoder = new TextDecoder();
    for await (const chunk of await archive.stream('word/document.xml')) parser.write(decoder.decode(chunk, { stream: true }));
    parser.close();
    archive.close();
  };
  const { document } = await readDocx(bytes);
  const recipe = proposeDocumentRecipe(defaultScheme, document);
  const outcome = applyDocumentRecipe(defaultScheme, recipe, document);
  const items = outcome.drafts.filter((draft) => draft.role === 'item').length;
  if (items !== REQUIREMENTS) throw new Error(`The document gave ${items} items`);
  const size = `${REQUIREMENTS.toLocaleString('en')} requirements, ${(bytes.length / 1024).toFixed(0)} kB`;
  const read = await time(7, () => readDocx(bytes));
  const parse = await time(7, bare);
  const both = await time(7, async () => applyDocumentRecipe(defaultScheme, recipe, (await readDocx(bytes)).document));
  return [
    { what: 'read a .docx', size, runs: 7, median: read, baseline: { what: 'unzip and parse alone', median: parse }, goal: '≥ 0.6 × of the bare parser' },
    {
      what: 'read a .docx and apply its recipe',
      size,
      runs: 7,
      median: both,
      baseline: { what: 'unzip and parse alone', median: parse },
      goal: '≥ 0.6 × of the bare parser',
    },
  ];
}
