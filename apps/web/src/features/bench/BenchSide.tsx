import { Box, Flex } from '@chakra-ui/react';
import { useStrength } from '../../shared/lens/lit';
import type { OutlineReply } from '@coomb/contract';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { RowLabel } from '../../shared/ui/row-label';
import { depthIn } from './bench-rows';
import { idOfPlace } from './dragging';
import { rowHeight } from './Threads';
import type { UseLine } from '../linking/use-lines';
import { UseBar } from '../linking/UseBar';
import { useOthersByItem } from '../../shared/live/presence';
import { OthersMark } from '../../shared/ui/others-mark';
import { OneLine } from '../../shared/ui/one-line';

interface Props {
  side: 'left' | 'right';
  label: string;
  outline: OutlineReply;
  rows: number[];
  marked: number | undefined;
  focused: boolean;
  /** While something is dragged, nothing scrolls away under the hand. */
  dragging: boolean;
  /** Rows linked with what is marked on the other side. */
  partner: number[];
  reasons?: Map<number, string>;
  fits: (row: number) => boolean;
  /** Uses of the marked item, and which of them is looked at: its place, one more; 0 for every one. */
  uses: readonly UseLine[];
  inUse: number;
  onUse: (at: number) => void;
  onMark: (row: number) => void;
  onScroll: (top: number) => void;
}

/** One outline of the bench. */
export function BenchSide({ side, label, outline, rows, marked, focused, dragging, partner, reasons, fits, uses, inUse, onUse, onMark, onScroll }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => rowHeight, overscan: 10 });
  const linked = new Set(partner);
  const at = marked === undefined ? -1 : rows.indexOf(marked);
  const firstPartner = focused || dragging ? -1 : rows.findIndex((row) => linked.has(row));
  useEffect(() => {
    // What is in sight already stays where it is: nothing jumps because it was just linked.
    const { startIndex = -1, endIndex = -1 } = virtual.range ?? {};
    if (firstPartner >= 0 && (firstPartner <= startIndex || firstPartner >= endIndex)) virtual.scrollToIndex(firstPartner, { align: 'center' });
  }, [firstPartner, virtual]);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  const others = useOthersByItem();
  const list = (
    <Box
      ref={frame}
      h="100%"
      overflow="auto"
      bg="bg.panel"
      role="listbox"
      tabIndex={0}
      aria-label={label}
      onScroll={(event) => onScroll(event.currentTarget.scrollTop)}
    >
      {rows.length === 0 && (
        <Box p="6" color="fg.muted">
          Nothing to show here.
        </Box>
      )}
      <Box position="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index]!;
          return (
            <BenchRow
              key={outline.id[row]}
              side={side}
              outline={outline}
              row={row}
              top={start}
              marked={row === marked}
              focused={focused}
              linked={linked.has(row)}
              fits={fits(row)}
              reason={reasons?.get(row)}
              others={others.get(outline.id[row]!)}
              onMark={() => onMark(row)}
            />
          );
        })}
      </Box>
    </Box>
  );
  return (
    <Box flex="1" minW="0" position="relative">
      {list}
      {uses.length > 0 && marked !== undefined && <UseBar reference={outline.reference[marked]!} uses={uses} at={inUse} onChoose={onUse} />}
    </Box>
  );
}

interface RowProps {
  side: 'left' | 'right';
  outline: OutlineReply;
  row: number;
  top: number;
  marked: boolean;
  focused: boolean;
  linked: boolean;
  fits: boolean;
  reason: string | undefined;
  /** Who else works on it now. */
  others: readonly string[] | undefined;
  onMark: () => void;
}

function BenchRow({ side, outline, row, top, marked, focused, linked, fits, reason, others, onMark }: RowProps) {
  const data = { side, row };
  const isHeading = outline.heading[row] === 1;
  const strength = useStrength()(outline.id[row]!);
  const drag = useDraggable({ id: `dragged ${idOfPlace(data)}`, data, disabled: isHeading });
  const drop = useDroppable({ id: idOfPlace(data), data, disabled: isHeading || !fits });
  return (
    <Flex
      ref={(element: HTMLDivElement | null) => {
        drag.setNodeRef(element);
        drop.setNodeRef(element);
      }}
      {...drag.listeners}
      role="option"
      aria-selected={marked}
      data-reference={outline.reference[row]}
      data-bench-side={side}
      data-bench-row={row}
      position="absolute"
      w="100%"
      h={`${rowHeight}px`}
      align="center"
      gap={{ base: '1', md: '2' }}
      px={{ base: '1.5', md: '3' }}
      cursor={isHeading ? 'default' : 'grab'}
      opacity={fits ? strength : 0.35}
      bg={drop.isOver ? 'moss.emphasized' : marked ? (focused ? 'moss.muted' : 'bg.muted') : linked ? 'moss.subtle' : undefined}
      boxShadow={marked && focused ? 'inset 0 0 0 2px var(--chakra-colors-moss-solid)' : undefined}
      style={{ top }}
      _hover={{ bg: marked ? undefined : 'bg.subtle' }}
      onClick={onMark}
    >
      <Box flexShrink={0} w={{ base: `${depthIn(outline, row) * 3}px`, md: `${depthIn(outline, row) * 12}px` }} />
      <RowLabel outline={outline} row={row} />
      <OthersMark names={others} />
      {reason && <OneLine fontSize="11.5px" color="moss.fg" fontStyle="italic" maxW="50%" text={reason} />}
    </Flex>
  );
}
