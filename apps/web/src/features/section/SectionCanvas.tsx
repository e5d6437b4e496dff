import { Box } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useFills } from '../../shared/colour-key/fills';
import { openCanvas, readColours } from '../../shared/ui/canvas';
import { useColourMode } from '../../shared/ui/colour-mode';
import { useSize } from '../../shared/ui/use-size';
import { stateWords, verificationStates } from '@coomb/core';
import { paintBase, paintFrame, paintTrace } from './paint-section';
import { buildSectionLayout, cellAt, findRowAt, findRowsIn, type SectionLayout } from './section-layout';

interface Props {
  outline: OutlineReply;
  /** Address of the project. */
  base: string;
  layers: { id: string; label: string; plural: string; rows: number[] }[];
  seams: [number, number][];
  hovered: number | undefined;
  traced: ReadonlyMap<number, number> | undefined;
  /** What the trace begins at, where that is not what is pointed at. */
  roots?: ReadonlySet<number>;
  /** States, by their place, that rows are painted in other than their own. */
  becomes?: ReadonlyMap<number, number>;
  brushed: ReadonlySet<number> | undefined;
  onHover: (row: number | undefined) => void;
  onBrush: (rows: ReadonlySet<number> | undefined) => void;
  onOpen: (row: number) => void;
}

interface Box4 {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The section itself: a canvas that is hovered, brushed and walked by arrow keys. */
export function SectionCanvas({ base: address, outline, layers, seams, hovered, traced, roots, becomes, brushed, onHover, onBrush, onOpen }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = useSize(frame);
  const mode = useColourMode();
  const fills = useFills();
  const [drag, setDrag] = useState<{ x: number; y: number; now: Box4 | undefined }>();
  const layout = useMemo(
    () =>
      buildSectionLayout(
        layers.map((layer) => layer.rows),
        width,
        height,
      ),
    [layers, width, height],
  );
  const base = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!base.current || width === 0) return;
    void mode;
    paintBase(openCanvas(base.current, width, height), layout, outline, { colour: readColours(base.current), seams, brushed, fills });
  }, [layout, outline, seams, brushed, fills, width, height, mode]);
  useEffect(() => {
    if (!canvas.current || width === 0) return;
    void mode;
    const context = openCanvas(canvas.current, width, height);
    const from = roots ?? (hovered === undefined ? undefined : new Set([hovered]));
    if (!from) return;
    const look = { colour: readColours(canvas.current), seams, brushed: undefined, ...(becomes && { becomes }), ...(!becomes && { fills }) };
    if (traced) paintTrace(context, layout, outline, look, from, traced);
    for (const row of from) paintFrame(context, layout, look, row);
    if (hovered !== undefined) paintFrame(context, layout, look, hovered);
  }, [layout, outline, seams, hovered, traced, roots, becomes, fills, width, height, mode]);

  const at = (event: React.PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const move = (event: React.PointerEvent) => {
    const { x, y } = at(event);
    if (!drag) return onHover(findRowAt(layout, x, y));
    const now = { left: Math.min(x, drag.x), right: Math.max(x, drag.x), top: Math.min(y, drag.y), bottom: Math.max(y, drag.y) };
    setDrag({ ...drag, now: now.right - now.left > 4 || now.bottom - now.top > 4 ? now : undefined });
  };
  const release = (event: React.PointerEvent) => {
    const { x, y } = at(event);
    if (drag?.now) {
      const rows = findRowsIn(layout, drag.now);
      onBrush(rows.length ? new Set(rows) : undefined);
    } else {
      const row = findRowAt(layout, x, y);
      if (row !== undefined) onOpen(row);
      else onBrush(undefined);
    }
    setDrag(undefined);
  };
  const press = (event: React.KeyboardEvent) => {
    if (event.key === 'Escape') onBrush(undefined);
    else if (event.key === 'Enter' && hovered !== undefined) onOpen(hovered);
    else {
      const next = step(layout, hovered, event.key);
      if (next === undefined) return;
      onHover(next);
    }
    event.preventDefault();
  };
  return (
    <Box ref={frame} position="relative" w="100%" h="100%" overflow="hidden">
      <canvas ref={base} style={{ position: 'absolute', width, height }} />
      <canvas
        ref={canvas}
        tabIndex={0}
        role="application"
        aria-label="Section through the project. Arrow keys move from item to item, Enter opens it."
        style={{ position: 'absolute', width, height, cursor: hovered === undefined ? 'crosshair' : 'pointer' }}
        onPointerMove={move}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setDrag({ ...at(event), now: undefined });
        }}
        onPointerUp={release}
        onPointerLeave={() => !drag && onHover(undefined)}
        onKeyDown={press}
      />
      {width > 0 &&
        layout.stripes.map((stripe) => (
          <Box key={stripe.layer} position="absolute" left="10px" top={`${stripe.top - 24}px`} fontSize="12px" pointerEvents="none">
            <Box as="span" fontWeight="600">
              {layers[stripe.layer]!.label}
            </Box>
            <Box as="span" color="fg.muted">
              {' '}
              ·{' '}
              {stripe.rows.length === 0 ? (
                'nothing yet'
              ) : (
                <Box asChild pointerEvents="auto" _hover={{ textDecoration: 'underline' }}>
                  <Link to={`${address}/check/figure/layer:${layers[stripe.layer]!.id}`}>{layers[stripe.layer]!.plural}</Link>
                </Box>
              )}
            </Box>
          </Box>
        ))}
      {drag?.now && (
        <Box
          position="absolute"
          pointerEvents="none"
          borderWidth="1px"
          borderColor="moss.solid"
          bg="moss.solid/10"
          style={{ left: drag.now.left, top: drag.now.top, width: drag.now.right - drag.now.left, height: drag.now.bottom - drag.now.top }}
        />
      )}
      {hovered !== undefined && !drag?.now && <HoverNote layout={layout} outline={outline} row={hovered} becomes={becomes?.get(hovered)} />}
    </Box>
  );
}

