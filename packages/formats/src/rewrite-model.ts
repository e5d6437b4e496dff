import type { ModelNotation } from '@coomb/core';
import { isArchive } from './archive/zip.js';
import { openModelParts } from './xmi/read-xmi.js';
import { rewriteXmi } from './xmi/rewrite-xmi.js';
import { writeStandardXmi } from './xmi/write-standard.js';
import { openXmiFile } from './xmi/xmi-file.js';
import { editBpmn } from './bpmn/write-bpmn.js';
import { editDmn } from './dmn/write-dmn.js';
import { editEcore } from './ecore/write-ecore.js';
import { editSsp } from './ssp/write-ssp.js';
import { rewriteXml, type XmlEdit } from './xml/rewrite-xml.js';
import { readXmlTree, type XmlNode } from './xml/xml-tree.js';
import type { ModelEdits } from './model-out/model-edits.js';

/**
 * Writes the file of a model again with what changed here. UML in XMI takes every edit; processes and decisions take names, texts, positions,
 * what was added and withdrawn, and what leads from one to the other; system structures and Ecore, where everything is known by its name, take names,
 * texts, and what was added and withdrawn. What a notation has no place for is told by the read-back. Throws ReadError.
 */
export async function rewriteModel(notation: ModelNotation, bytes: Uint8Array, edits: ModelEdits): Promise<Buffer> {
  if (notation === 'uml') return rewriteXmi(bytes, edits);
  const write = WRITERS[notation];
  if (isArchive(bytes) || !write) return Buffer.from(bytes);
  return rewriteXml(bytes, write(await readXmlTree(bytes), edits));
}

const WRITERS: Partial<Record<ModelNotation, (root: XmlNode, edits: ModelEdits) => Map<number, XmlEdit>>> = {
  bpmn: editBpmn,
  dmn: editDmn,
  ssp: editSsp,
  ecore: editEcore,
};

/** A UML model with what changed here, in the standard's own way for another tool: one file, whatever dialect and however many files it came in. Throws ReadError. */
export async function writeStandardModel(bytes: Uint8Array, edits: ModelEdits): Promise<Buffer> {
  const edited = await rewriteXmi(bytes, edits);
  const files = isArchive(edited) ? await openModelParts(edited) : [await openXmiFile('', edited)];
  return Buffer.from(writeStandardXmi(files, 'Coomb'));
}
