import type { ModelNotation } from '@coomb/core';
import { isArchive } from './archive/zip.js';
import { openModelParts } from './xmi/read-xmi.js';
import { rewriteXmi } from './xmi/rewrite-xmi.js';
import { writeStandardXmi } from './xmi/write-standard.js';
import { openXmiFile } from './xmi/xmi-file.js';
import { escapeText, rewriteXml, type XmlEdit } from './xml/rewrite-xml.js';
import { childOf, readXmlTree, walkTree, type XmlNode } from './xml/xml-tree.js';
import type { ModelEdits } from './model-out/model-edits.js';

/**
 * Writes the file of a model again with what changed here. UML in XMI takes every edit; processes and decisions take names and texts, system
 * structures texts, and what else changed is told by the read-back. Throws ReadError.
 */
export async function rewriteModel(notation: ModelNotation, bytes: Uint8Array, edits: ModelEdits): Promise<Buffer> {
  if (notation === 'uml') return rewriteXmi(bytes, edits);
  if (isArchive(bytes) || notation === 'ecore') return Buffer.from(bytes);
  const root = await readXmlTree(bytes);
  const written = new Map<number, XmlEdit>();
  const edit = (node: XmlNode): XmlEdit => {
    const known = written.get(node.at) ?? {};
    written.set(node.at, known);
    return known;
  };
  const nodeOf = notation === 'ssp' ? nodesByPath(root) : nodesById(root);
  if (notation !== 'ssp')
    for (const [id, name] of edits.names) {
      const node = nodeOf.get(id);
      if (node) edit(node).attributes = { ...edit(node).attributes, name };
    }
  for (const [id, text] of edits.texts) {
    const node = nodeOf.get(id);
    if (!node) continue;
    if (notation === 'ssp') edit(node).attributes = { ...edit(node).attributes, description: text || null };
    else setText(node, notation === 'bpmn' ? 'documentation' : 'description', text, edit);
  }
  if (notation !== 'ssp') placeDrawn(nodeOf, edits, edit);
  return rewriteXml(bytes, written);
}

/** Bounds of shapes, and waypoints of lines that have as many as before. */
function placeDrawn(nodeOf: ReadonlyMap<string, XmlNode>, { boxes, points }: ModelEdits, edit: (node: XmlNode) => XmlEdit): void {
  for (const [id, box] of boxes) {
    const node = nodeOf.get(id);
    const bounds = node && childOf(node, 'Bounds');
    if (bounds) edit(bounds).attributes = Object.fromEntries(Object.entries(box).map(([name, value]) => [name, String(Math.round(value * 1000) / 1000)]));
  }
  for (const [id, bends] of points) {
    const waypoints = nodeOf.get(id)?.children.filter(({ tag }) => tag === 'waypoint') ?? [];
    if (waypoints.length !== bends.length) continue;
    waypoints.forEach((node, index) => {
      edit(node).attributes = { x: String(bends[index]!.x), y: String(bends[index]!.y) };
    });
  }
}

/** What is said of an element stands in a child of it; a new one comes last, in the prefix of the element itself. */
function setText(node: XmlNode, tag: string, text: string, edit: (node: XmlNode) => XmlEdit): void {
  const own = node.tag === 'textAnnotation' ? childOf(node, 'text') : childOf(node, tag);
  if (own) edit(own).text = text;
  else if (text) edit(node).append = `<${node.prefix}${tag}>${escapeText(text)}</${node.prefix}${tag}>`;
}

function nodesById(root: XmlNode): Map<string, XmlNode> {
  const found = new Map<string, XmlNode>();
  for (const node of walkTree(root)) if (node.attributes.id && !found.has(node.attributes.id)) found.set(node.attributes.id, node);
  return found;
}

/** Systems and components by their path of names, as they are read. */
function nodesByPath(root: XmlNode): Map<string, XmlNode> {
  const found = new Map<string, XmlNode>();
  const visit = (node: XmlNode, above: string) => {
    const path = above ? `${above}/${node.attributes.name ?? ''}` : (node.attributes.name ?? '');
    if (!found.has(path)) found.set(path, node);
    for (const part of childOf(node, 'Elements')?.children ?? []) if (part.tag === 'System' || part.tag === 'Component') visit(part, path);
  };
  const system = childOf(root, 'System');
  if (system) visit(system, '');
  return found;
}

/** A UML model with what changed here, in the standard's own way for another tool: one file, whatever dialect and however many files it came in. Throws ReadError. */
export async function writeStandardModel(bytes: Uint8Array, edits: ModelEdits): Promise<Buffer> {
  const edited = await rewriteXmi(bytes, edits);
  const files = isArchive(edited) ? await openModelParts(edited) : [await openXmiFile('', edited)];
  return Buffer.from(writeStandardXmi(files, 'Coomb'));
}
