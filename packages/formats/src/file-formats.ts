import { cleanAllTexts, counted, markContents, type Issue, type ItemContent } from '@coomb/core';
import type { JunitReading } from './junit/read-junit.js';
import { ReadError } from './read-error.js';
import { withLeftOut } from './xml/xml-characters.js';

/** What a file turned out to hold. */
export type FileContent = (ItemContent | { type: 'results'; results: JunitReading }) & { issues: Issue[] };

/** What a person says of a file that it does not say itself. */
export interface ReadOptions {
  /** How separated values are written; guessed when unsaid. */
  dialect?: { separator: string; quote: string } | undefined;
}

export interface FileFormat {
  id: string;
  label: string;
  mediaType: string;
  extensions: string[];
  /** Whether the bytes may be of this format; the first format in the list that says yes reads the file. */
  fits: (bytes: Uint8Array, extension: string) => boolean;
  read: (bytes: Uint8Array, name: string, options: ReadOptions) => Promise<FileContent>;
}

const isXml = (bytes: Uint8Array) =>
  /^\s*<(\?xml|!--|[\w:]+)/.test(
    Buffer.from(bytes.subarray(0, 200))
      .toString('utf8')
      .replace(/^\uFEFF/, '')
      .replaceAll('\0', ''),
  );
const root = (bytes: Uint8Array) =>
  /<(?:[\w-]+:)?([A-Za-z][\w-]*)[\s>]/.exec(
    Buffer.from(bytes.subarray(0, 8192))
      .toString('utf8')
      .replaceAll('\0', '')
      .replace(/<!--[\s\S]*?-->|<\?[\s\S]*?\?>/g, ''),
  )?.[1] ?? '';

/** Every format Coomb reads, in the order in which they are tried. Readers are loaded when the first file of theirs comes. */
export const fileFormats: readonly FileFormat[] = [
  {
    id: 'docx',
    label: 'Word-processed document',
    mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    extensions: ['docx', 'docm', 'dotx'],
    fits: (_, extension) => ['docx', 'docm', 'dotx'].includes(extension),
    read: async (bytes) => ({ type: 'document', ...(await (await import('./docx/read-docx.js')).readDocx(bytes)) }),
  },
  {
    id: 'xlsx',
    label: 'Workbook',
    mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    extensions: ['xlsx', 'xlsm', 'xltx'],
    fits: (_, extension) => ['xlsx', 'xlsm', 'xltx'].includes(extension),
    read: async (bytes) => ({ type: 'sheets', ...(await (await import('./xlsx/read-xlsx.js')).readXlsx(bytes)) }),
  },
  {
    id: 'pdf',
    label: 'PDF',
    mediaType: 'application/pdf',
    extensions: ['pdf'],
    fits: (_, extension) => extension === 'pdf',
    read: async (bytes) => ({ type: 'document', ...(await (await import('./pdf/read-pdf.js')).readPdf(bytes)) }),
  },
  {
    id: 'markdown',
    label: 'Markdown',
    mediaType: 'text/markdown',
    extensions: ['md', 'markdown'],
    fits: (_, extension) => extension === 'md' || extension === 'markdown',
    read: async (bytes) => ({ type: 'document', ...(await import('./markdown/read-markdown.js')).readMarkdown(bytes) }),
  },
  {
    id: 'html',
    label: 'Web page',
    mediaType: 'text/html',
    extensions: ['html', 'htm', 'xhtml'],
    fits: (_, extension) => ['html', 'htm', 'xhtml'].includes(extension),
    read: async (bytes) => ({ type: 'document', ...(await import('./html/read-html.js')).readHtml(bytes) }),
  },
  {
    id: 'junit',
    label: 'Test results (JUnit XML)',
    mediaType: 'application/xml',
    extensions: ['xml'],
    fits: (bytes) => isXml(bytes) && /^testsuites?$/.test(root(bytes)),
    read: async (bytes) => {
      const results = await (await import('./junit/read-junit.js')).readJunit(bytes);
      return { type: 'results', results, issues: results.issues };
    },
  },
  {
    id: 'reqif',
    label: 'Requirements exchange (ReqIF)',
    mediaType: 'application/xml',
    extensions: ['reqif', 'reqifz'],
    fits: (bytes, extension) => extension === 'reqif' || extension === 'reqifz' || (isXml(bytes) && root(bytes) === 'REQ-IF'),
    read: async (bytes) => ({ type: 'exchange', ...(await (await import('./reqif/read-reqif-file.js')).readReqifFile(bytes)) }),
  },
  {
    id: 'xmi',
    label: 'Model (UML in XMI 2.5.1)',
    mediaType: 'application/xml',
    extensions: ['xmi', 'uml', 'xml'],
    fits: (bytes, extension) => isXml(bytes) || extension === 'xmi' || extension === 'uml',
    read: async (bytes) => ({ type: 'model', ...(await (await import('./xmi/read-xmi.js')).readXmi(bytes)) }),
  },
  {
    id: 'csv',
    label: 'Separated values',
    mediaType: 'text/csv',
    extensions: ['csv', 'tsv', 'txt'],
    fits: (_, extension) => ['csv', 'tsv', 'txt'].includes(extension),
    read: async (bytes, name, { dialect }) => ({ type: 'sheets', ...(await import('./csv/read-csv.js')).readCsv(bytes, name, dialect) }),
  },
];

