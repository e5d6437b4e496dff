import { Box } from '@chakra-ui/react';
import {
  buildScene,
  type Box as Area,
  type DrawingScene,
  type DrawnRoute,
  type DrawnShape,
  findNeighbour,
  findRouteAt,
  findShapeAt,
  type Paper,
  withoutUnseen,
  writeDrawing,
} from '@coomb/core';
import { type Ref, useEffect, useImperativeHandle, useMemo, useRef, useState } from 'react';
import { readColours } from '../ui/canvas';
import { useColourMode } from '../ui/colour-mode';
import { useRestingFocus } from '../ui/use-resting-focus';
import { useSize } from '../ui/use-size';
import { forgetWidths, measureText } from './canvas-pen';
import { DrawingPainter, fitView, type Look, type ViewPort, zoomView } from './drawing-painter';
import { paintMarks } from './paint-marks';
import { readPaper } from './paper';
import { TextLayer } from './TextLayer';

/** What a page may ask of a drawing that is shown. */
export interface DrawingControl {
  fit: () => void;
  zoom: (factor: number) => void;
  /** Brings a shape into view. */
  reveal: (shape: number) => void;
  /** The drawing as a file, in the colours of paper. */
  toSvg: (title: string) => string;
  /** The shape at a point of the window. */
  shapeAt: (clientX: number, clientY: number) => number;
  focus: () => void;
  /** Pixels of the window to one of the drawing. */
  scale: () => number;
}

export interface Marks {
  /** How many links each shape has, or what else its mark says; shapes without are not marked. */
  counts: ReadonlyMap<number, number | string>;
  /** Shapes at the other end of what is chosen. */
  lit: ReadonlySet<number>;
}

interface Props {
  shapes: readonly DrawnShape[];
  routes: readonly DrawnRoute[];
  label: string;
  /** Another scene is the same drawing, grown or folded: it is not shown whole anew. */
  steady?: boolean;
  marks: Marks;
  selected: number;
  coatOf?: Look['coatOf'];
  coatOfRoute?: Look['coatOfRoute'];
  /** How strongly each shape is drawn; those at 0 are not there for the hand either. */
  strengths?: Look['strengths'];
  control?: Ref<DrawingControl>;
  onSelect: (shape: number) => void;
  onOpen?: (shape: number) => void;
  /** A shape is being dragged, from where the hand took it. */
  onDrag?: (shape: number, event: PointerEvent, taken: { x: number; y: number }) => void;
  /** Which shapes can be dragged; those that are items where nothing is said. */
  mayDrag?: (shape: number) => boolean;
  onHover?: (at: { shape: number; x: number; y: number } | undefined) => void;
  keys?: Record<string, () => void>;
  describe: (shape: number) => string;
}

const REACH = 5;
const DRAG = 5;

