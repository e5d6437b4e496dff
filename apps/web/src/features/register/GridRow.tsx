import type { RegisterRow } from '@coomb/contract';
import { memo, type ReactNode } from 'react';
import { TAKES } from '../../shared/marks/drag-items';

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

/** Width of the numbers before the rows. */
export const NUMBER = 46;

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
  cell: (row: RegisterRow, column: GridColumn, index: number) => ReactNode;
}

/** A row in plain elements, drawn anew only where something of it changed: hundreds of cells go by while one scrolls. */
export const Row = memo(function Row({
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
  const style = { top, height, width: NUMBER + lefts.at(-1)!, lineHeight: `${height - 1}px` };
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
        {isAt && editor ? editor : row && cell(row, one, column)}
      </div>
    );
  };
  return (
    <div role="row" aria-rowindex={index + 2} data-name={row?.item.reference} className="row" style={style}>
      <div className="held" style={{ width: NUMBER + lefts[frozen]! }}>
        <div role="rowheader" className="number" style={{ lineHeight: `${height}px` }}>
          {number}
        </div>
        {columns.slice(0, frozen).map((_, column) => draw(column))}
      </div>
      {shown.map(draw)}
    </div>
  );
});

/** What columns say of many rows, each below its column. */
export function Tallies({
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

export const gridStyles = {
  '& .menu': {
    flexShrink: '0',
    width: '16px',
    height: '20px',
    display: 'grid',
    placeItems: 'center',
    borderRadius: '3px',
    color: 'fg.muted',
    cursor: 'pointer',
  },
  '& .menu:hover': { background: 'bg.emphasized', color: 'fg' },
  '& .cell[data-drop]': { outline: '2px dashed', outlineColor: 'moss.solid', outlineOffset: '-2px' },
  '& .tally': {
    ...{ position: 'absolute', top: '0', height: '100%', padding: '0 8px', fontSize: '12.5px', color: 'fg', fontVariantNumeric: 'tabular-nums' },
    ...{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', textAlign: 'right' },
  },
  '& .foot': { position: 'sticky', bottom: '0', zIndex: '3', background: 'bg.subtle', borderTopWidth: '1px' },
  '& .foot .all': { position: 'sticky', left: '0', padding: '0 12px', fontSize: '12.5px', color: 'fg.muted', width: 'fit-content' },
  // What stands in a row or cell moves nothing outside of it.
  '& .row': { position: 'absolute', left: '0', borderBottomWidth: '1px', background: 'bg.panel', contain: 'layout size style' },
  '& .row.is-group': { background: 'bg.muted' },
  '& .group': { position: 'sticky', left: '0', padding: '0 12px', fontWeight: '600', fontSize: '13.5px' },
  '& .group span': { color: 'fg.muted', fontWeight: '400' },
  '& .held': { position: 'sticky', left: '0', zIndex: '2', background: 'bg.panel', height: '100%' },
  '& .number': {
    ...{ position: 'absolute', height: '100%', width: `${NUMBER}px`, paddingRight: '8px', textAlign: 'right' },
    ...{ background: 'bg.subtle', color: 'fg.muted', fontSize: '12px', borderRightWidth: '1px' },
  },
  '& .cell': {
    ...{ position: 'absolute', top: '0', height: '100%', padding: '0 8px' },
    ...{ borderRightWidth: '1px', borderColor: 'border', fontSize: '13.5px', contain: 'layout size style' },
  },
  '& .cell.is-chosen': { background: 'moss.subtle' },
  '& .cell.is-at': { outline: '2px solid', outlineColor: 'moss.solid', outlineOffset: '-2px', zIndex: '1' },
  // Lines in blocks, not in flexible boxes: half as dear to lay out.
  '& .cell .t': { display: 'block', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: '0', maxWidth: '100%' },
  '& .cell .title': { fontFamily: 'serif', fontSize: '14.5px' },
  '& .cell .title.is-head': { fontWeight: '600' },
  '& .cell .reference': { fontFamily: 'mono', fontSize: '12.5px', color: 'moss.fg' },
  '& .cell .reference:hover': { textDecoration: 'underline' },
  '& .cell .figure': { display: 'block', textAlign: 'right', fontVariantNumeric: 'tabular-nums' },
  '& .cell .state': {
    width: '14px',
    height: '14px',
    borderRadius: '3px',
    color: 'bg.panel',
    display: 'grid',
    placeItems: 'center',
    float: 'left',
    margin: '6px 6px 0 0',
  },
  '& .cell .refused': {
    ...{ position: 'absolute', inset: '0', padding: '0 8px', display: 'flex', alignItems: 'center' },
    ...{ background: 'brick.subtle', color: 'brick.fg' },
  },
  '& .cell .is-faint': { opacity: '0.35' },
} as const;
