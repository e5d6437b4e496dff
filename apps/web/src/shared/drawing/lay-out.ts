import { type Bends, growHolders, type MadeGraph, type MadeNode, sizeOf } from '@coomb/core';
import ELK, { type ElkExtendedEdge, type ElkNode } from 'elkjs/lib/elk-api.js';
import workerAddress from 'elkjs/lib/elk-worker.min.js?url';

type Box = { x: number; y: number; width: number; height: number };
export interface LaidOut {
  boxes: Box[];
  bends: Bends;
}

/** With more nodes, what lies in a box is laid out box by box, and lines between boxes are drawn afterwards. */
const TOGETHER = 200;
/** Milliseconds after which laying out is given up. */
const PATIENCE = 20_000;

export class LayOutGivenUp extends Error {
  override readonly name = 'LayOutGivenUp';
}

type Engine = InstanceType<typeof ELK>;

let working = 0;
/** An engine that is loaded and not at work: loading one takes longer than laying out a hundred nodes. */
let waiting: { engine: Engine; end: ReturnType<typeof setTimeout> } | undefined;
/** Milliseconds after which one that nobody asked for is ended. */
const WAITS = 120_000;

function keepWaiting(engine: Engine): void {
  if (waiting) return engine.terminateWorker();
  const end = setTimeout(() => {
    waiting = undefined;
    engine.terminateWorker();
  }, WAITS);
  waiting = { engine, end };
}

function takeEngine(): Engine {
  if (!waiting) return new ELK({ workerFactory: () => new Worker(workerAddress) });
  const { engine, end } = waiting;
  clearTimeout(end);
  waiting = undefined;
  return engine;
}

/** Loads what lays out, where a graph may have to be laid out soon. */
export function prepareLayOut(): void {
  if (waiting || working > 0) return;
  const engine = takeEngine();
  // Its code is compiled when it first runs.
  const two = {
    id: 'root',
    layoutOptions: OPTIONS,
    children: ['0', '1'].map((id) => ({ id, width: 10, height: 10 })),
    edges: [{ id: 'e', sources: ['0'], targets: ['1'] }],
  };
  engine.layout(two).then(
    () => keepWaiting(engine),
    () => engine.terminateWorker(),
  );
}

/** Lays a graph out in a worker, which is ended when it takes too long or is not wanted any more. */
export async function layOut(graph: MadeGraph, signal: AbortSignal): Promise<LaidOut> {
  if (graph.nodes.length === 0) return { boxes: [], bends: new Map() };
  const engine = takeEngine();
  working++;
  const isTogether = graph.nodes.length <= TOGETHER;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const givenUp = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new LayOutGivenUp('Laying it out takes too long. Show less: fewer levels, or a smaller part.')), PATIENCE);
    signal.addEventListener('abort', () => reject(new LayOutGivenUp('Not wanted any more')), { once: true });
  });
  try {
    const laid = await Promise.race([engine.layout(buildElkGraph(graph, isTogether)), givenUp]);
    const out = readLayout(graph, laid as ElkNode, isTogether);
    keepWaiting(engine);
    return out;
  } catch (cause) {
    engine.terminateWorker();
    throw cause;
  } finally {
    working--;
    clearTimeout(timer);
  }
}

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.spacing.nodeNode': '28',
  'elk.layered.spacing.nodeNodeBetweenLayers': '70',
  'elk.layered.spacing.edgeNodeBetweenLayers': '20',
  'elk.spacing.edgeNode': '18',
  'elk.spacing.edgeLabel': '4',
  'elk.separateConnectedComponents': 'true',
  'elk.aspectRatio': '1.6',
} as const;

function buildElkGraph({ nodes, edges }: MadeGraph, isTogether: boolean): ElkNode {
  const childrenOf = (inside: number): ElkNode[] =>
    nodes.flatMap((node, index) => {
      if (node.inside !== inside) return [];
      const children = childrenOf(index);
      const own = { id: String(index), ...(children.length === 0 ? sizeOf(node) : {}) };
      if (children.length === 0) return [own];
      return [{ ...own, children, layoutOptions: { ...OPTIONS, 'elk.padding': '[top=50,left=24,bottom=24,right=24]' } }];
    });
  return {
    id: 'root',
    children: childrenOf(-1),
    edges: edges.flatMap(({ from, to, label }, index): ElkExtendedEdge[] => {
      if (from === to || (!isTogether && nodes[from]!.inside !== nodes[to]!.inside)) return [];
      const labels = label && isTogether ? [{ text: label, width: Math.min(180, label.length * 6.6 + 8), height: 16 }] : [];
      return [{ id: `e${index}`, sources: [String(from)], targets: [String(to)], labels }];
    }),
    layoutOptions: {
      ...OPTIONS,
      'elk.hierarchyHandling': isTogether ? 'INCLUDE_CHILDREN' : 'SEPARATE_CHILDREN',
      'elk.json.shapeCoords': 'ROOT',
      'elk.json.edgeCoords': 'ROOT',
    },
  };
}

function readLayout({ nodes, edges }: MadeGraph, root: ElkNode, isTogether: boolean): LaidOut {
  const boxes: Box[] = nodes.map((node) => ({ x: 0, y: 0, ...sizeOf(node) }));
  const read = (list: readonly ElkNode[]) => {
    for (const { id, x = 0, y = 0, width = 0, height = 0, children = [] } of list) {
      boxes[Number(id)] = { x, y, width, height };
      read(children);
    }
  };
  read(root.children ?? []);
  const bends = new Map<number, { x: number; y: number }[]>();
  if (isTogether)
    for (const { id, sections } of root.edges ?? []) {
      const index = Number(id.slice(1));
      const [section] = sections ?? [];
      if (!section || !edges[index]) continue;
      bends.set(
        index,
        [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map(({ x, y }) => ({ x, y })),
      );
    }
  return { boxes: growHolders(nodes as MadeNode[], boxes), bends };
}