function HoverNote({ layout, outline, row, becomes }: { layout: SectionLayout; outline: OutlineReply; row: number; becomes: number | undefined }) {
  const place = layout.placeOf.get(row);
  if (!place) return null;
  const { x, y } = cellAt(layout, layout.stripes[place.stripe]!, place.index);
  const state = verificationStates[outline.state[row]!]!;
  const parts = [
    state === 'notApplicable' ? undefined : stateWords[state].label.toLowerCase(),
    becomes === undefined ? undefined : `would be ${stateWords[verificationStates[becomes]!].label.toLowerCase()}`,
    `${outline.up[row]} up, ${outline.down[row]} down`,
    outline.gaps[row]! > 0 ? (outline.gaps[row] === 1 ? 'misses a rule' : `misses ${outline.gaps[row]} rules`) : undefined,
    outline.suspect[row]! > 0 ? `${outline.suspect[row]} suspect` : undefined,
  ];
  const isRight = x > layout.width - 330;
  return (
    <Box
      position="absolute"
      pointerEvents="none"
      bg="bg.panel"
      borderWidth="1px"
      borderColor="border.emphasized"
      boxShadow="sm"
      px="3"
      py="1.5"
      maxW="320px"
      zIndex="1"
      aria-live="polite"
      style={{ [isRight ? 'right' : 'left']: isRight ? layout.width - x : x + layout.cell, top: Math.min(y + layout.cell + 2, layout.height - 70) }}
    >
      <Box fontFamily="mono" fontSize="12px" color="moss.fg">
        {outline.reference[row]}
      </Box>
      <Box fontFamily="serif" lineHeight="1.3">
        {outline.title[row]}
      </Box>
      <Box fontSize="12px" color="fg.muted">
        {parts.filter(Boolean).join(' · ')}
      </Box>
    </Box>
  );
}

/** The row an arrow key leads to: along the stripe, or to the same place in the next stripe. */
function step(layout: SectionLayout, row: number | undefined, key: string): number | undefined {
  const place = row === undefined ? undefined : layout.placeOf.get(row);
  if (!place) return key.startsWith('Arrow') ? layout.stripes.find((stripe) => stripe.rows.length)?.rows[0] : undefined;
  const stripe = layout.stripes[place.stripe]!;
  if (key === 'ArrowRight') return stripe.rows[Math.min(place.index + 1, stripe.rows.length - 1)];
  if (key === 'ArrowLeft') return stripe.rows[Math.max(place.index - 1, 0)];
  const by = key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0;
  if (by === 0) return undefined;
  const inside = stripe.rows[place.index + by * stripe.perLine];
  if (inside !== undefined) return inside;
  for (let next = place.stripe + by; layout.stripes[next]; next += by) {
    const { rows, perLine } = layout.stripes[next]!;
    if (rows.length) return rows[Math.min(place.index % perLine, rows.length - 1)];
  }
  return row;
}
