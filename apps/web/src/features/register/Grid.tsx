import { Box, Flex } from '@chakra-ui/react';
import type { RegisterRow } from '@coomb/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useMemo, useRef } from 'react';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useSize } from '../../shared/ui/use-size';
import { type Area, areaOf, inArea, type Spot, steps } from './selection';

export interface GridColumn {
  id: string;
  name: string;
  width: number;
  /** How its cells are edited; nothing where they are not. */
  field: string | null;
}

interface Props {
  label: string;
  columns: readonly GridColumn[];
  /** Columns at the left that stay in sight. */
  frozen: number;
  count: number;
  rowHeight: number;
  /** A row, undefined while it is on its way; or the name of a group. */
  rowAt: (index: number) => RegisterRow | { group: string; count: number } | undefined;
  /** The place of a row among the items, from 1; nothing for the name of a group. */
  numberAt: (index: number) => number | undefined;
  /** Rows that a lens does not light. */
  isFaint: (row: RegisterRow) => boolean;
  head: (column: GridColumn, index: number) => ReactNode;
  cell: (row: RegisterRow, column: GridColumn, index: number) => ReactNode;
  /** Edits the cell in its place, where one is being written in. */
  editor: ReactNode;
  editing: boolean;
  at: Spot;
  anchor: Spot;
  onGo: (at: Spot, anchor: Spot) => void;
  /** Keys beyond moving; what it does not know it leaves. */
  onKey: (event: React.KeyboardEvent) => boolean;
  onEdit: () => void;
  onSight: (first: number, last: number) => void;
  onResize: (column: GridColumn, width: number) => void;
  onCopy: (area: Area) => string | undefined;
  onPaste: (text: string) => void;
}

const HEAD = 30;
const NUMBER = 46;
const PAGE = 15;
const LEAST_WIDTH = 48;

