import { tableOf, cleanAllTexts, counted, markContents } from '@coomb/core';
import { bpmn } from './bpmn/format.js';
import { csv } from './csv/format.js';
import { dmn } from './dmn/format.js';
import { docx } from './docx/format.js';
import { ecore } from './ecore/format.js';
import { html } from './html/format.js';
import { junit } from './junit/format.js';
import { markdown } from './markdown/format.js';
import { pdf } from './pdf/format.js';
import { reqif } from './reqif/format.js';
import { ssp } from './ssp/format.js';
import { xlsx } from './xlsx/format.js';
import { xmi } from './xmi/format.js';
import type { FileContent, FileFormat, ReadOptions } from './format/file-format.js';
import { ReadError } from './read-error.js';
import { withLeftOut } from './xml/xml-characters.js';

/** Every format Coomb reads, in the order in which they are tried. Readers are loaded when the first file of theirs comes. */
export const fileFormats: readonly FileFormat[] = [docx, xlsx, pdf, markdown, html, junit, reqif, bpmn, dmn, ssp, ecore, xmi, csv];

export function findFormat(name: string, bytes: Uint8Array, among = fileFormats): FileFormat | undefined {
  const extension = name.slice(name.lastIndexOf('.') + 1).toLowerCase();
  return among.find((format) => format.fits(bytes, extension));
}

/** Formats that another program turns into one that is read. */
const advice = tableOf<string>({
  ...Object.fromEntries(['doc', 'rtf', 'odt', 'pages', 'wpd'].map((one) => [one, 'Save it as .docx in a word processor and hand that in.'])),
  ...Object.fromEntries(['xls', 'xlsb', 'ods', 'numbers'].map((one) => [one, 'Save it as .xlsx in a spreadsheet program and hand that in.'])),
  ...Object.fromEntries(['zip', '7z', 'rar', 'gz', 'tar'].map((one) => [one, 'Unpack it and hand in the files in it.'])),
});

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
export async function readFileContent(
  name: string,
  bytes: Uint8Array,
  options: ReadOptions = {},
  among = fileFormats,
): Promise<{ format: FileFormat; content: FileContent }> {
  if (bytes.length === 0) throw new ReadError('file-empty', `${name} is empty.`);
  const format = findFormat(name, bytes, among);
  if (!format)
    throw new ReadError(
      'format-unknown',
      `${name} is of no kind that Coomb reads. ${findAdvice(name) ?? `It reads ${among.map((one) => `.${one.extensions.join(', .')}`).join(', ')}.`}`,
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
