import { Box, Flex } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import type { FoldedAxis } from '@coomb/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import type { MatrixSide } from './matrix-sides';
import { cellSize } from './paint-matrix';

interface HeadsProps {
  outline: OutlineReply;
  side: MatrixSide;
  axis: FoldedAxis;
  totals: Int32Array;
  scroll: number;
  active: number;
  folded: ReadonlySet<string>;
  onFold: (id: string) => void;
  onOpen: (reference: string) => void;
}

function linesIn(axis: FoldedAxis, scroll: number, extent: number): number[] {
  const first = Math.max(0, Math.floor(scroll / cellSize) - 2);
  const last = Math.min(axis.lines.length - 1, Math.ceil((scroll + extent) / cellSize) + 2);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => first + index);
}

function useLine({ outline, side, axis, folded }: HeadsProps, line: number) {
  const index = axis.lines[line]!;
  const row = side.rows[index]!;
  let depth = 0;
  for (let up = side.parent[index]!; up >= 0; up = side.parent[up]!) depth++;
  const isFolded = folded.has(outline.id[row]!);
  const hasChildren = isFolded || side.parent[index + 1] === index;
  return {
    row,
    id: outline.id[row]!,
    reference: outline.reference[row]!,
    title: outline.title[row]!,
    heading: outline.heading[row] === 1,
    depth,
    isFolded,
    hasChildren,
    hidden: axis.size[line]! - 1,
  };
}

/** Row names; parents fold and unfold, names open their item. */
export function RowHeads({ width, height, ...props }: HeadsProps & { width: number; height: number }) {
  return (
    <Box w={`${width}px`} flexShrink={0} overflow="hidden" position="relative" borderRightWidth="1px" borderTopWidth="1px" role="rowgroup" aria-label="Rows">
      {linesIn(props.axis, props.scroll, height).map((line) => (
        <RowHead key={line} line={line} {...props} />
      ))}
    </Box>
  );
}

function RowHead({ line, ...props }: HeadsProps & { line: number }) {
  const { id, reference, title, heading, depth, isFolded, hasChildren, hidden } = useLine(props, line);
  return (
    <Flex
      position="absolute"
      w="100%"
      h={`${cellSize}px`}
      align="center"
      gap="1"
      pr="2"
      fontSize="12.5px"
      bg={line === props.active ? 'moss.subtle' : heading ? 'bg.muted' : undefined}
      style={{ top: line * cellSize - props.scroll, paddingLeft: 6 + depth * 11 }}
    >
      <Fold visible={hasChildren} folded={isFolded} label={title} onClick={() => props.onFold(id)} />
      <Box
        as="button"
        flex="1"
        minW="0"
        textAlign="left"
        truncate
        title={`${reference} ${title}`}
        onClick={() => props.onOpen(reference)}
        _hover={{ textDecoration: 'underline' }}
      >
        {!heading && (
          <Box as="span" fontFamily="mono" fontSize="11.5px" color="moss.fg">
            {reference}{' '}
          </Box>
        )}
        <Box as="span" fontFamily="serif" fontWeight={heading ? '600' : '400'}>
          {title}
        </Box>
      </Box>
      {isFolded && hidden > 0 && (
        <Box color="fg.muted" fontSize="11px">
          {hidden} folded
        </Box>
      )}
      <Box color={props.totals[line] ? 'fg.muted' : 'brick.fg'} fontVariantNumeric="tabular-nums" fontSize="11.5px">
        {heading && !isFolded ? '' : props.totals[line]}
      </Box>
    </Flex>
  );
}

/** Column names, written upwards. */
export function ColumnHeads({ width, ...props }: HeadsProps & { width: number }) {
  return (
    <Box flex="1" minW="0" overflow="hidden" position="relative" role="rowgroup" aria-label="Columns">
      {linesIn(props.axis, props.scroll, width).map((line) => (
        <ColumnHead key={line} line={line} {...props} />
      ))}
    </Box>
  );
}

function ColumnHead({ line, ...props }: HeadsProps & { line: number }) {
  const { id, reference, title, heading, isFolded, hasChildren, hidden } = useLine(props, line);
  return (
    <Flex
      position="absolute"
      bottom="0"
      h="100%"
      w={`${cellSize}px`}
      direction="column"
      align="center"
      justify="flex-end"
      pb="1"
      bg={line === props.active ? 'moss.subtle' : heading ? 'bg.muted' : undefined}
      style={{ left: line * cellSize - props.scroll }}
    >
      <Box
        as="button"
        flex="1"
        minH="0"
        w="100%"
        overflow="hidden"
        title={`${reference} ${title}`}
        onClick={() => props.onOpen(reference)}
        css={{ writingMode: 'vertical-rl', transform: 'rotate(180deg)' }}
        fontSize="12px"
        textAlign="left"
        whiteSpace="nowrap"
        textOverflow="ellipsis"
        _hover={{ textDecoration: 'underline' }}
      >
        {!heading && (
          <Box as="span" fontFamily="mono" fontSize="11px" color="moss.fg">
            {reference}{' '}
          </Box>
        )}
        <Box as="span" fontFamily="serif" fontWeight={heading ? '600' : '400'}>
          {title}
          {isFolded && hidden > 0 ? ` (${hidden})` : ''}
        </Box>
      </Box>
      <Fold visible={hasChildren} folded={isFolded} label={title} onClick={() => props.onFold(id)} />
    </Flex>
  );
}

function Fold({ visible, folded, label, onClick }: { visible: boolean; folded: boolean; label: string; onClick: () => void }) {
  if (!visible) return <Box boxSize="14px" flexShrink={0} />;
  return (
    <Box
      as="button"
      boxSize="14px"
      flexShrink={0}
      display="grid"
      placeItems="center"
      aria-label={`${folded ? 'Unfold' : 'Fold'} ${label}`}
      aria-expanded={!folded}
      onClick={onClick}
    >
      {folded ? <ChevronRight size={13} /> : <ChevronDown size={13} />}
    </Box>
  );
}