/** Cells as in a spreadsheet: only what is in sight is drawn, the first columns stay, a range is chosen by keys or by dragging. */
export function Grid(props: Props) {
  const { label, columns, frozen, count, rowHeight, rowAt, numberAt, head, cell, at, anchor, onGo, onKey, onEdit, onSight, onResize, onCopy, onPaste } = props;
  const frame = useRef<HTMLDivElement>(null);
  useRestingFocus(frame);
  const { width } = useSize(frame);
  const lefts = useMemo(() => {
    const found: number[] = [];
    let left = 0;
    for (const one of columns) {
      found.push(left);
      left += one.width;
    }
    return [...found, left];
  }, [columns]);
  const virtual = useVirtualizer({ count, getScrollElement: () => frame.current, estimateSize: () => rowHeight, overscan: 8 });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length - frozen,
    getScrollElement: () => frame.current,
    estimateSize: (index) => columns[frozen + index]!.width,
    overscan: 2,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: widths are measured anew when they change.
  useEffect(() => across.measure(), [columns, across]);
  const rows = virtual.getVirtualItems();
  const [first, last] = [rows[0]?.index ?? 0, rows.at(-1)?.index ?? 0];
  useEffect(() => onSight(first, last), [first, last, onSight]);
  const held = lefts[frozen]!;
  const shown = [...columns.keys()].filter((index) => index >= frozen).filter((index) => across.getVirtualItems().some((one) => one.index === index - frozen));
  const area = areaOf(at, anchor);
  const go = (to: Spot, extend: boolean) => {
    const next = { row: Math.max(0, Math.min(count - 1, to.row)), column: Math.max(0, Math.min(columns.length - 1, to.column)) };
    // The name of a group has no cells: one goes past it.
    const by = to.row < at.row ? -1 : 1;
    while (numberAt(next.row) === undefined && next.row + by >= 0 && next.row + by < count) next.row += by;
    if (numberAt(next.row) === undefined) next.row = at.row;
    onGo(next, extend ? anchor : next);
    virtual.scrollToIndex(next.row);
    const box = frame.current;
    if (!box || next.column < frozen) return;
    const [left, right] = [lefts[next.column]!, lefts[next.column + 1]!];
    if (left - held < box.scrollLeft) box.scrollLeft = left - held;
    else if (right + NUMBER > box.scrollLeft + box.clientWidth) box.scrollLeft = right + NUMBER - box.clientWidth;
  };
  const spotOf = (target: EventTarget): Spot | undefined => {
    const box = (target as HTMLElement).closest<HTMLElement>('[data-row]');
    return box ? { row: Number(box.dataset.row), column: Number(box.dataset.column) } : undefined;
  };
  const drag = useRef(false);
  const drawCell = (row: RegisterRow, rowIndex: number, index: number, left: number) => {
    const one = columns[index]!;
    const isAt = at.row === rowIndex && at.column === index;
    const isChosen = inArea(area, rowIndex, index);
    return (
      <Box
        key={one.id}
        id={`cell-${rowIndex}-${index}`}
        role="gridcell"
        aria-colindex={index + 1}
        aria-selected={isChosen}
        aria-readonly={one.field === null || undefined}
        data-row={rowIndex}
        data-column={index}
        position="absolute"
        top="0"
        h="100%"
        px="2"
        display="flex"
        alignItems="center"
        borderRightWidth="1px"
        borderColor="border"
        fontSize="13.5px"
        bg={isChosen && !isAt ? 'moss.subtle' : undefined}
        {...(isAt && { outline: '2px solid', outlineColor: 'moss.solid', outlineOffset: '-2px', zIndex: 1 })}
        style={{ left, width: one.width }}
      >
        {isAt && props.editing ? (
          props.editor
        ) : props.isFaint(row) ? (
          <Box minW="0" w="100%" opacity={0.35} display="flex" alignItems="center">
            {cell(row, one, index)}
          </Box>
        ) : (
          cell(row, one, index)
        )}
      </Box>
    );
  };
  return (
    <Box
      ref={frame}
      role="grid"
      aria-label={label}
      aria-rowcount={count + 1}
      aria-colcount={columns.length}
      aria-multiselectable
      aria-activedescendant={`cell-${at.row}-${at.column}`}
      tabIndex={0}
      h="100%"
      overflow="auto"
      outline="none"
      userSelect="none"
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget) return;
        const by = steps(event, PAGE, { rows: count, columns: columns.length });
        if (by) go({ row: by.row ?? at.row + (by.down ?? 0), column: by.column ?? at.column + (by.right ?? 0) }, event.shiftKey && event.key !== 'Tab');
        else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a')
          onGo({ row: 0, column: 0 }, { row: count - 1, column: columns.length - 1 });
        else if (!onKey(event)) return;
        event.preventDefault();
        event.stopPropagation();
      }}
      onCopy={(event) => {
        if (event.target !== event.currentTarget) return;
        const text = onCopy(area);
        if (text === undefined) return;
        event.clipboardData.setData('text/plain', text);
        event.preventDefault();
      }}
      onPaste={(event) => {
        if (event.target !== event.currentTarget) return;
        onPaste(event.clipboardData.getData('text/plain'));
        event.preventDefault();
      }}
      onPointerDown={(event) => {
        const spot = spotOf(event.target);
        if (!spot || event.button !== 0 || (event.target as HTMLElement).closest('input, select, textarea')) return;
        if (!event.shiftKey && !(event.target as HTMLElement).closest('a')) drag.current = true;
        onGo(spot, event.shiftKey ? anchor : spot);
      }}
      onPointerMove={(event) => {
        const spot = drag.current ? spotOf(event.target) : undefined;
        if (spot && (spot.row !== at.row || spot.column !== at.column)) onGo(spot, anchor);
      }}
      onPointerUp={() => {
        drag.current = false;
      }}
      onDoubleClick={(event) => spotOf(event.target) && onEdit()}
    >
      <Box position="relative" style={{ width: NUMBER + lefts.at(-1)!, height: HEAD + virtual.getTotalSize() }}>
        <Flex role="row" position="sticky" top="0" zIndex="3" bg="bg.subtle" borderBottomWidth="1px" style={{ height: HEAD, width: NUMBER + lefts.at(-1)! }}>
          <Box position="sticky" left="0" zIndex="2" bg="bg.subtle" style={{ width: NUMBER + held, height: HEAD }}>
            {[...columns.keys()].slice(0, frozen).map((index) => (
              <Head key={columns[index]!.id} column={columns[index]!} left={NUMBER + lefts[index]!} index={index} onResize={onResize}>
                {head(columns[index]!, index)}
              </Head>
            ))}
          </Box>
          {shown.map((index) => (
            <Head key={columns[index]!.id} column={columns[index]!} left={NUMBER + lefts[index]!} index={index} onResize={onResize}>
              {head(columns[index]!, index)}
            </Head>
          ))}
        </Flex>
        {rows.map(({ index, start }) => {
          const row = rowAt(index);
          const isGroup = row !== undefined && 'group' in row;
          return (
            <Box
              key={index}
              role="row"
              aria-rowindex={index + 2}
              data-name={row && 'item' in row ? row.item.reference : undefined}
              position="absolute"
              left="0"
              borderBottomWidth="1px"
              bg={isGroup ? 'bg.muted' : 'bg.panel'}
              style={{ top: HEAD + start, height: rowHeight, width: NUMBER + lefts.at(-1)! }}
            >
              {isGroup ? (
                <Box
                  role="gridcell"
                  position="sticky"
                  left="0"
                  px="3"
                  fontWeight="600"
                  fontSize="13.5px"
                  lineHeight={`${rowHeight}px`}
                  style={{ width: width - 20 }}
                >
                  {row.group || 'not said'}{' '}
                  <Box as="span" color="fg.muted" fontWeight="400">
                    {row.count}
                  </Box>
                </Box>
              ) : (
                <>
                  <Box position="sticky" left="0" zIndex="2" bg="bg.panel" h="100%" style={{ width: NUMBER + held }}>
                    <Box
                      role="rowheader"
                      position="absolute"
                      h="100%"
                      bg="bg.subtle"
                      color="fg.muted"
                      fontSize="12px"
                      textAlign="right"
                      pr="2"
                      lineHeight={`${rowHeight}px`}
                      borderRightWidth="1px"
                      style={{ width: NUMBER }}
                    >
                      {numberAt(index)}
                    </Box>
                    {row && [...columns.keys()].slice(0, frozen).map((one) => drawCell(row, index, one, NUMBER + lefts[one]!))}
                  </Box>
                  {row && shown.map((one) => drawCell(row, index, one, NUMBER + lefts[one]!))}
                </>
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

interface HeadProps {
  column: GridColumn;
  left: number;
  index: number;
  onResize: (column: GridColumn, width: number) => void;
  children: ReactNode;
}

function Head({ column, left, index, onResize, children }: HeadProps) {
  const from = useRef<{ x: number; width: number }>(undefined);
  return (
    <Flex
      role="columnheader"
      aria-colindex={index + 1}
      position="absolute"
      top="0"
      h="100%"
      align="center"
      borderRightWidth="1px"
      px="2"
      style={{ left, width: column.width }}
    >
      {children}
      <Box
        aria-hidden
        position="absolute"
        right="-4px"
        top="0"
        w="8px"
        h="100%"
        cursor="col-resize"
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = { x: event.clientX, width: column.width };
        }}
        onPointerMove={(event) => from.current && onResize(column, Math.max(LEAST_WIDTH, from.current.width + event.clientX - from.current.x))}
        onPointerUp={() => {
          from.current = undefined;
        }}
      />
    </Flex>
  );
}
