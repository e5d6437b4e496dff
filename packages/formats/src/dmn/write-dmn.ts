import type { AddedElement, AddedRelation, ModelEdits } from '../model-out/model-edits.js';
import { DrawnAdditions, nodesById, TreeEdits, writeElement } from '../model-out/tree-edits.js';
import { escapeText, type XmlEdit } from '../xml/rewrite-xml.js';
import { walkTree, type XmlNode } from '../xml/xml-tree.js';

/** What may be added, and how large it is drawn. */
const SIZES: Record<string, readonly [width: number, height: number]> = {
  Decision: [180, 80],
  InputData: [125, 45],
  KnowledgeSource: [100, 63],
  BusinessKnowledgeModel: [135, 46],
};
const DRAWN = new Set(['decision', 'inputData', 'knowledgeSource', 'businessKnowledgeModel', 'decisionService']);
/** Children of definitions that come before what is decided. */
const FIRST = new Set(['description', 'extensionElements', 'import', 'itemDefinition', ...DRAWN]);
/** Children that come before what a decision, a knowledge model or a source needs, and the needs themselves in their order. */
const ABOVE = ['description', 'extensionElements', 'question', 'allowedAnswers', 'variable', 'encapsulatedLogic'];
const NEEDS = ['informationRequirement', 'knowledgeRequirement', 'authorityRequirement'];

const refOf = (href: string) => href.slice(href.indexOf('#') + 1);

/** What changed here, as edits of decisions of DMN. What the notation has no place for is left out; reading the file back tells it. */
export function editDmn(root: XmlNode, edits: ModelEdits): Map<number, XmlEdit> {
  return new DmnWriter(root, edits).write();
}

const refOfShown = (text: string) => refOf(text).replace(/^\w+:/, '');

class DmnWriter {
  private readonly edits = new TreeEdits();
  private readonly nodeOf: Map<string, XmlNode>;
  /** Needs of new elements, which go out with them. */
  private readonly added = new Map<string, AddedElement & { needs: [order: number, markup: string][] }>();
  private readonly drawn: DrawnAdditions;

  constructor(
    private readonly root: XmlNode,
    private readonly wanted: ModelEdits,
  ) {
    this.nodeOf = nodesById(root);
    this.drawn = new DrawnAdditions(this.edits, root, {
      drawing: 'DMNDiagram',
      shape: 'DMNShape',
      edge: 'DMNEdge',
      shows: 'dmnElementRef',
      readShown: refOfShown,
    });
  }

  write(): Map<number, XmlEdit> {
    const { edits, wanted, nodeOf } = this;
    edits.writeWords(nodeOf, wanted, 'description');
    if (edits.dropGone(nodeOf, wanted)) this.forgetGone();
    edits.placeDrawn(nodeOf, wanted);
    for (const element of wanted.added) if (SIZES[element.type]) this.added.set(element.id, { ...element, needs: [] });
    const needs = wanted.addedRelations.filter((relation) => this.addRelation(relation));
    for (const element of this.added.values()) this.addElement(element);
    // The arrow leads from what is needed to what needs it.
    for (const { id, from, to } of needs) this.drawn.addLine(id, to, from);
    return edits.written;
  }

  private forgetGone(): void {
    const { edits } = this;
    const isGone = (id: string) => {
      const node = this.nodeOf.get(id);
      return node !== undefined && edits.isGone(node);
    };
    // What needs it, or groups it, is told by a child that refers to it.
    for (const node of walkTree(this.root)) {
      const { href } = node.attributes;
      if (href === undefined || !href.startsWith('#') || !isGone(refOf(href)) || edits.isGone(node)) continue;
      const isNeed = NEEDS.includes(node.parent?.tag ?? '') || node.parent?.tag === 'association';
      edits.drop(isNeed ? node.parent! : node);
    }
    for (const node of walkTree(this.root)) {
      const { dmnElementRef } = node.attributes;
      if (dmnElementRef && !edits.isGone(node) && isGone(refOfShown(dmnElementRef))) edits.drop(node);
    }
  }

  private addElement({ id, type, name, text, needs }: AddedElement & { needs: [number, string][] }): void {
    const { prefix } = this.root;
    const tag = type[0]!.toLowerCase() + type.slice(1);
    const inside =
      (text ? writeElement(prefix, 'description', {}, escapeText(text)) : '') +
      needs
        .toSorted(([a], [b]) => a - b)
        .map(([, markup]) => markup)
        .join('');
    this.edits.place(this.root, writeElement(prefix, tag, { id, name }, inside), (one) => FIRST.has(one));
    this.drawn.addShape(id, ...SIZES[type]!);
  }

  /** What each needs of the other is said by what the two are; false where the standard has no such need. */
  private addRelation({ id, from, to }: AddedRelation): boolean {
    const [owner, needed] = [this.typeOf(from), this.typeOf(to)];
    const need =
      needed === 'businessKnowledgeModel'
        ? 'knowledgeRequirement'
        : needed === 'knowledgeSource' || owner === 'knowledgeSource'
          ? 'authorityRequirement'
          : 'informationRequirement';
    const end = { decision: 'requiredDecision', inputData: 'requiredInput', knowledgeSource: 'requiredAuthority', businessKnowledgeModel: 'requiredKnowledge' }[
      needed
    ];
    const may = { decision: NEEDS, businessKnowledgeModel: NEEDS.slice(1), knowledgeSource: NEEDS.slice(2) }[owner];
    if (!end || !may?.includes(need) || (owner === 'knowledgeSource' && end === 'requiredKnowledge')) return false;
    const { prefix } = this.root;
    const markup = writeElement(prefix, need, { id }, writeElement(prefix, end, { href: `#${to}` }));
    const fresh = this.added.get(from);
    if (fresh) return fresh.needs.push([NEEDS.indexOf(need), markup]) > 0;
    const before = new Set([...ABOVE, ...NEEDS.slice(0, NEEDS.indexOf(need) + 1)]);
    this.edits.place(this.nodeOf.get(from)!, markup, (tag) => before.has(tag));
    return true;
  }

  private typeOf(id: string): string {
    const type = this.added.get(id)?.type;
    if (type) return type[0]!.toLowerCase() + type.slice(1);
    const node = this.nodeOf.get(id);
    return node && !this.edits.isGone(node) ? node.tag : '';
  }
}
