import { Box, Flex } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { type AllowedLink, buildCells, findAllowedLinks, foldAxis, phraseAt } from '@coomb/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { openCanvas, readColours } from '../../shared/ui/canvas';
import { useColourMode } from '../../shared/ui/colour-mode';
import { heldItem, useAtHand } from '../../shared/marks/at-hand';
import { notify } from '../../shared/ui/notices';
import { useItemAddress } from '../../shared/ui/reference';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useRoom } from '../../shared/ui/use-room';
import { useSize } from '../../shared/ui/use-size';
import { ChangeLinksDialog } from '../linking/ChangeLinksDialog';
import { KindChoice } from '../linking/KindChoice';
import { settledKind } from '../linking/remembered-kinds';
import { useMakeLink, useUnlink } from '../linking/queries';
import { ColumnHeads, RowHeads } from './MatrixHeads';
import { holdsAt, type MatrixLink, type MatrixSides } from './matrix-sides';
import { cellSize, paintMatrix } from './paint-matrix';
import { OneLine } from '../../shared/ui/one-line';

/** Width of the row heads and height of the column heads, in pixels; less where the window leaves little room. */
const HEAD = { wide: 300, narrow: 150 };
const TOP = { high: 158, low: 74 };

interface Props {
  outline: OutlineReply;
  sides: MatrixSides;
  /** Link kind to make, or -1 for whatever is allowed. */
  kind: number;
  folded: ReadonlySet<string>;
  onFold: (id: string) => void;
  onSwap: () => void;
}