export function findFormat(name: string, bytes: Uint8Array): FileFormat | undefined {
  const extension = name.slice(name.lastIndexOf('.') + 1).toLowerCase();
  return fileFormats.find((format) => format.fits(bytes, extension));
}

/** Formats that another program turns into one that is read. */
const advice: Record<string, string> = {
  ...Object.fromEntries(['doc', 'rtf', 'odt', 'pages', 'wpd'].map((one) => [one, 'Save it as .docx in a word processor and hand that in.'])),
  ...Object.fromEntries(['xls', 'xlsb', 'ods', 'numbers'].map((one) => [one, 'Save it as .xlsx in a spreadsheet program and hand that in.'])),
  ...Object.fromEntries(['zip', '7z', 'rar', 'gz', 'tar'].map((one) => [one, 'Unpack it and hand in the files in it.'])),
};

function findAdvice(name: string): string | undefined {
  return advice[name.slice(name.lastIndexOf('.') + 1).toLowerCase()];
}

const MARKUP = new Set(['html', 'marked', 'xhtml']);

/** The one place where text of files is cleaned: soft line breaks are line breaks, what no document may hold is gone, and both are told. */
function cleanContent(content: FileContent): FileContent {
  if (content.type === 'document') markContents(content.document.blocks);
  const { breaks, dropped, texts } = cleanAllTexts(content, (property) => MARKUP.has(property));
  if (breaks > 0)
    content.issues.push({
      severity: 'note',
      code: 'text-breaks',
      at: 'the whole file',
      message: `${counted(breaks, 'soft line break')} in ${counted(texts, 'text')} became line breaks`,
    });
  if (dropped > 0)
    content.issues.push({
      severity: 'warning',
      code: 'text-cleaned',
      at: 'the whole file',
      message: `${counted(dropped, 'control character')} in ${counted(texts, 'text')} cannot be stored or written to any document and ${dropped === 1 ? 'was' : 'were'} left out`,
    });
  return content;
}

/** Reads a file by its name and content. Throws ReadError with what is wrong and what to do. */
export async function readFileContent(name: string, bytes: Uint8Array, options: ReadOptions = {}): Promise<{ format: FileFormat; content: FileContent }> {
  if (bytes.length === 0) throw new ReadError('file-empty', `${name} is empty.`);
  const format = findFormat(name, bytes);
  if (!format)
    throw new ReadError(
      'format-unknown',
      `${name} is of no kind that Coomb reads. ${findAdvice(name) ?? `It reads ${fileFormats.map((one) => `.${one.extensions.join(', .')}`).join(', ')}.`}`,
    );
  const { result, leftOut } = await withLeftOut(() => format.read(bytes, name, options));
  if (leftOut.count > 0)
    result.issues.push({
      severity: 'warning',
      code: 'xml-characters',
      at: leftOut.first.replace(/^.* in /, ''),
      message: `${counted(leftOut.count, 'character')} that no XML may hold ${leftOut.count === 1 ? 'was' : 'were'} left out, the first ${leftOut.first}; all else was read`,
    });
  return { format, content: cleanContent(result) };
}