/** A drawing as its tool placed it: pan, zoom, hover, choose; by mouse and by keys. */
export function DrawingCanvas({
  shapes,
  routes,
  label,
  steady = false,
  marks,
  selected,
  coatOf,
  coatOfRoute,
  strengths,
  control,
  onSelect,
  onOpen,
  onDrag,
  mayDrag,
  onHover,
  keys = {},
  describe,
}: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const map = useRef<HTMLCanvasElement>(null);
  const painter = useRef<DrawingPainter>(undefined);
  const { width, height } = useSize(frame);
  const mode = useColourMode();
  const scene = useMemo(() => buildScene({ shapes: [...shapes], routes: [...routes] }), [shapes, routes]);
  const said = useMemo(() => (strengths ? { ...scene, shapes: withoutUnseen(scene.shapes, strengths) } : scene), [scene, strengths]);
  const [hovered, setHovered] = useState(-1);
  const [resting, setResting] = useState<ViewPort>();
  const selecting = useAlt();
  const state = useRef({ scene, marks, selected, hovered, paper: undefined as Paper | undefined });
  state.current = { ...state.current, scene, marks, selected, hovered };
  useRestingFocus(frame);

  useEffect(() => {
    const own = new DrawingPainter(
      canvas.current!,
      (context, view) => {
        const { paper, ...now } = state.current;
        if (paper) paintMarks(context, view, now.scene, now, readColours(canvas.current!));
      },
      (view) => setResting((before) => (before && before.x === view.x && before.y === view.y && before.scale === view.scale ? before : view)),
      map.current ?? undefined,
    );
    painter.current = own;
    return () => own.close();
  }, []);
  useEffect(() => {
    // Colours are those of the theme.
    void mode;
    const paper = readPaper(readColours(canvas.current!));
    state.current.paper = paper;
    painter.current!.setScene(scene, { paper, coatOf, coatOfRoute, strengths });
    // Letters that have not come yet are measured anew when they have.
    let isHere = true;
    const areHere = document.fonts?.status === 'loaded';
    void document.fonts?.ready.then(() => {
      if (!isHere || areHere) return;
      forgetWidths();
      painter.current?.setScene(scene, { paper, coatOf, coatOfRoute, strengths });
    });
    return () => {
      isHere = false;
    };
  }, [scene, coatOf, coatOfRoute, strengths, mode]);
  const fitted = useRef<DrawingScene>(undefined);
  useEffect(() => {
    if (width === 0) return;
    painter.current!.setSize(width, height);
    if (fitted.current !== scene) {
      const isFirst = fitted.current === undefined;
      fitted.current = scene;
      if (isFirst || !steady) painter.current!.setView(fitView(scene.bounds, width, height));
    }
  }, [width, height, scene, steady]);
  useEffect(() => {
    // What lies on top is drawn from these.
    void [marks, selected, hovered];
    painter.current?.refresh();
  }, [marks, selected, hovered]);

  const look = (view: ViewPort) => painter.current!.setView(keepNear(view, scene.bounds, width, height));
  const reveal = (shape: number) => {
    const one = scene.shapes[shape];
    if (!one) return;
    const { view } = painter.current!;
    const [right, bottom] = [view.x + width / view.scale, view.y + height / view.scale];
    const isIn = one.x >= view.x && one.y >= view.y && one.x + one.width <= right && one.y + one.height <= bottom;
    const scale = view.scale < 0.6 ? 0.8 : view.scale;
    if (!isIn || scale !== view.scale) look({ scale, x: one.x + one.width / 2 - width / 2 / scale, y: one.y + one.height / 2 - height / 2 / scale });
  };
  const zoom = (factor: number) => look(zoomView(painter.current!.view, factor, width / 2, height / 2));
  const fit = () => look(fitView(scene.bounds, width, height));
  const pointOf = (clientX: number, clientY: number) => {
    const box = frame.current!.getBoundingClientRect();
    const { view } = painter.current!;
    return { x: view.x + (clientX - box.left) / view.scale, y: view.y + (clientY - box.top) / view.scale };
  };
  const shapeAt = (clientX: number, clientY: number) => {
    const { x, y } = pointOf(clientX, clientY);
    const found = findShapeAt(scene, x, y, REACH / painter.current!.view.scale);
    return strengths?.[found] === 0 ? -1 : found;
  };
  useImperativeHandle(control, () => ({
    fit,
    zoom,
    reveal,
    shapeAt,
    focus: () => frame.current?.focus(),
    scale: () => painter.current!.view.scale,
    toSvg: (title) =>
      writeDrawing(
        ...([scene, title, INK_ON_PAPER, measureText] as const),
        coatOf && ((shape) => coatOf(scene.shapes.indexOf(shape))),
        strengths,
        coatOfRoute && ((route) => coatOfRoute(scene.routes.indexOf(route))),
      ),
  }));

  const hand = useRef<{ x: number; y: number; view: ViewPort; shape: number; isMoving: boolean }>(undefined);
  const press = (event: React.PointerEvent) => {
    // With Alt held the words themselves are selected.
    if (event.button > 1 || event.altKey) return;
    frame.current!.focus({ preventScroll: true });
    const shape = event.button === 1 ? -1 : shapeAt(event.clientX, event.clientY);
    hand.current = { x: event.clientX, y: event.clientY, view: painter.current!.view, shape, isMoving: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: React.PointerEvent) => {
    const held = hand.current;
    if (!held) {
      const shape = shapeAt(event.clientX, event.clientY);
      if (shape !== hovered) setHovered(shape);
      onHover?.(shape < 0 ? undefined : { shape, x: event.clientX, y: event.clientY });
      return;
    }
    const [dx, dy] = [event.clientX - held.x, event.clientY - held.y];
    if (!held.isMoving && Math.hypot(dx, dy) < DRAG) return;
    if (!held.isMoving && held.shape >= 0 && (mayDrag ? mayDrag(held.shape) : scene.shapes[held.shape]!.item !== null) && onDrag) {
      hand.current = undefined;
      event.currentTarget.releasePointerCapture(event.pointerId);
      onHover?.(undefined);
      // From where the hand took it.
      if (mayDrag) onSelect(held.shape);
      return onDrag(held.shape, event.nativeEvent, { x: held.x, y: held.y });
    }
    held.isMoving = true;
    onHover?.(undefined);
    look({ ...held.view, x: held.view.x - dx / held.view.scale, y: held.view.y - dy / held.view.scale });
  };
  const release = (event: React.PointerEvent) => {
    const held = hand.current;
    hand.current = undefined;
    if (!held || held.isMoving || event.button !== 0) return;
    if (held.shape >= 0) return onSelect(held.shape);
    const { x, y } = pointOf(event.clientX, event.clientY);
    const route = findRouteAt(scene, x, y, REACH / painter.current!.view.scale);
    // A line leads to what it ends at.
    onSelect(route >= 0 ? scene.routes[route]!.to : -1);
  };
  useEffect(() => {
    const element = frame.current!;
    // React listens to the wheel passively: the page would scroll or zoom along.
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const { view } = painter.current!;
      const box = element.getBoundingClientRect();
      const step = event.deltaMode === 1 ? 16 : 1;
      if (event.ctrlKey || event.metaKey) look(zoomView(view, Math.exp((-event.deltaY * step) / 300), event.clientX - box.left, event.clientY - box.top));
      else {
        const [dx, dy] = event.shiftKey ? [event.deltaY, 0] : [event.deltaX, event.deltaY];
        look({ ...view, x: view.x + (dx * step) / view.scale, y: view.y + (dy * step) / view.scale });
      }
    };
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  });

  const steps: Record<string, 'left' | 'right' | 'up' | 'down'> = { ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down' };
  const own: Record<string, () => void> = {
    '+': () => zoom(1.25),
    '=': () => zoom(1.25),
    '-': () => zoom(0.8),
    '0': fit,
    Enter: () => selected >= 0 && onOpen?.(selected),
    Escape: () => onSelect(-1),
    ...keys,
  };
  const key = (event: React.KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    const direction = steps[event.key];
    const name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    if (direction && event.shiftKey) {
      const { view } = painter.current!;
      const by = 60 / view.scale;
      look({
        ...view,
        x: view.x + (direction === 'left' ? -by : direction === 'right' ? by : 0),
        y: view.y + (direction === 'up' ? -by : direction === 'down' ? by : 0),
      });
    } else if (direction) {
      const next = selected < 0 ? findShapeNear(said, painter.current!.view, width, height) : findNeighbour(said, selected, direction);
      if (next >= 0) {
        onSelect(next);
        reveal(next);
      }
    } else if (own[name]) own[name]();
    else return;
    event.preventDefault();
  };
  const onMap = (event: React.PointerEvent<HTMLCanvasElement>) => {
    if (event.buttons === 0 || !map.current) return;
    const box = map.current.getBoundingClientRect();
    const { bounds } = scene;
    const scale = Math.min(box.width / bounds.width, box.height / bounds.height);
    const x = bounds.x + (event.clientX - box.left - (box.width - bounds.width * scale) / 2) / scale;
    const y = bounds.y + (event.clientY - box.top - (box.height - bounds.height * scale) / 2) / scale;
    const { view } = painter.current!;
    look({ ...view, x: x - width / 2 / view.scale, y: y - height / 2 / view.scale });
  };
  return (
    <Box
      ref={frame}
      position="relative"
      w="100%"
      h="100%"
      overflow="hidden"
      tabIndex={0}
      role="application"
      aria-roledescription="drawing"
      aria-label={`${label}: arrows go from shape to shape, plus and minus zoom, 0 shows all`}
      aria-describedby="drawing-chosen"
      cursor={hovered >= 0 ? 'pointer' : 'grab'}
      css={{ touchAction: 'none', '&:focus-visible': { outlineOffset: '-2px' } }}
      onKeyDown={key}
      onPointerDown={press}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={() => {
        hand.current = undefined;
      }}
      onPointerLeave={() => {
        if (hand.current) return;
        setHovered(-1);
        onHover?.(undefined);
      }}
      onDoubleClick={(event) => {
        const shape = shapeAt(event.clientX, event.clientY);
        if (shape >= 0) onOpen?.(shape);
      }}
    >
      <canvas ref={canvas} style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }} />
      {resting && resting.scale >= 0.6 && <TextLayer scene={said} view={resting} width={width} height={height} selectable={selecting} />}
      <Box
        position="absolute"
        right="10px"
        bottom="10px"
        w="168px"
        h="112px"
        bg="bg.panel"
        borderWidth="1px"
        borderColor="border.emphasized"
        cursor="crosshair"
        onPointerDown={(event) => event.stopPropagation()}
        display={{ base: 'none', md: 'block' }}
      >
        <canvas ref={map} width={336} height={224} style={{ width: '100%', height: '100%' }} aria-hidden onPointerDown={onMap} onPointerMove={onMap} />
      </Box>
      <Box srOnly id="drawing-chosen" aria-live="polite">
        {selected >= 0 ? describe(selected) : 'Nothing chosen'}
      </Box>
    </Box>
  );
}

