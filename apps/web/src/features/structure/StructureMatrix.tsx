import { Box, Flex } from '@chakra-ui/react';
import { figure } from '@coomb/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useFills } from '../../shared/colour-key/fills';
import { openCanvas, readColours } from '../../shared/ui/canvas';
import { useColourMode } from '../../shared/ui/colour-mode';
import { Filled } from '../../shared/ui/reference';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useSize } from '../../shared/ui/use-size';
import type { Structure } from './things';

const HEAD = 250;
/** Where there are no names. */
const HEAD_BARE = 110;
const TOP = 26;
/** Cells between this and that many pixels; names stand beside them where they have room. */
const CELL = { least: 4, most: 18, named: 11, readable: 16 };

export interface StructureBlock {
  start: number;
  size: number;
  look: 'cycle' | 'group';
}

interface Props {
  structure: Structure;
  /** Things in the order in which they stand. */
  order: readonly number[];
  blocks: readonly StructureBlock[];
  /** Marks above the diagonal are feedback. */
  isOrdered: boolean;
  /** As large as names need, or so that as much as can be is in sight. */
  isWhole: boolean;
  cursor: { row: number; column: number };
  onCursor: (cursor: { row: number; column: number }) => void;
  onKey: (key: string) => boolean;
}

/** Things against things: a mark where the row depends on the column, shaded by how often. */
export function StructureMatrix({ structure, order, blocks, isOrdered, isWhole, cursor, onCursor, onKey }: Props) {
  const { things, weightOf, edges } = structure;
  const heaviest = useMemo(() => edges.weight.reduce((most, one) => Math.max(most, one), 0), [edges]);
  const fills = useFills();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = useSize(frame);
  const [scroll, setScroll] = useState({ left: 0, top: 0 });
  const mode = useColourMode();
  const count = order.length;
  const cell = Math.max(isWhole ? CELL.least : CELL.readable, Math.min(CELL.most, Math.floor(Math.min(width, height) / Math.max(1, count))));
  const isNamed = cell >= CELL.named;
  const head = isNamed ? HEAD : HEAD_BARE;
  useRestingFocus(canvas);
  useEffect(() => {
    if (!canvas.current || width === 0) return;
    void mode;
    const colour = readColours(canvas.current);
    const context = openCanvas(canvas.current, width, height);
    const [x, y] = [(column: number) => column * cell - scroll.left, (row: number) => row * cell - scroll.top];
    const first = { row: Math.floor(scroll.top / cell), column: Math.floor(scroll.left / cell) };
    const last = { row: Math.min(count - 1, Math.ceil((scroll.top + height) / cell)), column: Math.min(count - 1, Math.ceil((scroll.left + width) / cell)) };
    context.fillStyle = colour('bg.panel');
    context.fillRect(0, 0, x(count), y(count));
    for (const { start, size, look } of blocks) {
      context.fillStyle = colour(look === 'cycle' ? 'brick.subtle' : 'moss.subtle');
      context.fillRect(x(start), y(start), size * cell, size * cell);
    }
    if (isNamed) {
      context.strokeStyle = colour('border.muted');
      context.lineWidth = 1;
      context.beginPath();
      for (let row = first.row; row <= last.row + 1; row++) context.rect(0, y(row) - 0.5, Math.min(width, x(count)), 0);
      for (let column = first.column; column <= last.column + 1; column++) context.rect(x(column) - 0.5, 0, 0, Math.min(height, y(count)));
      context.stroke();
    }
    context.font = '10.5px "Commissioner Variable", sans-serif';
    context.textAlign = 'center';
    context.textBaseline = 'middle';
    for (let row = first.row; row <= last.row; row++)
      for (let column = first.column; column <= last.column; column++) {
        if (row === column) {
          context.fillStyle = colour('bg.emphasized');
          context.fillRect(x(column), y(row), cell - (isNamed ? 1 : 0), cell - (isNamed ? 1 : 0));
          continue;
        }
        const weight = weightOf.get(order[row]! * things.length + order[column]!);
        if (weight === undefined) continue;
        const isFeedback = isOrdered && column > row;
        context.fillStyle = colour(isFeedback ? 'brick.fg' : 'moss.solid');
        context.globalAlpha = isNamed ? 0.35 + (0.55 * weight) / Math.max(7, heaviest) : 1;
        context.fillRect(x(column) + (isNamed ? 1 : 0), y(row) + (isNamed ? 1 : 0), cell - (isNamed ? 3 : 1), cell - (isNamed ? 3 : 1));
        context.globalAlpha = 1;
        if (cell < 14) continue;
        context.fillStyle = colour('fg');
        context.fillText(figure(weight), x(column) + cell / 2 - 0.5, y(row) + cell / 2);
      }
    for (const { start, size, look } of blocks) {
      context.strokeStyle = colour(look === 'cycle' ? 'brick.fg' : 'moss.solid');
      context.lineWidth = 1.5;
      context.strokeRect(x(start) - 0.5, y(start) - 0.5, size * cell, size * cell);
    }
    context.strokeStyle = colour('moss.solid');
    context.lineWidth = 2;
    context.strokeRect(x(cursor.column), y(cursor.row), cell - 1, cell - 1);
  });
  const moveTo = (row: number, column: number) => {
    const to = { row: Math.max(0, Math.min(count - 1, row)), column: Math.max(0, Math.min(count - 1, column)) };
    onCursor(to);
    const box = frame.current!;
    const into = (place: number, from: number, extent: number) =>
      place * cell < from ? place * cell : (place + 1) * cell > from + extent ? (place + 1) * cell - extent : from;
    box.scrollTo({ top: into(to.row, box.scrollTop, height), left: into(to.column, box.scrollLeft, width) });
  };
  const moves: Record<string, [number, number]> = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] };
  const pick = (event: React.MouseEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return [Math.floor((event.clientY - box.top + scroll.top) / cell), Math.floor((event.clientX - box.left + scroll.left) / cell)] as const;
  };
  const says = (place: number) => {
    const thing = things[order[place]!];
    return thing ? `${thing.name} ${thing.title}`.trim() : '';
  };
  const weight = weightOf.get(order[cursor.row]! * things.length + order[cursor.column]!);
  const status = `${says(cursor.row)} on ${says(cursor.column)}: ${cursor.row === cursor.column ? 'itself' : weight === undefined ? 'no dependency' : figure(weight)}`;
  const places = (from: number, extent: number) => {
    const [low, high] = [Math.max(0, Math.floor(from / cell) - 1), Math.min(count - 1, Math.ceil((from + extent) / cell) + 1)];
    return Array.from({ length: Math.max(0, high - low + 1) }, (_, at) => low + at);
  };
  return (
    <Flex direction="column" h="100%" minW="0" flex="1" borderTopWidth="1px" bg="bg.panel">
      <Flex h={`${TOP}px`} flexShrink={0} borderBottomWidth="1px">
        <Box
          w={`${head}px`}
          flexShrink={0}
          px="3"
          lineHeight={`${TOP}px`}
          fontSize="12px"
          color="fg.muted"
          borderRightWidth="1px"
          truncate
          title="A row depends on its columns"
        >
          depends on →
        </Box>
        <Box position="relative" flex="1" overflow="hidden" fontSize="10.5px" color="fg.muted" fontVariantNumeric="tabular-nums" aria-hidden>
          {isNamed &&
            places(scroll.left, width).map((place) => (
              <Box
                key={place}
                position="absolute"
                textAlign="center"
                style={{ left: place * cell - scroll.left, width: cell, top: 6 }}
                color={place === cursor.column ? 'moss.fg' : undefined}
                fontWeight={place === cursor.column ? '700' : undefined}
              >
                {place + 1}
              </Box>
            ))}
        </Box>
      </Flex>
      <Flex flex="1" minH="0">
        <Box w={`${head}px`} flexShrink={0} position="relative" overflow="hidden" borderRightWidth="1px" fontSize="12px" role="group" aria-label="Things">
          {isNamed &&
            places(scroll.top, height).map((place) => {
              const thing = things[order[place]!]!;
              return (
                <Flex
                  asChild
                  key={thing.id}
                  position="absolute"
                  w="100%"
                  align="center"
                  gap="1.5"
                  px="2"
                  textAlign="left"
                  style={{ top: place * cell - scroll.top, height: cell }}
                  bg={place === cursor.row ? 'moss.subtle' : undefined}
                >
                  <button type="button" tabIndex={-1} title={says(place)} onClick={() => moveTo(place, cursor.column)}>
                    <Box color="fg.muted" fontSize="10.5px" w="24px" textAlign="right" flexShrink={0} fontVariantNumeric="tabular-nums">
                      {place + 1}
                    </Box>
                    {thing.name && (
                      <Box fontFamily="mono" fontSize="11px" color="moss.fg" flexShrink={0}>
                        {fills?.has(thing.name) ? <Filled coat={fills.get(thing.name)!}>{thing.name}</Filled> : thing.name}
                      </Box>
                    )}
                    <Box flex="1" fontFamily="serif" fontWeight={thing.isFolded ? '600' : undefined} truncate title={says(place)}>
                      {thing.title}
                    </Box>
                    {thing.isFolded && (
                      <Box color="fg.muted" fontSize="10.5px" flexShrink={0}>
                        {thing.size}
                      </Box>
                    )}
                  </button>
                </Flex>
              );
            })}
        </Box>
        <Box
          ref={frame}
          flex="1"
          minW="0"
          overflow="auto"
          onScroll={(event) => setScroll({ left: event.currentTarget.scrollLeft, top: event.currentTarget.scrollTop })}
        >
          <Box style={{ width: count * cell, height: count * cell }}>
            <canvas
              ref={canvas}
              tabIndex={0}
              role="grid"
              aria-label="What depends on what. Arrow keys move, Enter tells what a cell consists of."
              aria-rowcount={count}
              aria-colcount={count}
              aria-activedescendant="structure-cell"
              style={{ position: 'sticky', left: 0, top: 0, width, height, display: 'block', outline: 'none' }}
              onKeyDown={(event) => {
                const move = moves[event.key];
                if (move) moveTo(cursor.row + move[0], cursor.column + move[1]);
                else if (event.ctrlKey || event.metaKey || event.altKey || !onKey(event.key)) return;
                event.preventDefault();
              }}
              onClick={(event) => {
                const [row, column] = pick(event);
                if (row < count && column < count) moveTo(row, column);
              }}
            >
              <div role="row" aria-rowindex={cursor.row + 1}>
                <div role="gridcell" id="structure-cell" aria-colindex={cursor.column + 1} aria-selected>
                  {status}
                </div>
              </div>
            </canvas>
          </Box>
        </Box>
      </Flex>
    </Flex>
  );
}
