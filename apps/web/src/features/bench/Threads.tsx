import { counted } from '@coomb/core';
import { Box } from '@chakra-ui/react';
import type { Thread } from './bench-rows';

export const rowHeight = 28;
const WIDTH = 150;
/** In narrow windows the same drawing is pressed together. */
const NARROW = 36;
const MOST = 400;

interface Props {
  threads: Thread[];
  leftRows: number[];
  rightRows: number[];
  scroll: { left: number; right: number };
  height: number;
  marked: { left?: number; right?: number };
  phrase: (thread: Thread) => string;
  /** It holds in other uses of a marked item only. */
  isElsewhere: (thread: Thread) => boolean;
  onPick: (thread: Thread) => void;
}

/** The gutter: a thread per link; an end out of sight is a stub towards it. */
export function Threads({ threads, leftRows, rightRows, scroll, height, marked, phrase, isElsewhere, onPick }: Props) {
  const leftAt = new Map(leftRows.map((row, index) => [row, index]));
  const rightAt = new Map(rightRows.map((row, index) => [row, index]));
  const placed = threads.flatMap((thread) => {
    const left = leftAt.get(thread.left);
    const right = rightAt.get(thread.right);
    if (left === undefined || right === undefined) return [];
    const y1 = (left + 0.5) * rowHeight - scroll.left;
    const y2 = (right + 0.5) * rowHeight - scroll.right;
    const inView = (y: number) => y > -rowHeight && y < height + rowHeight;
    return inView(y1) || inView(y2) ? [{ thread, y1, y2, near: inView(y1), far: inView(y2) }] : [];
  });
  return (
    <Box w={{ base: `${NARROW}px`, md: `${WIDTH}px` }} flexShrink={0} bg="bg" borderXWidth="1px" overflow="hidden">
      <svg
        width="100%"
        height={height}
        viewBox={`0 0 ${WIDTH} ${height}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`${counted(placed.length, 'link')} in sight`}
      >
        {placed.slice(0, MOST).map(({ thread, y1, y2, near, far }) => {
          const away = isElsewhere(thread);
          const isMarked = !away && (thread.left === marked.left || thread.right === marked.right);
          const clamp = (y: number) => Math.max(-10, Math.min(height + 10, y));
          const path =
            near && far
              ? `M0 ${y1}C60 ${y1} 90 ${y2} ${WIDTH} ${y2}`
              : near
                ? `M0 ${y1}C26 ${y1} 34 ${y1} 40 ${clamp(y1 + (y2 > y1 ? 9 : -9))}`
                : `M${WIDTH} ${y2}C${WIDTH - 26} ${y2} ${WIDTH - 34} ${y2} ${WIDTH - 40} ${clamp(y2 + (y1 > y2 ? 9 : -9))}`;
          return (
            <g key={thread.id} onClick={() => onPick(thread)} style={{ cursor: 'pointer' }}>
              <path d={path} fill="none" stroke="transparent" strokeWidth="9" vectorEffect="non-scaling-stroke" />
              <path
                d={path}
                fill="none"
                stroke={thread.suspect ? 'var(--chakra-colors-suspect)' : thread.inUse ? 'var(--chakra-colors-heather-fg)' : 'var(--chakra-colors-thread)'}
                strokeWidth={isMarked ? 2.6 : 1.3}
                strokeDasharray={away ? '1 5' : thread.suspect ? '5 4' : undefined}
                vectorEffect="non-scaling-stroke"
                opacity={isMarked ? 1 : 0.45}
              >
                <title>
                  {phrase(thread) +
                    (thread.suspect ? ' (suspect)' : '') +
                    (thread.inUse ? `, only as ${thread.inUse}` : '') +
                    (away ? ': not linked here' : '')}
                </title>
              </path>
            </g>
          );
        })}
      </svg>
    </Box>
  );
}