function useAlt(): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const follow = (event: KeyboardEvent) => setHeld(event.altKey);
    const leave = () => setHeld(false);
    window.addEventListener('keydown', follow);
    window.addEventListener('keyup', follow);
    window.addEventListener('blur', leave);
    return () => {
      window.removeEventListener('keydown', follow);
      window.removeEventListener('keyup', follow);
      window.removeEventListener('blur', leave);
    };
  }, []);
  return held;
}

/** Ink on white, whatever the theme: files are read on paper. */
const INK_ON_PAPER: Paper = { ground: '#ffffff', ink: '#23241f', line: '#55584c', faint: '#d9d1bd', fill: '#ffffff', inside: '#f6f3ec', note: '#f7ecc8' };

/** Some of the drawing always stays in sight. */
function keepNear(view: ViewPort, bounds: Area, width: number, height: number): ViewPort {
  const [wide, tall] = [width / view.scale, height / view.scale];
  const clamp = (value: number, least: number, most: number) => Math.max(Math.min(least, most), Math.min(Math.max(least, most), value));
  return {
    scale: view.scale,
    x: clamp(view.x, bounds.x - wide * 0.8, bounds.x + bounds.width - wide * 0.2),
    y: clamp(view.y, bounds.y - tall * 0.8, bounds.y + bounds.height - tall * 0.2),
  };
}

/** The shape nearest to the left top of what is shown: where going from shape to shape begins. */
function findShapeNear({ shapes }: DrawingScene, view: ViewPort, width: number, height: number): number {
  let best = -1;
  let least = Infinity;
  shapes.forEach((shape, index) => {
    if (!shape.name) return;
    const isIn = shape.x >= view.x && shape.y >= view.y && shape.x <= view.x + width / view.scale && shape.y <= view.y + height / view.scale;
    const cost = (isIn ? 0 : 1e6) + (shape.x - view.x) + (shape.y - view.y);
    if (cost < least) [best, least] = [index, cost];
  });
  return best;
}
