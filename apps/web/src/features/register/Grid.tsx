import { Box, Flex } from '@chakra-ui/react';
import type { RegisterRow } from '@coomb/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useMemo, useRef } from 'react';
import { useNavigate } from 'react-router';
import { useTaken } from '../../shared/marks/drag-items';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useSize } from '../../shared/ui/use-size';
import { useDrawnRows } from './drawn-rows';
import { type GridColumn, gridStyles, type GroupRow, NUMBER, Row, Tallies } from './GridRow';
import { type Area, areaOf, type Spot, steps } from './selection';

interface Props {
  label: string;
  columns: readonly GridColumn[];
  /** Columns at the left that stay in sight. */
  frozen: number;
  count: number;
  rowHeight: number;
  /** A row, undefined while it is on its way; or the name of a group. */
  rowAt: (index: number) => RegisterRow | GroupRow | undefined;
  /** What columns say of all rows, by their ids; nothing where none is asked. */
  foot: ReadonlyMap<string, string> | undefined;
  /** The place of a row among the items, from 1; nothing for the name of a group. */
  numberAt: (index: number) => number | undefined;
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
  /** An item was dropped on a cell of links. */
  onTaken: (reference: string, spot: Spot) => void;
}

const HEAD = 30;
const PAGE = 15;
const LEAST_WIDTH = 48;

/** Cells as in a spreadsheet: only what is in sight is drawn, the first columns stay, a range is chosen by keys or by dragging. */
export function Grid(props: Props) {
  const { label, columns, frozen, count, rowHeight, rowAt, numberAt, head, cell, at, anchor, onGo, onKey, onEdit, onSight, onResize, onCopy, onPaste } = props;
  const frame = useRef<HTMLDivElement>(null);
  useRestingFocus(frame);
  useTaken(frame, (reference, { dataset }: Element & { dataset?: DOMStringMap }) => {
    if (dataset) props.onTaken(reference, { row: Number(dataset.row), column: Number(dataset.column) });
  });
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
  const virtual = useVirtualizer({ count, getScrollElement: () => frame.current, estimateSize: () => rowHeight, overscan: 3 });
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
  // A row that goes out of sight is used again, in its place of the document, for one that comes: to make a row anew takes three times as long as to
  // change what it says.
  const slots = useRef(1);
  slots.current = Math.max(slots.current, last - first + 1);
  const held = lefts[frozen]!;
  const inSight = across.getVirtualItems();
  const [firstShown, lastShown] = [inSight[0]?.index ?? 0, inSight.at(-1)?.index ?? -1];
  const shownColumns = useMemo(() => Array.from({ length: lastShown - firstShown + 1 }, (_, by) => frozen + firstShown + by), [firstShown, lastShown, frozen]);
  const isUpwards = virtual.scrollDirection === 'backward';
  const drawn = useDrawnRows({ first, last, slots: slots.current, columns: shownColumns, isUpwards }, virtual.isScrolling || across.isScrolling);
  const inSlots = rows.length === 0 ? [] : [...drawn].sort(([a], [b]) => a - b);
  // Heads are drawn anew when they change, not whenever one scrolls.
  const [heldHeads, otherHeads] = useMemo(() => {
    const draw = (index: number) => (
      <Head key={columns[index]!.id} column={columns[index]!} left={NUMBER + lefts[index]!} index={index} onResize={onResize}>
        {head(columns[index]!, index)}
      </Head>
    );
    return [[...columns.keys()].slice(0, frozen).map(draw), shownColumns.map(draw)];
  }, [columns, lefts, frozen, shownColumns, head, onResize]);
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
  const cut = useRef<Element>(undefined);
  /** What is cut is told whole while one points at it: told of every cell all the time, it would cost frames. The element says other words once one scrolls. */
  const tellCut = (target?: Element) => {
    cut.current?.removeAttribute('title');
    cut.current = target?.closest('.t') ?? undefined;
    if (cut.current && cut.current.scrollWidth > cut.current.clientWidth) cut.current.setAttribute('title', cut.current.textContent ?? '');
  };
  const drag = useRef(false);
  const navigate = useNavigate();
  const follow = (event: React.MouseEvent) => {
    const address = (event.target as Element).closest('a.reference')?.getAttribute('href');
    // A new tab, or a window, is the browser's to open.
    if (!address || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    void navigate(address);
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
      css={gridStyles}
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
      onClick={follow}
      onPointerOver={({ target }) => tellCut(target as Element)}
      onScroll={() => tellCut()}
      onDoubleClick={(event) => spotOf(event.target) && onEdit()}
    >
      <Box
        position="relative"
        style={{ width: NUMBER + lefts.at(-1)!, height: HEAD + virtual.getTotalSize(), minHeight: props.foot ? `calc(100% - ${rowHeight}px)` : undefined }}
      >
        <Flex role="row" position="sticky" top="0" zIndex="3" bg="bg.subtle" borderBottomWidth="1px" style={{ height: HEAD, width: NUMBER + lefts.at(-1)! }}>
          <Box position="sticky" left="0" zIndex="2" bg="bg.subtle" style={{ width: NUMBER + held, height: HEAD }}>
            {heldHeads}
          </Box>
          {otherHeads}
        </Flex>
        {inSlots.map(([slot, { index, columns: shown }]) => {
          const row = rowAt(index);
          const isInArea = index >= area.top && index <= area.bottom;
          return (
            <Row
              key={slot}
              row={row}
              index={index}
              number={numberAt(index)}
              top={HEAD + index * rowHeight}
              height={rowHeight}
              groupWidth={width - 20}
              columns={columns}
              lefts={lefts}
              frozen={frozen}
              shown={shown}
              at={at.row === index ? at.column : -1}
              chosenFrom={isInArea ? area.left : -1}
              chosenTo={isInArea ? area.right : -2}
              editor={at.row === index && props.editing ? props.editor : undefined}
              cell={cell}
            />
          );
        })}
      </Box>
      {props.foot && (
        <div className="foot" role="row" style={{ height: rowHeight, width: NUMBER + lefts.at(-1)! }}>
          <div role="gridcell" className="all" style={{ lineHeight: `${rowHeight}px` }}>
            all
          </div>
          <Tallies of={props.foot} columns={columns} lefts={lefts} height={rowHeight} />
        </div>
      )}
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
