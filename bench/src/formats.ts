import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { applyDocumentRecipe, defaultScheme, type MergeMine, mergeVersions, type MergeTheirs, proposeDocumentRecipe } from '@coomb/core';
import { seeded } from '@coomb/core/testing';
import { openArchive, readCsv, readDocx, readHtml, readJunit, readMarkdown, readPdf, readReqifFile, readXlsx, readXmi } from '@coomb/formats';
import { Parser } from 'htmlparser2';
import MarkdownIt from 'markdown-it';
import Papa from 'papaparse';
import { SaxesParser } from 'saxes';
import { makeLargeDocument, makers } from './large-files.js';
import { type Row, time, timeEach } from './measure.js';

/** Parsing alone: the bytes go through the XML parser that Coomb uses, and nothing is done with them. */
async function parseBare(chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>): Promise<void> {
  const parser = new SaxesParser({ xmlns: false, position: true });
  const decoder = new TextDecoder();
  for await (const chunk of chunks) parser.write(decoder.decode(chunk, { stream: true }));
  parser.close();
}

function* pieces(bytes: Uint8Array): Generator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += 1 << 16) yield bytes.subarray(at, at + (1 << 16));
}

async function parseParts(bytes: Uint8Array, wanted: (name: string) => boolean): Promise<void> {
  const archive = await openArchive(bytes);
  for (const name of archive.names.filter(wanted)) await parseBare(await archive.stream(name));
  archive.close();
}

const formats: { name: keyof typeof makers; goal: string; bareName: string; read: (bytes: Buffer) => unknown; bare: (bytes: Buffer) => unknown }[] = [
  {
    name: 'docx',
    goal: '≥ 0.4 × of unzip and parse',
    bareName: 'unzip and parse alone',
    read: readDocx,
    bare: (bytes) => parseParts(bytes, (name) => name === 'word/document.xml'),
  },
  { name: 'reqif', goal: '≥ 0.5 × of the bare parser, ≤ 300 MB', bareName: 'parse alone', read: readReqifFile, bare: (bytes) => parseBare(pieces(bytes)) },
  {
    name: 'xlsx',
    goal: '50,000 × 20 in ≤ 2.5 s, ≤ 250 MB',
    bareName: 'unzip and parse alone',
    read: readXlsx,
    bare: (bytes) => parseParts(bytes, (name) => /sharedStrings|worksheets\/sheet/.test(name)),
  },
  {
    name: 'csv',
    goal: '≥ 0.6 × of the bare parser',
    bareName: 'parse alone',
    read: (bytes) => readCsv(bytes, 'a.csv'),
    bare: (bytes) => Papa.parse(bytes.toString('utf8')),
  },
  {
    name: 'md',
    goal: '≥ 0.4 × of the bare parser',
    bareName: 'parse alone',
    read: readMarkdown,
    bare: (bytes) => new MarkdownIt().parse(bytes.toString('utf8'), {}),
  },
  { name: 'html', goal: '≥ 0.4 × of the bare parser', bareName: 'parse alone', read: readHtml, bare: (bytes) => new Parser({}).end(bytes.toString('utf8')) },
  { name: 'xmi', goal: '≥ 0.5 × of the bare parser', bareName: 'parse alone', read: readXmi, bare: (bytes) => parseBare(pieces(bytes)) },
  { name: 'xml', goal: '≥ 0.5 × of the bare parser', bareName: 'parse alone', read: readJunit, bare: (bytes) => parseBare(pieces(bytes)) },
  { name: 'pdf', goal: '≥ 0.6 × of the bare parser', bareName: 'texts of every page alone', read: readPdf, bare: readPages },
];

async function readPages(bytes: Buffer): Promise<void> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const loading = getDocument({ data: new Uint8Array(bytes), disableFontFace: true, verbosity: 0 });
  const pdf = await loading.promise;
  for (let number = 1; number <= pdf.numPages; number++) await (await pdf.getPage(number)).getTextContent();
  await loading.destroy();
}

