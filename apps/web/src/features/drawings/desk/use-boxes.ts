import type { Drawing, OutlineReply } from '@coomb/contract';
import { useMemo, useRef, useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { notify } from '../../../shared/ui/notices';
import type { LinkBoxes } from '@coomb/core';
import type { DrawnLinks } from './drawn-links';
import { buildLinkBoxes } from './link-boxes';
import { useSetBoxes } from './queries';

type Drawn = Pick<Drawing, 'id' | 'item' | 'collection' | 'shapes' | 'routes'> & Partial<Pick<Drawing, 'revision' | 'boxes'>>;

/** Boxes with links beside the shapes of a drawing: which are shown, where they stand, and how they are kept; with all that is drawn then. */
export function useBoxes(drawing: Drawn, drawn: DrawnLinks, outline: OutlineReply, mayKeep: boolean) {
  const { id: project, scheme } = useProject();
  const [draft, set] = useState<LinkBoxes>();
  const wish: LinkBoxes = draft ?? drawing.boxes ?? NO_BOXES;
  const keeping = useSetBoxes(project);
  const boxes = useMemo(() => buildLinkBoxes(drawing, drawn, outline, scheme, wish), [drawing, drawn, outline, scheme, wish]);
  const shapes = useMemo(() => (boxes.shapes.length === 0 ? drawing.shapes : [...drawing.shapes, ...boxes.shapes]), [drawing.shapes, boxes]);
  const routes = useMemo(() => (boxes.shapes.length === 0 ? drawing.routes : [...drawing.routes, ...boxes.routes]), [drawing.routes, boxes]);
  const now = useRef(boxes);
  now.current = boxes;
  const { revision } = drawing;
  return {
    ...{ shapes, routes, wish, set, ownerOf: boxes.ownerOf },
    keep:
      draft && revision !== undefined && mayKeep
        ? () => keeping.mutate({ drawing: drawing.id, revision, boxes: copyBoxes(draft) }, { onSuccess: () => set(undefined) })
        : undefined,
    /** A box by its place among the boxes, in the drawing's own unit. */
    move: (box: number, by: { x: number; y: number }) => {
      const owner = drawing.shapes[now.current.ownerOf[box] ?? -1];
      const at = now.current.shapes[box];
      if (!owner || !at) return;
      set((before = wish) => {
        const place = before.places[owner.id] ?? { x: at.x, y: at.y };
        return { ...before, places: { ...before.places, [owner.id]: { x: place.x + by.x, y: place.y + by.y } } };
      });
    },
    toggle: (index: number) => {
      const shape = drawing.shapes[index];
      if (!shape) return notify('Choose a shape first.', 'info');
      const own = wish.shown === 'all' ? drawing.shapes.flatMap(({ id, item }) => (item ? [id] : [])) : wish.shown;
      set({ ...wish, shown: own.includes(shape.id) ? own.filter((id) => id !== shape.id) : [...own, shape.id] });
    },
  };
}

const NO_BOXES: LinkBoxes = { shown: [], layers: [], places: {} };

const copyBoxes = ({ shown, layers, places }: LinkBoxes) => ({ shown: shown === 'all' ? shown : [...shown], layers: [...layers], places: { ...places } });
