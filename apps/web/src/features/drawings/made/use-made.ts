import type { OutlineReply } from '@coomb/contract';
import { drawMade, type DrawnRoute, type DrawnShape, type HandPlaces, type MadeGraph, placeByHand, placeTree, sizeOf } from '@coomb/core';
import { useEffect, useMemo, useState } from 'react';
import { type LaidOut, layOut, LayOutGivenUp, prepareLayOut } from '../../../shared/drawing/lay-out';

export interface Made {
  shapes: DrawnShape[];
  routes: DrawnRoute[];
  /** Where each node stands now, by its key. */
  places: HandPlaces;
}

export interface LayingOut {
  busy: boolean;
  error?: Error | undefined;
  cancel: () => void;
}

const NOTHING: LaidOut = { boxes: [], bends: new Map() };

/** A graph as a drawing: trees are placed here and now, others laid out in a worker unless people placed them. */
export function useMade(graph: MadeGraph | undefined, outline: OutlineReply, hand: HandPlaces): [Made | undefined, LayingOut] {
  const [laid, setLaid] = useState<{ graph: MadeGraph; out: LaidOut }>();
  const [failed, setFailed] = useState<{ graph: MadeGraph; error: Error }>();
  const [round, setRound] = useState<AbortController>();
  const isPlaced = Object.keys(hand).length > 0;
  const needsWorker = graph !== undefined && !graph.isTree && !isPlaced && laid?.graph !== graph && failed?.graph !== graph;
  useEffect(() => {
    if (!needsWorker || !graph) return;
    const control = new AbortController();
    setRound(control);
    layOut(graph, control.signal).then(
      (out) => setLaid({ graph, out }),
      (cause: unknown) => {
        if (!control.signal.aborted || cause instanceof LayOutGivenUp === false) setFailed({ graph, error: cause as Error });
      },
    );
    return () => control.abort();
  }, [needsWorker, graph]);
  useEffect(() => {
    // Another sort is chosen next, or the whole instead of a part.
    const soon = setTimeout(prepareLayOut, 300);
    return () => clearTimeout(soon);
  }, []);
  const made = useMemo(() => {
    if (!graph) return undefined;
    const idOfNode = new Map(outline.node.map((node, row) => [node, outline.id[row]!]));
    const out = laid?.graph === graph ? laid.out : NOTHING;
    const fallback = graph.nodes.map((node, index) => out.boxes[index] ?? { x: (index % 6) * 300, y: Math.floor(index / 6) * 160, ...sizeOf(node) });
    if (!graph.isTree && !isPlaced && laid?.graph !== graph && failed?.graph !== graph) return undefined;
    const boxes = graph.isTree ? placeTree(graph, hand) : placeByHand(graph, fallback, hand);
    const { shapes, routes } = drawMade(graph, boxes, (node) => idOfNode.get(node) ?? '', isPlaced ? undefined : out.bends);
    const places = Object.fromEntries(graph.nodes.map(({ key }, index) => [key, { x: boxes[index]!.x, y: boxes[index]!.y }]));
    return { shapes: shapes.map((shape) => (shape.item === '' ? { ...shape, item: null } : shape)), routes, places };
  }, [graph, outline, hand, laid, failed, isPlaced]);
  return [
    made,
    {
      busy: needsWorker,
      error: failed?.graph === graph ? failed?.error : undefined,
      cancel: () => {
        round?.abort();
        if (graph) setFailed({ graph, error: new LayOutGivenUp('Given up; what there is stands in rows.') });
      },
    },
  ];
}

/** Places after a node was moved: of a tree its own distance, of others where all of them stand now, with what lies in it. */
export function moveNode(graph: MadeGraph, hand: HandPlaces, places: HandPlaces, key: string, by: { x: number; y: number }): HandPlaces {
  if (graph.isTree) {
    const old = hand[key] ?? { x: 0, y: 0 };
    return { ...hand, [key]: { x: old.x + by.x, y: old.y + by.y } };
  }
  const moved = new Set([graph.nodes.findIndex((node) => node.key === key)]);
  // What lies in it lies behind it in the list.
  graph.nodes.forEach((node, index) => {
    if (moved.has(node.inside)) moved.add(index);
  });
  const next: Record<string, { x: number; y: number }> = { ...places };
  for (const index of moved) {
    const { key: own } = graph.nodes[index]!;
    const old = places[own]!;
    next[own] = { x: old.x + by.x, y: old.y + by.y };
  }
  return next;
}
