import { type DrawingScene, findShown } from '@coomb/core';
import { memo } from 'react';
import type { ViewPort } from './drawing-painter';

const MOST = 400;

interface Props {
  scene: DrawingScene;
  view: ViewPort;
  width: number;
  height: number;
  /** Whether the mouse selects words now, rather than moving the drawing. */
  selectable: boolean;
}

/** The words of what is in sight, unseen above the picture: they can be selected with Alt held, found by the browser, and are printed. */
export const TextLayer = memo(function TextLayer({ scene, view, width, height, selectable }: Props) {
  const { shapes } = findShown(scene, { x: view.x, y: view.y, width: width / view.scale, height: height / view.scale });
  return (
    <svg width={width} height={height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }} aria-hidden>
      <g transform={`scale(${view.scale}) translate(${-view.x} ${-view.y})`}>
        {shapes.slice(0, MOST).map((index) => {
          const shape = scene.shapes[index]!;
          if (!shape.name) return null;
          return (
            <text
              key={shape.id}
              x={shape.x + shape.width / 2}
              y={shape.y + Math.min(shape.height / 2, 24) + 4}
              textAnchor="middle"
              fontSize={12.5}
              fill="transparent"
              style={{ userSelect: 'text', pointerEvents: selectable ? 'auto' : 'none', cursor: 'text' }}
            >
              {shape.name}
            </text>
          );
        })}
      </g>
    </svg>
  );
});
