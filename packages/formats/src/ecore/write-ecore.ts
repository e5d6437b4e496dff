import type { AddedElement, ModelEdits } from '../model-out/model-edits.js';
import { TreeEdits, writeElement } from '../model-out/tree-edits.js';
import { escapeAttribute, type XmlEdit } from '../xml/rewrite-xml.js';
import { childrenOf, walkTree, type XmlNode } from '../xml/xml-tree.js';

const NAMED = new Set(['eClassifiers', 'eStructuralFeatures', 'eOperations', 'eParameters', 'eLiterals', 'eSubpackages']);
/** Where documentation stands by custom, as readers of Ecore look for it. */
const DOCUMENTATION = 'http://www.eclipse.org/emf/2002/GenModel';

/**
 * What changed here, as edits of an Ecore model: names, documentation, what was withdrawn and what was made. Everything is known by its path of names
 * there, so that a new name is told to all that refers to it.
 */
export function editEcore(root: XmlNode, wanted: ModelEdits): Map<number, XmlEdit> {
  const edits = new TreeEdits();
  const nodeOf = findByPath(root);
  for (const [path, text] of wanted.texts) {
    const node = nodeOf.get(path);
    if (node) document(edits, node, text);
  }
  for (const path of wanted.removed) {
    const node = nodeOf.get(path);
    if (node) edits.drop(node);
  }
  const supers = new Set(wanted.removedRelations.map(({ from, to }) => `${from} > ${to}`));
  for (const [path, name] of wanted.names) {
    const node = nodeOf.get(path);
    if (node) edits.setAttributes(node, { name });
  }
  const renamed = new Map([...nodeOf.keys()].map((path) => [path, rename(path, wanted.names)]));
  const pathOf = new Map([...nodeOf].map(([path, node]) => [node, path]));
  for (const node of walkTree(root)) {
    if (edits.isGone(node)) continue;
    const own = pathOf.get(node);
    for (const [name, value] of Object.entries(node.attributes)) {
      if (name === 'name' || !value.includes('#//')) continue;
      const isKept = (target: string) => {
        const found = nodeOf.get(target);
        return !(found && edits.isGone(found)) && !(name === 'eSuperTypes' && supers.has(`${own} > ${target}`));
      };
      const next = referAnew(value, isKept, renamed);
      if (next === value) continue;
      if (next === '' && node.tag.startsWith('eGeneric')) edits.drop(node);
      else edits.setAttributes(node, { [name]: next || null });
    }
  }
  const made = new Map(wanted.added.map((element) => [element.id, element]));
  for (const element of wanted.added)
    if (element.parent === null || !made.has(element.parent)) {
      const owner = element.parent === null ? root : nodeOf.get(element.parent);
      if (owner && !edits.isGone(owner)) edits.append(owner, write(root, owner.tag, element, wanted.added, renamed));
    }
  return edits.written;
}

/** Packages, classifiers and what they own, by their path of names as they are read. */
function findByPath(root: XmlNode): Map<string, XmlNode> {
  const found = new Map<string, XmlNode>();
  const visit = (node: XmlNode, path: string) => {
    if (!found.has(path)) found.set(path, node);
    for (const child of node.children) if (NAMED.has(child.tag)) visit(child, `${path}/${child.attributes.name ?? ''}`);
  };
  visit(root.tag === 'EPackage' ? root : (root.children.find(({ tag }) => tag === 'EPackage') ?? root), '/');
  return found;
}

/** A path after everything on it has its new name. */
function rename(path: string, names: ReadonlyMap<string, string>): string {
  const steps = path.split('/').slice(2);
  let [before, after] = ['/', '/'];
  for (const step of steps) {
    before += `/${step}`;
    after += `/${names.get(before) ?? step}`;
  }
  return after;
}

/** References to paths in the file: those that are kept, by their names of today. Each may have its type before it. */
function referAnew(text: string, isKept: (path: string) => boolean, renamed: ReadonlyMap<string, string>): string {
  const words = text.trim().split(/\s+/);
  const out: string[] = [];
  words.forEach((word, at) => {
    const isType = !word.includes('#') && words[at + 1]?.includes('#');
    const path = /^#(\/\/.*)$/.exec(isType ? words[at + 1]! : word)?.[1];
    if (path !== undefined && !isKept(path)) return;
    out.push(isType || path === undefined ? word : `#${renamed.get(path) ?? path}`);
  });
  const next = out.join(' ');
  return next === words.join(' ') ? text : next;
}

function document(edits: TreeEdits, node: XmlNode, text: string): void {
  for (const annotation of childrenOf(node, 'eAnnotations'))
    for (const details of childrenOf(annotation, 'details'))
      if (details.attributes.key === 'documentation') {
        if (text) edits.setAttributes(details, { value: text });
        else edits.drop(details);
        return;
      }
  if (text) edits.place(node, annotate(text), () => false);
}

const annotate = (text: string) =>
  `<eAnnotations source="${DOCUMENTATION}">${writeElement('', 'details', { key: 'documentation', value: text })}</eAnnotations>`;

/** What is made here of the sorts that Ecore has; others stay here. */
function write(root: XmlNode, owner: string, element: AddedElement, all: readonly AddedElement[], renamed: ReadonlyMap<string, string>): string {
  const isPackage = owner === 'EPackage' || owner === 'eSubpackages' || owner === 'XMI';
  const { type, name, text, role, typedBy } = element;
  const prefix = [...walkTree(root)].find(({ tag, attributes }) => tag === 'eClassifiers' && attributes.type)?.attributes.type?.split(':')[0] ?? 'ecore';
  const tag = isPackage
    ? type === 'EPackage'
      ? 'eSubpackages'
      : ['EClass', 'EEnum', 'EDataType'].includes(type)
        ? 'eClassifiers'
        : ''
    : 'eStructuralFeatures';
  if (!tag || (tag === 'eStructuralFeatures' && type !== 'EReference' && type !== 'EAttribute')) return '';
  const typed = all.find(({ id }) => id === typedBy);
  const target = typed ? `//${typed.name}` : typedBy === undefined ? undefined : renamed.get(typedBy);
  const inside = all.filter(({ parent }) => parent === element.id).map((one) => write(root, tag, one, all, renamed));
  const attributes = { name, containment: role === 'part' ? 'true' : undefined, eType: target === undefined ? undefined : `#${target}` };
  const said = tag === 'eSubpackages' ? '' : ` xsi:type="${escapeAttribute(`${prefix}:${type}`)}"`;
  const markup = writeElement('', tag, attributes, (text ? annotate(text) : '') + inside.join(''));
  return markup.replace(`<${tag}`, `<${tag}${said.replaceAll('$', '$$$$')}`);
}
