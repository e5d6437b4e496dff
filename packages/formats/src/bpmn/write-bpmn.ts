import type { AddedElement, AddedRelation, ModelEdits } from '../model-out/model-edits.js';
import { DrawnAdditions, nodesById, TreeEdits, writeElement } from '../model-out/tree-edits.js';
import { escapeText, type XmlEdit } from '../xml/rewrite-xml.js';
import { childrenOf, textOf, walkTree, type XmlNode } from '../xml/xml-tree.js';

/** What stands in a process, and how large it is drawn. */
const SIZES: [RegExp, number, number][] = [
  [/Event$/, 36, 36],
  [/Gateway$/, 50, 50],
  [/Task$|^task$|^callActivity$|^subProcess$|^transaction$|^adHocSubProcess$/, 100, 80],
  [/^dataObjectReference$|^dataStoreReference$/, 40, 50],
];
const ARTIFACTS = new Set(['association', 'textAnnotation', 'group']);
/** Children of a process that come after everything that flows. */
const LAST = new Set([...ARTIFACTS, 'resourceRole', 'performer', 'humanPerformer', 'potentialOwner', 'correlationSubscription', 'supports']);
const CONTAINERS = new Set(['process', 'subProcess', 'transaction', 'adHocSubProcess']);
const REFERENCES = new Set(['incoming', 'outgoing', 'flowNodeRef', 'dataInputRefs', 'dataOutputRefs', 'innerParticipantRef', 'messageFlowRef']);
const ENDS = ['sourceRef', 'targetRef', 'attachedToRef', 'dataObjectRef', 'dataStoreRef'];

const localRef = (text: string) => text.trim().replace(/^[^:]*:/, '');

/** What changed here, as edits of a process of BPMN 2.0. What the notation has no place for is left out; reading the file back tells it. */
export function editBpmn(root: XmlNode, edits: ModelEdits): Map<number, XmlEdit> {
  return new BpmnWriter(root, edits).write();
}

class BpmnWriter {
  private readonly edits = new TreeEdits();
  private readonly nodeOf: Map<string, XmlNode>;
  /** Process or sub-process that holds each new element. */
  private readonly homeOf = new Map<string, XmlNode>();
  private readonly drawn: DrawnAdditions;

  constructor(
    private readonly root: XmlNode,
    private readonly wanted: ModelEdits,
  ) {
    this.nodeOf = nodesById(root);
    this.drawn = new DrawnAdditions(this.edits, root, {
      drawing: 'BPMNPlane',
      shape: 'BPMNShape',
      edge: 'BPMNEdge',
      shows: 'bpmnElement',
      readShown: localRef,
    });
  }

  write(): Map<number, XmlEdit> {
    const { edits, wanted, nodeOf } = this;
    edits.writeWords(nodeOf, wanted, 'documentation');
    if (edits.dropGone(nodeOf, wanted)) this.forgetGone();
    edits.placeDrawn(nodeOf, wanted);
    for (const element of wanted.added) this.addElement(element);
    for (const relation of wanted.addedRelations) this.addRelation(relation);
    return edits.written;
  }

  /** Elements go with the flows that lead to them and the shapes that show them; nothing in the file names them any more. */
  private forgetGone(): void {
    const { edits } = this;
    const isGone = (reference: string | undefined) => {
      const node = reference === undefined ? undefined : this.nodeOf.get(localRef(reference));
      return node !== undefined && edits.isGone(node);
    };
    for (let changed = true; changed; ) {
      changed = false;
      for (const node of walkTree(this.root)) {
        if (edits.isGone(node)) continue;
        const ends = [...ENDS.map((name) => node.attributes[name]), ...['sourceRef', 'targetRef'].flatMap((tag) => childrenOf(node, tag).map(textOf))];
        const rests = ends.some(isGone) || isGone(node.attributes.bpmnElement) || (REFERENCES.has(node.tag) && isGone(textOf(node)));
        if (rests && edits.drop(node)) changed = true;
      }
    }
    for (const node of walkTree(this.root))
      for (const name of ['default', 'processRef', 'messageRef']) if (isGone(node.attributes[name])) edits.setAttributes(node, { [name]: null });
  }

  private addElement({ id, type, name, text, parent }: AddedElement): void {
    const tag = type[0]!.toLowerCase() + type.slice(1);
    const above = parent === null ? undefined : this.nodeOf.get(parent);
    const home = this.homeFor(tag, above, parent);
    if (!home || this.edits.isGone(home)) return;
    const inside = text ? writeElement(home.prefix, tag === 'textAnnotation' ? 'text' : 'documentation', {}, escapeText(text)) : '';
    const markup = writeElement(home.prefix, tag, { id, name: tag === 'textAnnotation' ? undefined : name }, inside);
    if (home === this.root) this.edits.place(home, markup, (one) => one !== 'BPMNDiagram' && one !== 'relationship');
    else if (ARTIFACTS.has(tag)) this.edits.append(home, markup);
    else this.edits.place(home, markup, (one) => !LAST.has(one));
    this.homeOf.set(id, home);
    if (above?.tag === 'lane') this.edits.append(above, writeElement(above.prefix, 'flowNodeRef', {}, id));
    const size = SIZES.find(([pattern]) => pattern.test(tag));
    if (size) this.drawn.addShape(id, size[1], size[2]);
  }

  /** Where an element of a sort may stand, at or above what it is to stand in. */
  private homeFor(tag: string, above: XmlNode | undefined, parent: string | null): XmlNode | undefined {
    if (tag === 'process' || tag === 'message' || tag === 'dataStore') return this.root;
    if (tag === 'participant') return [...walkTree(this.root)].find((node) => node.tag === 'collaboration');
    if (!SIZES.some(([pattern]) => pattern.test(tag)) && !ARTIFACTS.has(tag) && tag !== 'dataObject') return undefined;
    if (above?.tag === 'participant') return this.nodeOf.get(localRef(above.attributes.processRef ?? ''));
    for (let at: XmlNode | null | undefined = above; at; at = at.parent) if (CONTAINERS.has(at.tag)) return at;
    const beside = parent === null ? undefined : this.homeOf.get(parent);
    return beside ?? this.root.children.find((node) => node.tag === 'process');
  }

  /** A flow within a process, or a message between two of them. */
  private addRelation({ id, type, from, to }: AddedRelation): void {
    const [start, end] = [this.processOf(from), this.processOf(to)];
    if (!start || !end || (type !== 'SequenceFlow' && type !== 'MessageFlow')) return;
    if (start === end) {
      if (type !== 'SequenceFlow') return;
      this.edits.place(start, writeElement(start.prefix, 'sequenceFlow', { id, sourceRef: from, targetRef: to }), (tag) => !LAST.has(tag));
    } else {
      const collaboration = [...walkTree(this.root)].find((node) => node.tag === 'collaboration');
      if (!collaboration) return;
      const markup = writeElement(collaboration.prefix, 'messageFlow', { id, sourceRef: from, targetRef: to });
      this.edits.place(collaboration, markup, (tag) => ['documentation', 'extensionElements', 'participant', 'messageFlow'].includes(tag));
    }
    this.drawn.addLine(id, from, to);
  }

  private processOf(id: string): XmlNode | undefined {
    const added = this.homeOf.get(id);
    if (added) return added;
    for (let at = this.nodeOf.get(id)?.parent; at; at = at.parent) if (CONTAINERS.has(at.tag)) return at;
    return undefined;
  }
}