/** The matrix: headers as buttons, cells on a canvas, moved through as a spreadsheet. */
export function Matrix({ outline, sides, kind, folded, onFold, onSwap }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const { scheme } = project;
  const make = useMakeLink(project.id);
  const unlink = useUnlink(project.id);
  const mode = useColourMode();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = useSize(frame);
  const [scroll, setScroll] = useState({ left: 0, top: 0 });
  const [cursor, setCursor] = useState(() => ({ row: firstItem(outline, sides.row), column: firstItem(outline, sides.column) }));
  const [focused, setFocused] = useState(false);
  const [changing, setChanging] = useState<readonly string[]>();
  const [asking, setAsking] = useState<{ row: number; column: number; allowed: AllowedLink[]; kinds: [string, string] }>();

  const rows = useMemo(() => foldSide(outline, sides.row, folded), [outline, sides.row, folded]);
  const columns = useMemo(() => foldSide(outline, sides.column, folded), [outline, sides.column, folded]);
  const cells = useMemo(() => buildCells(rows, columns, sides.links), [rows, columns, sides.links]);
  const at = { row: Math.max(0, Math.min(cursor.row, rows.lines.length - 1)), column: Math.max(0, Math.min(cursor.column, columns.lines.length - 1)) };
  const rowItem = (line: number) => sides.row.rows[rows.lines[line]!]!;
  const columnItem = (line: number) => sides.column.rows[columns.lines[line]!]!;
  const isHeading = (side: 'row' | 'column', line: number) => outline.heading[side === 'row' ? rowItem(line) : columnItem(line)] === 1;
  useAtHand(rows.lines.length > 0 && !isHeading('row', at.row) ? [heldItem(outline, rowItem(at.row))] : []);
  /** Links of a cell, by where they hold: here, here as everywhere, or in other uses of an end only. */
  const linksBy = (row: number, column: number) => {
    const found = { here: [] as MatrixLink[], everywhere: [] as MatrixLink[], elsewhere: [] as MatrixLink[] };
    for (const link of sides.byPair.get(`${rowItem(row)} ${columnItem(column)}`) ?? []) {
      const ends = [holdsAt(sides.row, rows.lines[row]!, link.rowUse), holdsAt(sides.column, columns.lines[column]!, link.columnUse)];
      found[ends.includes('elsewhere') ? 'elsewhere' : ends.includes('everywhere') ? 'everywhere' : 'here'].push(link);
    }
    return found;
  };

  const room = useRoom();
  const head = room.narrow ? HEAD.narrow : HEAD.wide;
  useRestingFocus(canvas);
  useEffect(() => {
    if (!canvas.current || width === 0) return;
    void mode;
    const view = { left: scroll.left, top: scroll.top, width, height };
    paintMatrix(openCanvas(canvas.current, width, height), view, {
      colour: readColours(canvas.current),
      rows,
      columns,
      cells,
      isRowGap: (line) => sides.row.linked[rows.lines[line]!] === 0 && rows.size[line] === 1,
      isColumnGap: (line) => sides.column.linked[columns.lines[line]!] === 0 && columns.size[line] === 1,
      isHeading,
      markOf: (row, column) => {
        const { here, everywhere, elsewhere } = linksBy(row, column);
        const shown = here.length > 0 ? here : everywhere;
        return {
          mark: here.length > 0 ? 'here' : everywhere.length > 0 ? 'everywhere' : elsewhere.length > 0 ? 'elsewhere' : undefined,
          count: shown.length,
          suspect: shown.some((link) => link.suspect),
        };
      },
      hasUses: sides.row.uses.size + sides.column.uses.size > 0,
      cursor: at,
      focused,
    });
  });

  const reveal = (next: { row: number; column: number }) => {
    const row = Math.max(0, Math.min(next.row, rows.lines.length - 1));
    const column = Math.max(0, Math.min(next.column, columns.lines.length - 1));
    setCursor({ row, column });
    const box = frame.current!;
    const top = row * cellSize < box.scrollTop ? row * cellSize : (row + 1) * cellSize > box.scrollTop + height ? (row + 1) * cellSize - height : box.scrollTop;
    const left =
      column * cellSize < box.scrollLeft
        ? column * cellSize
        : (column + 1) * cellSize > box.scrollLeft + width
          ? (column + 1) * cellSize - width
          : box.scrollLeft;
    box.scrollTo({ top, left });
  };
  const toggle = (row: number, column: number) => {
    const [a, b] = [rowItem(row), columnItem(column)];
    if (rows.size[row]! > 1 || columns.size[column]! > 1 || outline.heading[a] || outline.heading[b])
      return notify('Unfold to single items to link them.', 'info');
    const { here: present, everywhere } = linksBy(row, column);
    if (present.length > 0)
      return unlink.mutate(
        present.map((link) => link.id),
        { onSuccess: () => notify(`${outline.reference[a]} and ${outline.reference[b]} are no longer linked. Undo brings it back.`) },
      );
    if (everywhere.length > 0) return notify('This link holds in every use. Remove it in the line of the item itself.', 'info');
    const kindAt = (row: number) => scheme.kinds[outline.kind[row]!]!.id;
    const allowed = findAllowedLinks(scheme, kindAt(a), kindAt(b)).filter(({ linkKind }) => kind < 0 || scheme.linkKinds[kind]!.id === linkKind.id);
    if (allowed.length === 0)
      return notify(
        `No ${kind < 0 ? 'link kind' : `“${scheme.linkKinds[kind]!.phrase}” link`} joins ${outline.reference[a]} with ${outline.reference[b]}.`,
        'info',
      );
    const settled = settledKind(project.id, kindAt(a), kindAt(b), allowed);
    if (settled) create(row, column, settled);
    else setAsking({ row, column, allowed, kinds: [kindAt(a), kindAt(b)] });
  };
  const create = (row: number, column: number, { linkKind, reversed }: AllowedLink) => {
    setAsking(undefined);
    const [a, b] = [rowItem(row), columnItem(column)];
    const [from, to] = reversed ? [b, a] : [a, b];
    const [rowUse, columnUse] = [sides.row.uses.get(rows.lines[row]!), sides.column.uses.get(columns.lines[column]!)];
    const [fromUse, toUse] = reversed ? [columnUse, rowUse] : [rowUse, columnUse];
    const inUse = { ...(fromUse && { fromUsage: [...fromUse.path] }), ...(toUse && { toUsage: [...toUse.path] }) };
    const place = rowUse ?? columnUse;
    make.mutate([{ linkKind: linkKind.id, from: outline.id[from]!, to: outline.id[to]!, ...inUse }], {
      onSuccess: () =>
        notify(`${outline.reference[a]} ${phraseAt(linkKind, reversed ? 'to' : 'from')} ${outline.reference[b]}${place ? `, only as in ${place.says}` : ''}`),
    });
    canvas.current?.focus();
  };
  const isMarked = (row: number, column: number) => {
    const { here, everywhere } = linksBy(row, column);
    return here.length + everywhere.length > 0 || cells.counts.has(row * cells.columns + column);
  };
  const jump = (rowStep: number, columnStep: number) => {
    for (
      let row = at.row + rowStep, column = at.column + columnStep;
      row >= 0 && column >= 0 && row < rows.lines.length && column < columns.lines.length;
      row += rowStep, column += columnStep
    )
      if (isMarked(row, column)) return reveal({ row, column });
  };
  const nextGap = () => {
    for (let step = 1; step <= rows.lines.length; step++) {
      const row = (at.row + step) % rows.lines.length;
      if (!isHeading('row', row) && sides.row.linked[rows.lines[row]!] === 0) return reveal({ row, column: at.column });
    }
    notify('No row has a gap.');
  };
  const moves: Record<string, [number, number]> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
    PageDown: [Math.floor(height / cellSize), 0],
    PageUp: [-Math.floor(height / cellSize), 0],
  };
  const press = (event: React.KeyboardEvent) => {
    const move = moves[event.key];
    if (move) event.ctrlKey || event.metaKey ? jump(...move) : reveal({ row: at.row + move[0], column: at.column + move[1] });
    else if (event.key === 'Enter' || event.key === ' ') toggle(at.row, at.column);
    else if (event.key === 'Home') reveal({ row: at.row, column: 0 });
    else if (event.key === 'End') reveal({ row: at.row, column: columns.lines.length - 1 });
    else if (event.key === 'o') void navigate(itemAddress(outline.reference[rowItem(at.row)]!));
    else if (event.key === 'g') nextGap();
    else if (event.key === 'x') onSwap();
    else if (event.key === 'e') {
      const { here, everywhere } = linksBy(at.row, at.column);
      const found = [...here, ...everywhere].map(({ id }) => id);
      if (found.length > 0) setChanging(found);
      else notify('There is no link in this cell.', 'info');
    } else return;
    event.preventDefault();
  };
  const pick = (event: React.MouseEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return { row: Math.floor((event.clientY - box.top + scroll.top) / cellSize), column: Math.floor((event.clientX - box.left + scroll.left) / cellSize) };
  };
  if (rows.lines.length === 0 || columns.lines.length === 0)
    return (
      <Box p="8" color="fg.muted">
        Nothing to show: one side is empty under these filters.
      </Box>
    );
  const current = linksBy(at.row, at.column);
  const say = (links: readonly MatrixLink[], more: string) =>
    links.map((link) => scheme.linkKinds[link.kind]!.phrase + (link.suspect ? ' (suspect)' : '') + more);
  const told = [...say(current.here, ''), ...say(current.everywhere, ', as everywhere'), ...say(current.elsewhere, ', in other uses only')];
  const status = `${outline.reference[rowItem(at.row)]} × ${outline.reference[columnItem(at.column)]}: ${told.length ? told.join('; ') : (cells.counts.get(at.row * cells.columns + at.column) ?? 'no link')}`;
  const titleOf = (side: MatrixSides['row'], line: number, row: number) => {
    const use = side.uses.get(line);
    return use ? `${outline.title[row]} in ${use.says}` : outline.title[row]!;
  };
  return (
    <Flex direction="column" h="100%" borderTopWidth="1px" bg="bg.panel">
      <Flex flexShrink={0} h={`${room.low ? TOP.low : TOP.high}px`}>
        <Flex w={`${head}px`} flexShrink={0} direction="column" justify="flex-end" px="3" pb="1" fontSize="12.5px" color="fg.muted" borderRightWidth="1px">
          <Box color="fg" fontWeight="600" aria-live="polite">
            {status}
          </Box>
          {!room.low && (
            <>
              <OneLine text={titleOf(sides.row, rows.lines[at.row]!, rowItem(at.row))} />
              <OneLine text={`× ${titleOf(sides.column, columns.lines[at.column]!, columnItem(at.column))}`} />
            </>
          )}
        </Flex>
        <ColumnHeads
          outline={outline}
          side={sides.column}
          axis={columns}
          totals={cells.columnTotals}
          scroll={scroll.left}
          width={width}
          active={at.column}
          folded={folded}
          onFold={onFold}
          onOpen={(reference) => void navigate(itemAddress(reference))}
        />
      </Flex>
      <Flex flex="1" minH="0">
        <RowHeads
          width={head}
          outline={outline}
          side={sides.row}
          axis={rows}
          totals={cells.rowTotals}
          scroll={scroll.top}
          height={height}
          active={at.row}
          folded={folded}
          onFold={onFold}
          onOpen={(reference) => void navigate(itemAddress(reference))}
        />
        <Box
          ref={frame}
          flex="1"
          minW="0"
          overflow="auto"
          position="relative"
          borderTopWidth="1px"
          onScroll={(event) => setScroll({ left: event.currentTarget.scrollLeft, top: event.currentTarget.scrollTop })}
        >
          <Box style={{ width: columns.lines.length * cellSize, height: rows.lines.length * cellSize }}>
            <canvas
              ref={canvas}
              tabIndex={0}
              role="grid"
              aria-label="Cells of the trace matrix. Arrow keys move, Enter links or unlinks."
              style={{ position: 'sticky', left: 0, top: 0, width, height, display: 'block', outline: 'none' }}
              onFocus={() => setFocused(true)}
              onBlur={() => setFocused(false)}
              onKeyDown={press}
              onClick={(event) => setCursor(pick(event))}
              onDoubleClick={(event) => toggle(pick(event).row, pick(event).column)}
            />
          </Box>
        </Box>
      </Flex>
      {changing && <ChangeLinksDialog project={project} links={changing} onClose={() => setChanging(undefined)} onDone={() => setChanging(undefined)} />}
      {asking && (
        <KindChoice
          left={outline.reference[rowItem(asking.row)]!}
          right={outline.reference[columnItem(asking.column)]!}
          allowed={asking.allowed}
          kinds={asking.kinds}
          onChoose={(allowed) => create(asking.row, asking.column, allowed)}
          onClose={() => setAsking(undefined)}
        />
      )}
    </Flex>
  );
}

function foldSide(outline: OutlineReply, side: MatrixSides['row'], folded: ReadonlySet<string>) {
  return foldAxis(side, new Set([...side.rows.keys()].filter((index) => !side.uses.has(index) && folded.has(outline.id[side.rows[index]!]!))));
}

function firstItem(outline: OutlineReply, side: MatrixSides['row']): number {
  return Math.max(
    0,
    side.rows.findIndex((row) => !outline.heading[row]),
  );
}
