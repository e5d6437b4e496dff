import { Box } from '@chakra-ui/react';
import { getDrawing } from '@coomb/contract';
import { buildScene, detailAt, findHolding, groundOf, paintRoute, paintShape } from '@coomb/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { openCanvas, readColours } from '../ui/canvas';
import { useColourMode } from '../ui/colour-mode';
import { useSize } from '../ui/use-size';
import { CanvasPen } from './canvas-pen';
import { fitView } from './drawing-painter';
import { readPaper } from './paper';

/** A small picture of a drawing, fetched when it comes into sight; shapes in `lit` stand out. */
export function DrawingThumb({ project, drawing, lit }: { project: string; drawing: string; lit?: readonly number[] }) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = useSize(frame);
  const mode = useColourMode();
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const watcher = new IntersectionObserver((entries) => entries.some((entry) => entry.isIntersecting) && setSeen(true), { rootMargin: '200px' });
    watcher.observe(frame.current!);
    return () => watcher.disconnect();
  }, []);
  const { data } = useQuery({
    queryKey: [...projectKey(project), 'drawing', drawing],
    queryFn: () => call(getDrawing, { params: { project, drawing } }),
    enabled: seen,
  });
  useEffect(() => {
    void mode;
    if (!data || !canvas.current || width === 0) return;
    const context = openCanvas(canvas.current, width, height);
    const colour = readColours(canvas.current);
    const paper = readPaper(colour);
    const scene = buildScene(data);
    const view = fitView(scene.bounds, width, height);
    const density = window.devicePixelRatio || 1;
    context.setTransform(view.scale * density, 0, 0, view.scale * density, -view.x * view.scale * density, -view.y * view.scale * density);
    const pen = new CanvasPen(context);
    const holding = findHolding(scene.shapes);
    const detail = detailAt(view.scale);
    scene.shapes.forEach((shape, index) => holding.has(index) && paintShape(pen, paper, shape, detail, true, undefined, scene.shapes[shape.inside]));
    for (const route of scene.routes) paintRoute(pen, paper, route, detail, groundOf(scene.shapes, paper, route));
    scene.shapes.forEach((shape, index) => !holding.has(index) && paintShape(pen, paper, shape, detail, false, undefined, scene.shapes[shape.inside]));
    context.strokeStyle = colour('moss.solid');
    context.lineWidth = 3 / view.scale;
    for (const index of lit ?? []) {
      const shape = scene.shapes[index];
      if (shape) context.strokeRect(shape.x - 3, shape.y - 3, shape.width + 6, shape.height + 6);
    }
  }, [data, width, height, mode, lit]);
  return (
    <Box ref={frame} w="100%" h="100%" position="relative">
      <canvas ref={canvas} style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }} aria-hidden />
    </Box>
  );
}
