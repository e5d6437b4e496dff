import type { AddedElement, AddedRelation, ModelEdits } from '../model-out/model-edits.js';
import { type Box, lineBetween, nodesById, RoomBelow, sayBox, sayLength, TreeEdits, writeElement } from '../model-out/tree-edits.js';
import { readBounds } from '../xml/diagram-parts.js';
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

class DmnWriter {
  private readonly edits = new TreeEdits();
  private readonly nodeOf: Map<string, XmlNode>;
  private readonly boxOf = new Map<string, Box>();
  /** Needs of new elements, which go out with them. */
  private readonly added = new Map<string, AddedElement & { needs: [order: number, markup: string][] }>();
  private readonly diagram: XmlNode | undefined;
  private readonly room: RoomBelow;

  constructor(
    private readonly root: XmlNode,
    private readonly wanted: ModelEdits,
  ) {
    this.nodeOf = nodesById(root);
    this.diagram = [...walkTree(root)].find(({ tag }) => tag === 'DMNDiagram');
    for (const shape of this.diagram?.children ?? []) {
      const box = shape.tag === 'DMNShape' ? readBounds(shape) : undefined;
      if (box) this.boxOf.set(this.shownBy(shape), box);
    }
    this.room = new RoomBelow([...this.boxOf.values()]);
  }

  private shownBy = (node: XmlNode): string => refOf(node.attributes.dmnElementRef ?? '').replace(/^\w+:/, '');

  write(): Map<number, XmlEdit> {
    const { edits, wanted, nodeOf } = this;
    for (const [id, name] of wanted.names) {
      const node = nodeOf.get(id);
      if (node) edits.setAttributes(node, { name });
    }
    for (const [id, text] of wanted.texts) {
      const node = nodeOf.get(id);
      if (node) edits.setText(node, node.tag === 'textAnnotation' ? 'text' : 'description', text);
    }
    this.remove();
    edits.placeDrawn(nodeOf, wanted);
    for (const element of wanted.added) if (SIZES[element.type]) this.added.set(element.id, { ...element, needs: [] });
    for (const relation of wanted.addedRelations) this.addRelation(relation);
    for (const element of this.added.values()) this.addElement(element);
    for (const relation of wanted.addedRelations) this.drawLine(relation);
    return edits.written;
  }

  private remove(): void {
    const { edits, wanted } = this;
    for (const id of [...wanted.removed, ...wanted.removedRelations.map(({ relation }) => relation)]) {
      const node = this.nodeOf.get(id);
      if (node) edits.drop(node);
    }
    if (edits.written.size === 0) return;
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
    for (const node of walkTree(this.root)) if (node.attributes.dmnElementRef && !edits.isGone(node) && isGone(this.shownBy(node))) edits.drop(node);
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
    const like = this.diagram?.children.find((one) => one.tag === 'DMNShape');
    const bounds = like?.children.find((one) => one.tag === 'Bounds');
    if (!like || !bounds) return;
    const box = this.room.take(...SIZES[type]!);
    this.boxOf.set(id, box);
    this.edits.append(
      this.diagram!,
      writeElement(like.prefix, 'DMNShape', { id: `${id}-shape`, dmnElementRef: id }, writeElement(bounds.prefix, 'Bounds', sayBox(box))),
    );
  }

  /** What each needs of the other is said by what the two are. */
  private addRelation({ id, from, to }: AddedRelation): void {
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
    if (!end || !may?.includes(need) || (owner === 'knowledgeSource' && end === 'requiredKnowledge')) return;
    const { prefix } = this.root;
    const markup = writeElement(prefix, need, { id }, writeElement(prefix, end, { href: `#${to}` }));
    const fresh = this.added.get(from);
    if (fresh) return void fresh.needs.push([NEEDS.indexOf(need), markup]);
    const before = new Set([...ABOVE, ...NEEDS.slice(0, NEEDS.indexOf(need) + 1)]);
    this.edits.place(this.nodeOf.get(from)!, markup, (tag) => before.has(tag));
  }

  private typeOf(id: string): string {
    const type = this.added.get(id)?.type;
    if (type) return type[0]!.toLowerCase() + type.slice(1);
    const node = this.nodeOf.get(id);
    return node && !this.edits.isGone(node) ? node.tag : '';
  }

  private drawLine({ id, from, to }: AddedRelation): void {
    const [own, needed] = [this.boxOf.get(from), this.boxOf.get(to)];
    const like = this.diagram?.children.find(({ tag }) => tag === 'DMNEdge');
    const waypoint = like?.children.find(({ tag }) => tag === 'waypoint');
    if (!own || !needed || !like || !waypoint) return;
    const line = lineBetween(needed, own).map(({ x, y }) => writeElement(waypoint.prefix, 'waypoint', { x: sayLength(x), y: sayLength(y) }));
    this.edits.append(this.diagram!, writeElement(like.prefix, 'DMNEdge', { id: `${id}-edge`, dmnElementRef: id }, line.join('')));
  }
}
