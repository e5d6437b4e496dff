import type { Issue, ModelDocument } from '@coomb/core';
import { isArchive, openArchive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { buildUmlModel } from './build-uml-model.js';
import { openXmiFile, type XmiFile } from './xmi-file.js';

export interface ReadModel {
  model: ModelDocument;
  issues: Issue[];
}

/**
 * Reads a model of UML 2.x with any profiles in XMI 2.1 to 2.5.1 and UML diagram interchange: one file, or an archive of several that refer to
 * each other. What is unknown is counted and named, never an error. Throws ReadError when nothing of it is XMI.
 */
export async function readXmi(bytes: Uint8Array): Promise<ReadModel> {
  const files = isArchive(bytes) ? await openModelParts(bytes) : [await openXmiFile('', bytes)];
  const isModel = ({ content }: XmiFile) => content.root === 'XMI' || content.objects.some(({ space }) => space === 'uml');
  const models = files.filter(isModel);
  if (models.length === 0) throw new ReadError('not-xmi', describeOther(files[0]!.content.root, files[0]!.content.namespace));
  return buildUmlModel(models);
}

/** Parts of an archive that are XML, in the order of their names: which of them comes first decides whose identifiers stay as they are. */
export async function openModelParts(bytes: Uint8Array, keepsPlaces = false): Promise<XmiFile[]> {
  const archive = await openArchive(bytes);
  try {
    const files: XmiFile[] = [];
    for (const name of archive.names.toSorted()) {
      if (!/\.(?:xmi|uml|xml)$/i.test(name) || /(?:^|\/)(?:__MACOSX\/|\._)/.test(name)) continue;
      files.push(await openXmiFile(name, await archive.read(name), keepsPlaces));
    }
    if (files.length === 0) throw new ReadError('not-xmi', 'The archive holds no model: no .xmi, .uml or .xml file. Unpack it and hand in the files in it.');
    return files;
  } finally {
    archive.close();
  }
}

/** What XML of other sorts is, as far as its root and namespace tell, and what can be done with it. */
const OTHERS: [RegExp, string][] = [
  [/www\.w3\.org\/1999\/xhtml|^html$/i, 'a web page. Save it with the ending .html and hand that in'],
  [/www\.w3\.org\/2000\/svg|^svg$/i, 'a drawing (SVG). Drawings alone hold no items'],
  [/w3\.org\/2001\/XMLSchema|^schema$/i, 'an XML schema. It describes files; hand in a file that it describes'],
  [
    /schemas\.openxmlformats\.org|schemas\.microsoft\.com\/office|^(?:document|workbook|package)$/i,
    'a part of an office document. Hand in the whole document as .docx or .xlsx',
  ],
  [/opendocument/i, 'an office document in OpenDocument. Save it as .docx or .xlsx and hand that in'],
  [/oasis-open\.org.*(?:dita|docbook)|docbook|^(?:book|article|topic)$/i, 'a text document. Have it written as .docx, .html or .pdf and hand that in'],
  [/^(?:rss|feed)$/i, 'a list of news. Coomb reads requirements, models, tests and results'],
];

function describeOther(root: string, namespace: string): string {
  const known = OTHERS.find(([pattern]) => pattern.test(namespace) || pattern.test(root))?.[1];
  const named = `The file is XML with the root element <${root}>${namespace ? ` of the namespace ${namespace.slice(0, 200)}` : ' and no namespace'}`;
  return known
    ? `${named}: ${known}.`
    : `${named}, and holds no UML model. Coomb reads models as XMI (UML, SysML), BPMN, DMN, SSP or Ecore, requirements as ReqIF, results as JUnit XML: have it exported as one of these, or as a table (.xlsx, .csv).`;
}
