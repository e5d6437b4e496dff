import { Box, Portal } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';

export interface LinkLine {
  shape?: number;
  row?: number;
  startX: number;
  startY: number;
  x: number;
  y: number;
}

/** The row of the list whose element lies topmost at a point of the window. */
function rowAt(x: number, y: number): number | undefined {
  for (const element of document.elementsFromPoint(x, y)) {
    const row = element.closest<HTMLElement>('[data-linked-row]');
    if (row) return Number(row.dataset.linkedRow);
  }
  return undefined;
}

const isOverDrawing = (x: number, y: number) => document.elementsFromPoint(x, y).some((element) => element.getAttribute('aria-roledescription') === 'drawing');

/** Dragging between the shapes of a drawing and the rows of the list beside it, either way. What lies under the hand is asked of the page when it lets go. */
export function useLinkDrag(given: {
  shapeAt: (x: number, y: number) => number;
  onLink: (shape: number, row: number) => void;
  /** Told of what is let go outside of both. */
  onLeave: (held: { shape?: number; row?: number }, x: number, y: number) => void;
}) {
  const [line, setLine] = useState<LinkLine>();
  const calls = useRef(given);
  calls.current = given;
  const active = line !== undefined;
  const now = useRef(line);
  now.current = line;
  useEffect(() => {
    if (!active) return;
    const follow = (event: PointerEvent) => setLine((before) => before && { ...before, x: event.clientX, y: event.clientY });
    const drop = (event: PointerEvent) => {
      const held = now.current;
      setLine(undefined);
      if (!held) return;
      const { clientX: x, clientY: y } = event;
      if (held.row === undefined) {
        const row = rowAt(x, y);
        if (row !== undefined) calls.current.onLink(held.shape!, row);
        else if (!isOverDrawing(x, y)) calls.current.onLeave(held, x, y);
      } else if (isOverDrawing(x, y)) calls.current.onLink(calls.current.shapeAt(x, y), held.row);
      else if (rowAt(x, y) === undefined) calls.current.onLeave(held, x, y);
    };
    const leave = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      setLine(undefined);
    };
    // A press on a row began to mark words, too: nothing is marked while a line is drawn.
    const before = document.body.style.userSelect;
    document.body.style.userSelect = 'none';
    window.getSelection()?.removeAllRanges();
    window.addEventListener('pointermove', follow, true);
    window.addEventListener('pointerup', drop, true);
    window.addEventListener('keydown', leave, true);
    return () => {
      document.body.style.userSelect = before;
      window.removeEventListener('pointermove', follow, true);
      window.removeEventListener('pointerup', drop, true);
      window.removeEventListener('keydown', leave, true);
    };
  }, [active]);
  const start = (event: { clientX: number; clientY: number }) => ({ startX: event.clientX, startY: event.clientY, x: event.clientX, y: event.clientY });
  return {
    line,
    fromShape: (shape: number, event: PointerEvent) => setLine({ shape, ...start(event) }),
    fromRow: (row: number, event: { clientX: number; clientY: number }) => setLine({ row, ...start(event) }),
  };
}

/** The line that follows the hand. */
export function DragLine({ line, says }: { line: LinkLine; says: string }) {
  return (
    <Portal>
      <Box position="fixed" inset="0" pointerEvents="none" zIndex="overlay" color="moss.solid">
        <svg width="100%" height="100%" aria-hidden>
          <line x1={line.startX} y1={line.startY} x2={line.x} y2={line.y} stroke="currentColor" strokeWidth={2} strokeDasharray="6 4" />
        </svg>
        <Box
          position="absolute"
          bg="moss.solid"
          color="moss.contrast"
          px="2"
          py="0.5"
          fontSize="12px"
          maxW="240px"
          truncate
          title={says}
          style={{ left: line.x + 10, top: line.y + 8 }}
        >
          {says}
        </Box>
      </Box>
    </Portal>
  );
}
