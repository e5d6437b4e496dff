import { Box, Flex } from '@chakra-ui/react';
import type { RegisterRow } from '@coomb/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, type ReactNode, useEffect, useMemo, useRef } from 'react';
import { TAKES, useTaken } from '../../shared/marks/drag-items';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useSize } from '../../shared/ui/use-size';
import { type Area, areaOf, type Spot, steps } from './selection';

export interface GridColumn {
  id: string;
  name: string;
  width: number;
  /** How its cells are edited; nothing where they are not. */
  field: string | null;
}

/** The name of a group, with what columns say of its rows, by their ids. */
export interface GroupRow {
  group: string;
  count: number;
  tallies: ReadonlyMap<string, string>;
}

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
const NUMBER = 46;
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
  const inSight = across.getVirtualItems();
  const [firstShown, lastShown] = [inSight[0]?.index ?? 0, inSight.at(-1)?.index ?? -1];
  const shownColumns = useMemo(() => Array.from({ length: lastShown - firstShown + 1 }, (_, by) => frozen + firstShown + by), [firstShown, lastShown, frozen]);
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
      css={styles}
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
      <Box
        position="relative"
        style={{ width: NUMBER + lefts.at(-1)!, height: HEAD + virtual.getTotalSize(), minHeight: props.foot ? `calc(100% - ${rowHeight}px)` : undefined }}
      >
        <Flex role="row" position="sticky" top="0" zIndex="3" bg="bg.subtle" borderBottomWidth="1px" style={{ height: HEAD, width: NUMBER + lefts.at(-1)! }}>
          <Box position="sticky" left="0" zIndex="2" bg="bg.subtle" style={{ width: NUMBER + held, height: HEAD }}>
            {[...columns.keys()].slice(0, frozen).map((index) => (
              <Head key={columns[index]!.id} column={columns[index]!} left={NUMBER + lefts[index]!} index={index} onResize={onResize}>
                {head(columns[index]!, index)}
              </Head>
            ))}
          </Box>
          {shownColumns.map((index) => (
            <Head key={columns[index]!.id} column={columns[index]!} left={NUMBER + lefts[index]!} index={index} onResize={onResize}>
              {head(columns[index]!, index)}
            </Head>
          ))}
        </Flex>
        {rows.map(({ index, start }) => {
          const row = rowAt(index);
          const isInArea = index >= area.top && index <= area.bottom;
          return (
            <Row
              key={index}
              row={row}
              index={index}
              number={numberAt(index)}
              top={HEAD + start}
              height={rowHeight}
              groupWidth={width - 20}
              columns={columns}
              lefts={lefts}
              frozen={frozen}
              shown={shownColumns}
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

interface RowProps {
  row: RegisterRow | GroupRow | undefined;
  index: number;
  number: number | undefined;
  top: number;
  height: number;
  groupWidth: number;
  columns: readonly GridColumn[];
  lefts: readonly number[];
  frozen: number;
  shown: readonly number[];
  /** The column of the cell that one is at, and those that are chosen; below nothing where none is in this row. */
  at: number;
  chosenFrom: number;
  chosenTo: number;
  editor: ReactNode;
  cell: Props['cell'];
}

/** A row in plain elements, drawn anew only where something of it changed: hundreds of cells go by while one scrolls. */
const Row = memo(function Row({
  row,
  index,
  number,
  top,
  height,
  groupWidth,
  columns,
  lefts,
  frozen,
  shown,
  at,
  chosenFrom,
  chosenTo,
  editor,
  cell,
}: RowProps) {
  const style = { top, height, width: NUMBER + lefts.at(-1)! };
  if (row && 'group' in row)
    return (
      <div role="row" aria-rowindex={index + 2} className="row is-group" style={style}>
        <div role="gridcell" className="group" style={{ width: row.tallies.size > 0 ? undefined : groupWidth, lineHeight: `${height}px` }}>
          {row.group || 'not said'} <span>{row.count}</span>
        </div>
        <Tallies of={row.tallies} columns={columns} lefts={lefts} height={height} />
      </div>
    );
  const draw = (column: number) => {
    const one = columns[column]!;
    const isAt = at === column;
    const isChosen = column >= chosenFrom && column <= chosenTo;
    return (
      <div
        key={one.id}
        id={`cell-${index}-${column}`}
        role="gridcell"
        aria-colindex={column + 1}
        aria-selected={isChosen}
        aria-readonly={one.field === null || undefined}
        data-row={index}
        data-column={column}
        {...(one.field?.startsWith('links:') && { [TAKES]: '' })}
        className={isAt ? 'cell is-at' : isChosen ? 'cell is-chosen' : 'cell'}
        style={{ left: NUMBER + lefts[column]!, width: one.width }}
      >
        {isAt && editor ? editor : cell(row as RegisterRow, one, column)}
      </div>
    );
  };
  return (
    <div role="row" aria-rowindex={index + 2} data-name={row?.item.reference} className="row" style={style}>
      <div className="held" style={{ width: NUMBER + lefts[frozen]! }}>
        <div role="rowheader" className="number" style={{ lineHeight: `${height}px` }}>
          {number}
        </div>
        {row && columns.slice(0, frozen).map((_, column) => draw(column))}
      </div>
      {row && shown.map(draw)}
    </div>
  );
});

/** What columns say of many rows, each below its column. */
function Tallies({
  of,
  columns,
  lefts,
  height,
}: {
  of: ReadonlyMap<string, string>;
  columns: readonly GridColumn[];
  lefts: readonly number[];
  height: number;
}) {
  return columns.map(({ id, width, name }, at) => {
    const says = of.get(id);
    return says === undefined ? null : (
      <div key={id} role="gridcell" className="tally" title={`${name}: ${says}`} style={{ left: NUMBER + lefts[at]!, width, lineHeight: `${height}px` }}>
        {says}
      </div>
    );
  });
}

const styles = {
  '& .cell[data-drop]': { outline: '2px dashed', outlineColor: 'moss.solid', outlineOffset: '-2px' },
  '& .tally': {
    ...{ position: 'absolute', top: '0', height: '100%', padding: '0 8px', fontSize: '12.5px', color: 'fg', fontVariantNumeric: 'tabular-nums' },
    ...{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', textAlign: 'right' },
  },
  '& .foot': { position: 'sticky', bottom: '0', zIndex: '3', background: 'bg.subtle', borderTopWidth: '1px' },
  '& .foot .all': { position: 'sticky', left: '0', padding: '0 12px', fontSize: '12.5px', color: 'fg.muted', width: 'fit-content' },
  '& .row': { position: 'absolute', left: '0', borderBottomWidth: '1px', background: 'bg.panel' },
  '& .row.is-group': { background: 'bg.muted' },
  '& .group': { position: 'sticky', left: '0', padding: '0 12px', fontWeight: '600', fontSize: '13.5px' },
  '& .group span': { color: 'fg.muted', fontWeight: '400' },
  '& .held': { position: 'sticky', left: '0', zIndex: '2', background: 'bg.panel', height: '100%' },
  '& .number': {
    ...{ position: 'absolute', height: '100%', width: `${NUMBER}px`, paddingRight: '8px', textAlign: 'right' },
    ...{ background: 'bg.subtle', color: 'fg.muted', fontSize: '12px', borderRightWidth: '1px' },
  },
  '& .cell': {
    ...{ position: 'absolute', top: '0', height: '100%', padding: '0 8px', display: 'flex', alignItems: 'center' },
    ...{ borderRightWidth: '1px', borderColor: 'border', fontSize: '13.5px' },
  },
  '& .cell.is-chosen': { background: 'moss.subtle' },
  '& .cell.is-at': { outline: '2px solid', outlineColor: 'moss.solid', outlineOffset: '-2px', zIndex: '1' },
  '& .cell .t': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: '0', maxWidth: '100%' },
  '& .cell .title': { fontFamily: 'serif', fontSize: '14.5px' },
  '& .cell .title.is-head': { fontWeight: '600' },
  '& .cell .reference': { fontFamily: 'mono', fontSize: '12.5px', color: 'moss.fg' },
  '& .cell .reference:hover': { textDecoration: 'underline' },
  '& .cell .figure': { width: '100%', textAlign: 'right', fontVariantNumeric: 'tabular-nums' },
  '& .cell .state': {
    width: '14px',
    height: '14px',
    borderRadius: '3px',
    color: 'bg.panel',
    display: 'grid',
    placeItems: 'center',
    flexShrink: '0',
    marginRight: '6px',
  },
  '& .cell .refused': {
    ...{ position: 'absolute', inset: '0', padding: '0 8px', display: 'flex', alignItems: 'center' },
    ...{ background: 'brick.subtle', color: 'brick.fg' },
  },
  '& .cell .is-faint': { opacity: '0.35', display: 'flex', alignItems: 'center', minWidth: '0', width: '100%' },
} as const;

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