/** Reading each format at two sizes, as a ratio to parsing the same bytes alone, with the memory that it takes; and the merge. */
export async function benchFormats(): Promise<Row[]> {
  const rows: Row[] = [await benchRecipe(), await benchMerge()];
  const folder = mkdtempSync(join(tmpdir(), 'coomb-formats-'));
  for (const { name, goal, bareName, read, bare } of formats)
    for (const count of [5000, 50_000]) {
      const bytes = await makers[name](count);
      const path = join(folder, `large.${name}`);
      writeFileSync(path, bytes);
      const runs = count > 10_000 ? 5 : 7;
      const [median, parse] = (await timeEach(runs, [() => read(bytes), () => bare(bytes)])) as [number, number];
      const speed = bytes.length / 1024 / 1024 / (median / 1000);
      rows.push({
        what: `read ${name === 'xml' ? 'JUnit .xml' : `.${name}`}: ${speed.toFixed(1)} MB/s, ${measureMemory(path)} MB`,
        size: `${count.toLocaleString('en')} items, ${(bytes.length / 1024).toLocaleString('en', { maximumFractionDigits: 0 })} kB`,
        runs,
        median,
        baseline: { what: bareName, median: parse },
        goal,
      });
    }
  rmSync(folder, { recursive: true });
  return rows;
}

function measureMemory(path: string): string {
  const script = fileURLToPath(new URL('./read-once.mjs', import.meta.url));
  return execFileSync(process.execPath, ['--expose-gc', script, path], { encoding: 'utf8' }).trim();
}

async function benchRecipe(): Promise<Row> {
  const bytes = await makeLargeDocument();
  const { document } = await readDocx(bytes);
  const recipe = proposeDocumentRecipe(defaultScheme, document);
  const items = applyDocumentRecipe(defaultScheme, recipe, document).drafts.filter((draft) => draft.role === 'item').length;
  if (items !== 5000) throw new Error(`The document gave ${items} items`);
  const [median, parse] = (await timeEach(7, [
    async () => applyDocumentRecipe(defaultScheme, recipe, (await readDocx(bytes)).document),
    () => parseParts(bytes, (name) => name === 'word/document.xml'),
  ])) as [number, number];
  return {
    what: 'read a .docx and apply its recipe',
    size: '5,000 requirements',
    runs: 7,
    median,
    baseline: { what: 'unzip and parse alone', median: parse },
    goal: '≥ 0.4 × of unzip and parse',
  };
}

/** Three versions of fifty thousand items: every tenth changed there, every tenth here, some moved, added, dropped. */
async function benchMerge(): Promise<Row> {
  const count = 50_000;
  const random = seeded(5);
  const values = (i: number, mark: string) => ({
    title: `Item ${i}${mark}`,
    text: `<p>The weir control shall hold level ${i}${mark}.</p>`,
    kind: 'requirement',
    'field:priority': 'High',
  });
  const mine: MergeMine[] = Array.from({ length: count }, (_, i) => {
    const base = { values: values(i, ''), links: [`derives out need-${i % 100}`], parent: i % 50 ? `i${i - (i % 50)}` : null, order: i };
    const own = random() < 0.1 ? values(i, ' here') : values(i, '');
    return {
      id: `i${i}`,
      key: `K-${i}`,
      heading: false,
      title: own.title,
      words: own.title,
      parent: i % 50 ? i - (i % 50) : -1,
      parentId: base.parent,
      withdrawn: false,
      values: own,
      links: base.links,
      base,
    };
  });
  const kept = mine.map((_, i) => i).filter((i) => i % 50 === 0 || random() > 0.01);
  const at = new Map(kept.map((i, index) => [i, index]));
  const theirs: MergeTheirs[] = kept.map((i) => {
    const own = random() < 0.1 ? values(i, ' there') : values(i, '');
    return {
      key: `K-${i}`,
      heading: false,
      title: own.title,
      words: own.title,
      parent: i % 50 ? at.get(i - (i % 50))! : -1,
      values: own,
      links: [`derives out need-${i % 100}`],
    };
  });
  const median = await time(9, () => mergeVersions(mine, theirs));
  return { what: 'three-way merge', size: '50,000 items', runs: 9, median, goal: '≤ 150 ms' };
}
