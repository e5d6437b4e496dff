import { Box, Flex } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { sayWay, type WayStep } from '@coomb/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { openCanvas, readColours } from '../../shared/ui/canvas';
import { useColourMode } from '../../shared/ui/colour-mode';
import { heldItem, useAtHand } from '../../shared/marks/at-hand';
import { notify, notifyError } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { useItemAddress } from '../../shared/ui/reference';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useRoom } from '../../shared/ui/use-room';
import { useSize } from '../../shared/ui/use-size';
import { ChangeLinksDialog } from '../linking/ChangeLinksDialog';
import { KindChoice } from '../linking/KindChoice';
import { CellCard } from './CellCard';
import { ChosenBar } from './ChosenBar';
import { HeadFind } from './HeadFind';
import { ColumnHeads, lineId, RowHeads } from './MatrixHeads';
import { useStable } from '../../shared/ui/use-stable';
import { useLinkCoats } from '../../shared/colour-key/fills';
import { foldSide } from './use-fold';
import { holdsAt, isItemLine, type MatrixSide, type MatrixSides } from './matrix-sides';
import { type CellLook, cellSize, type MatrixLook, paintMatrix } from './paint-matrix';
import type { Glyph } from './glyphs';
import { cellWords } from './save-matrix';
import { useCellLinks } from './use-cell-links';
import { useScrollPlace } from './scroll-place';
import { type CellAt, useMatrixCursor } from './use-matrix-cursor';

/** Width of the row heads and height of the column heads, in pixels; less where the window leaves little room. */
const HEAD = { wide: 300, narrow: 150 };
const TOP = { high: 158, low: 62 };
/** How long the pointer rests on a cell before what stands in it is told, in milliseconds. */
const REST = 300;

interface Props {
  outline: OutlineReply;
  sides: MatrixSides;
  marks: readonly { way: WayStep[] }[];
  /** Every kind of link is marked, and may be made. */
  isEvery: boolean;
  glyphs: readonly Glyph[];
  /** What marks say, by their places; their ways in words, where nothing else is said. */
  words?: readonly string[] | undefined;
  folded: ReadonlySet<string>;
  onFold: (ids: readonly string[]) => void;
  onSwap: () => void;
}

/** The matrix: headers as buttons, cells on a canvas, moved through as a spreadsheet. */
export function Matrix({ outline, sides, marks, isEvery, glyphs, words, folded, onFold, onSwap }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const mode = useColourMode();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = useSize(frame);
  const place = useScrollPlace();
  const paint = useRef<() => void>(() => {});
  const [focused, setFocused] = useState(false);
  const [changing, setChanging] = useState<readonly string[]>();
  const [wish, setWish] = useState<'join' | 'remove'>();
  const [wanted, setWanted] = useState<{ side: 'row' | 'column'; line: number }>();
  const { hovered, hover } = useRest();
  const dragFrom = useRef<CellAt>(undefined);

  const rows = useMemo(() => foldSide(outline, sides.row, folded), [outline, sides.row, folded]);
  const columns = useMemo(() => foldSide(outline, sides.column, folded), [outline, sides.column, folded]);
  const cells = useMemo(() => sides.cells.fold(rows, columns), [rows, columns, sides.cells]);
  const ways = useMemo(() => marks.map(({ way }) => way), [marks]);
  const links = useCellLinks({ outline, sides, rows, columns, marks: isEvery ? [] : ways });
  const { at, anchor, range, count, moveTo, choose } = useMatrixCursor(frame, { width, height }, [rows, columns], () => ({
    row: firstItem(outline, sides.row),
    column: firstItem(outline, sides.column),
  }));
  const foldOne = useStable((id: string) => onFold([id]));
  const openOne = useStable((reference: string) => void navigate(itemAddress(reference)));
  const totals = useMemo(() => ({ row: (line: number) => cells.rowTotal(line), column: (line: number) => cells.columnTotal(line) }), [cells]);
  const heads = { outline, folded, onFold: foldOne, onOpen: openOne };
  const rowItem = (line: number) => sides.row.rows[rows.lines[line]!]!;
  const columnItem = (line: number) => sides.column.rows[columns.lines[line]!]!;
  const isHeading = (side: 'row' | 'column', line: number) =>
    side === 'row' ? !isItemLine(outline, sides.row, rows.lines[line]!) : !isItemLine(outline, sides.column, columns.lines[line]!);
  useAtHand(rows.lines.length > 0 && !isHeading('row', at.row) ? [heldItem(outline, rowItem(at.row))] : []);
  const coats = useLinkCoats();
  const coatAt = (row: number, column: number) => {
    const [a, b] = [outline.node[sides.row.rows[rows.lines[row]!]!], outline.node[sides.column.rows[columns.lines[column]!]!]];
    return a === undefined || b === undefined ? undefined : (coats?.(a, b) ?? coats?.(b, a));
  };
  const hasUses = sides.row.uses.size + sides.column.uses.size > 0;
  /** What a cell holds where lines are uses: there, there as everywhere, or in other uses of an end only. */
  const markOf = (row: number, column: number): CellLook | undefined => {
    const [rowLine, columnLine] = [rows.lines[row]!, columns.lines[column]!];
    const found = { here: none(), everywhere: none(), elsewhere: none() };
    for (const entry of sides.entriesAt(rowLine, columnLine)) {
      const ends = [holdsAt(sides.row, rowLine, sides.rowUse(entry)), holdsAt(sides.column, columnLine, sides.columnUse(entry))];
      const mark = ends.includes('elsewhere') ? 'elsewhere' : ends.includes('everywhere') ? 'everywhere' : 'here';
      found[mark].count++;
      found[mark].marks |= 1 << sides.cells.entries.mark[entry]!;
      found[mark].suspect ||= sides.cells.entries.suspect[entry] === 1;
    }
    const mark = found.here.count > 0 ? 'here' : found.everywhere.count > 0 ? 'everywhere' : found.elsewhere.count > 0 ? 'elsewhere' : undefined;
    return mark && { mark, ...found[mark] };
  };

  const room = useRoom();
  const head = room.narrow ? HEAD.narrow : HEAD.wide;
  useRestingFocus(canvas);
  useEffect(() => {
    if (!canvas.current || width === 0) return;
    void mode;
    const look: MatrixLook = {
      colour: readColours(canvas.current),
      ...{ rows, columns, cells, glyphs, cursor: at, anchor, focused },
      isHeading: (side, line) => (side === 'row' ? rows : columns).size[line] === 1 && isHeading(side, line),
      isRowGap: (line) => sides.row.linked[rows.lines[line]!] === 0 && rows.size[line] === 1,
      isColumnGap: (line) => sides.column.linked[columns.lines[line]!] === 0 && columns.size[line] === 1,
      markOf: hasUses ? markOf : undefined,
      coatAt: coats && coatAt,
    };
    // The frame may be another than the one that was scrolled: it comes anew after nothing was to be shown.
    const box = frame.current;
    if (box && (box.scrollLeft !== place.left || box.scrollTop !== place.top)) place.moveTo(box.scrollLeft, box.scrollTop);
    paint.current = () => canvas.current && paintMatrix(openCanvas(canvas.current, width, height), { left: place.left, top: place.top, width, height }, look);
    paint.current();
  });

  // A line that was looked for is unfolded first, and stood on once it is there.
  useEffect(() => {
    if (!wanted) return;
    const [side, axis] = wanted.side === 'row' ? [sides.row, rows] : [sides.column, columns];
    const line = axis.lineOf[wanted.line];
    const hiding = line === undefined || axis.lines[line] === wanted.line ? [] : foldedAbove(outline, side, wanted.line, folded);
    if (hiding.length > 0) return onFold(hiding);
    setWanted(undefined);
    if (line !== undefined) moveTo({ ...at, [wanted.side]: line });
  });

  const jump = (rowStep: number, columnStep: number, extend: boolean) => {
    for (
      let row = at.row + rowStep, column = at.column + columnStep;
      row >= 0 && column >= 0 && row < rows.lines.length && column < columns.lines.length;
      row += rowStep, column += columnStep
    )
      if (cells.at(row, column) || (hasUses && markOf(row, column))) return moveTo({ row, column }, extend);
  };
  const nextGap = () => {
    for (let step = 1; step <= rows.lines.length; step++) {
      const row = (at.row + step) % rows.lines.length;
      if (!isHeading('row', row) && sides.row.linked[rows.lines[row]!] === 0) return moveTo({ row, column: at.column });
    }
    notify('No row has a gap.');
  };
  const changeCell = () =>
    links.linksOf([{ row: rows.lines[at.row]!, column: columns.lines[at.column]! }]).then(({ here, everywhere }) => {
      const found = [...here, ...everywhere].map(({ id }) => id);
      if (found.length > 0) setChanging(found);
      else notify('There is no link in this cell.', 'info');
    }, notifyError);
  const copy = () => {
    const text = cellWords({ outline, sides, rows, columns, cells, words: words ?? wordsOf(project.scheme, marks) }, range)
      .map((row) => row.join('\t'))
      .join('\n');
    navigator.clipboard
      .writeText(text)
      .then(() => notify(`Copied: ${range.bottom - range.top + 1} × ${range.right - range.left + 1} cells with their heads.`), notifyError);
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
    const held = event.ctrlKey || event.metaKey;
    if (move) held ? jump(...move, event.shiftKey) : moveTo({ row: at.row + move[0], column: at.column + move[1] }, event.shiftKey);
    else if (event.key === 'Enter' || event.key === ' ') count > 1 ? setWish('join') : links.toggle(at.row, at.column);
    else if (event.key === 'Delete') setWish('remove');
    else if (event.key === 'Escape' && count > 1) moveTo(at);
    else if (event.key === 'Home') moveTo({ row: held ? 0 : at.row, column: 0 }, event.shiftKey);
    else if (event.key === 'End') moveTo({ row: held ? rows.lines.length - 1 : at.row, column: columns.lines.length - 1 }, event.shiftKey);
    else if (held && event.key === 'a') choose({ row: 0, column: 0 }, { row: rows.lines.length - 1, column: columns.lines.length - 1 });
    else if (held && event.key === 'c') copy();
    else if (held) return;
    else if (event.key === 'o' && rowItem(at.row) >= 0) void navigate(itemAddress(outline.reference[rowItem(at.row)]!));
    else if (event.key === 'g') nextGap();
    else if (event.key === 'x') onSwap();
    else if (event.key === 'e') void changeCell();
    else return;
    event.preventDefault();
  };
  const pick = (event: React.MouseEvent): CellAt => {
    const box = canvas.current!.getBoundingClientRect();
    return { row: Math.floor((event.clientY - box.top + place.top) / cellSize), column: Math.floor((event.clientX - box.left + place.left) / cellSize) };
  };
  if (rows.lines.length === 0 || columns.lines.length === 0)
    return (
      <Box p="8" color="fg.muted">
        Nothing to show: one side is empty under these filters.
      </Box>
    );
  const nameOf = (side: MatrixSide, line: number) => (side.rows[line]! < 0 ? side.groups.get(line)! : outline.reference[side.rows[line]!]!);
  const titleOf = (side: MatrixSide, line: number) => {
    const use = side.uses.get(line);
    return side.rows[line]! < 0 ? '' : use ? `${outline.title[side.rows[line]!]} in ${use.says}` : outline.title[side.rows[line]!]!;
  };
  const status = `${nameOf(sides.row, rows.lines[at.row]!)} × ${nameOf(sides.column, columns.lines[at.column]!)}: ${sayCell()}`;
  function sayCell(): string {
    const cell = hasUses && rows.size[at.row] === 1 && columns.size[at.column] === 1 ? markOf(at.row, at.column) : undefined;
    const own = cells.at(at.row, at.column);
    const marked = cell?.marks ?? own?.marks ?? 0;
    if (marked === 0) return 'no link';
    if (rows.size[at.row]! > 1 || columns.size[at.column]! > 1) return String(own!.count);
    const more = cell?.mark === 'everywhere' ? ', as everywhere' : cell?.mark === 'elsewhere' ? ', in other uses only' : '';
    const suspect = (cell?.suspect ?? own!.suspect > 0) ? ' (suspect)' : '';
    return `${(words ?? wordsOf(project.scheme, marks)).filter((_, mark) => marked & (1 << mark)).join('; ')}${suspect}${more}`;
  }
  const told = hovered && isSingle(hovered) ? hovered : undefined;
  function isSingle({ row, column }: CellAt): boolean {
    return rows.size[row] === 1 && columns.size[column] === 1 && !isHeading('row', row) && !isHeading('column', column);
  }
  return (
    <Flex direction="column" h="100%" borderTopWidth="1px" bg="bg.panel">
      <Flex flexShrink={0} h={`${room.low ? TOP.low : TOP.high}px`}>
        <Flex w={`${head}px`} flexShrink={0} direction="column" px="3" py="1" fontSize="12.5px" color="fg.muted" borderRightWidth="1px">
          <Flex gap="1" mt="0.5">
            <HeadFind label="Find a row" outline={outline} side={sides.row} from={rows.lines[at.row]!} onFind={(line) => setWanted({ side: 'row', line })} />
            <HeadFind
              label="Find a column"
              outline={outline}
              side={sides.column}
              from={columns.lines[at.column]!}
              onFind={(line) => setWanted({ side: 'column', line })}
            />
          </Flex>
          <Box flex="1" />
          <Box color="fg" fontWeight="600" aria-live="polite" lineClamp={room.low ? 1 : 3} title={status}>
            {status}
          </Box>
          {!room.low && (
            <>
              <OneLine text={titleOf(sides.row, rows.lines[at.row]!)} />
              <OneLine text={`× ${titleOf(sides.column, columns.lines[at.column]!)}`} />
            </>
          )}
        </Flex>
        <ColumnHeads {...heads} side={sides.column} axis={columns} totalOf={totals.column} place={place} width={width} active={at.column} />
      </Flex>
      <Flex flex="1" minH="0">
        <RowHeads {...heads} width={head} side={sides.row} axis={rows} totalOf={totals.row} place={place} height={height} active={at.row} />
        <Box
          ref={frame}
          flex="1"
          minW="0"
          overflow="auto"
          position="relative"
          borderTopWidth="1px"
          onScroll={({ currentTarget }) => {
            place.moveTo(currentTarget.scrollLeft, currentTarget.scrollTop);
            paint.current();
            hover(undefined);
          }}
        >
          <Box style={{ width: columns.lines.length * cellSize, height: rows.lines.length * cellSize }}>
            <Box position="sticky" left="0" top="0" style={{ width, height }}>
              <canvas
                ref={canvas}
                tabIndex={0}
                role="grid"
                aria-label="Cells of the trace matrix. Arrow keys move, Shift chooses several, Enter links or unlinks."
                aria-rowcount={rows.lines.length}
                aria-colcount={columns.lines.length}
                aria-multiselectable
                aria-activedescendant="matrix-cell"
                style={{ width, height, display: 'block', outline: 'none' }}
                onFocus={() => setFocused(true)}
                onBlur={() => setFocused(false)}
                onKeyDown={press}
                onMouseDown={(event) => {
                  if (event.button !== 0) return;
                  dragFrom.current = event.shiftKey ? anchor : pick(event);
                  choose(dragFrom.current, pick(event));
                }}
                onMouseMove={(event) => {
                  if (dragFrom.current && event.buttons === 1) choose(dragFrom.current, pick(event));
                  else hover(pick(event));
                }}
                onMouseUp={() => {
                  dragFrom.current = undefined;
                }}
                onMouseLeave={() => hover(undefined)}
                onDoubleClick={(event) => links.toggle(pick(event).row, pick(event).column)}
              >
                {/* What a canvas holds is what screen readers are told of it: the cell that one stands on. */}
                <div role="row" aria-rowindex={at.row + 1}>
                  <div role="gridcell" id="matrix-cell" aria-colindex={at.column + 1} aria-selected>
                    {status}
                  </div>
                </div>
              </canvas>
              {told && told.row < rows.lines.length && told.column < columns.lines.length && cells.at(told.row, told.column) && (
                <CellCard
                  outline={outline}
                  row={rowItem(told.row)}
                  column={columnItem(told.column)}
                  marks={ways}
                  left={told.column * cellSize - place.left + cellSize + 6}
                  top={Math.max(0, Math.min((told.row + 1) * cellSize - place.top + 4, height - 90))}
                  within={width}
                />
              )}
              {(count > 1 || wish !== undefined) && (
                <Box
                  position="absolute"
                  bottom="3"
                  left="3"
                  bg="bg.panel"
                  borderWidth="1px"
                  borderRadius="l2"
                  boxShadow="md"
                  px="3"
                  py="1.5"
                  maxW="calc(100% - 24px)"
                >
                  <ChosenBar
                    {...{ outline, sides, cells, range, wish }}
                    axes={[rows, columns]}
                    linksOf={links.linksOf}
                    onWish={setWish}
                    onDone={() => canvas.current?.focus()}
                  />
                </Box>
              )}
            </Box>
          </Box>
        </Box>
      </Flex>
      {changing && <ChangeLinksDialog project={project} links={changing} onClose={() => setChanging(undefined)} onDone={() => setChanging(undefined)} />}
      {links.asking && (
        <KindChoice
          left={outline.reference[rowItem(links.asking.row)]!}
          right={outline.reference[columnItem(links.asking.column)]!}
          allowed={links.asking.allowed}
          kinds={links.asking.kinds}
          onChoose={(allowed) => {
            links.create(links.asking!.row, links.asking!.column, allowed);
            canvas.current?.focus();
          }}
          onClose={links.stopAsking}
        />
      )}
    </Flex>
  );
}

const none = () => ({ count: 0, marks: 0, suspect: false });

const wordsOf = (scheme: ReturnType<typeof useProject>['scheme'], marks: readonly { way: WayStep[] }[]) => marks.map(({ way }) => sayWay(scheme, way));

function foldedAbove(outline: OutlineReply, side: MatrixSide, line: number, folded: ReadonlySet<string>): string[] {
  const found: string[] = [];
  for (let up = side.parent[line]!; up >= 0; up = side.parent[up]!) if (folded.has(lineId(outline, side, up))) found.push(lineId(outline, side, up));
  return found;
}

function firstItem(outline: OutlineReply, side: MatrixSide): number {
  return Math.max(
    0,
    [...side.rows.keys()].findIndex((line) => isItemLine(outline, side, line)),
  );
}

/** The cell on which the pointer rests. */
function useRest() {
  const [hovered, setHovered] = useState<CellAt>();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const last = useRef<CellAt>(undefined);
  const hover = (cell: CellAt | undefined) => {
    if (cell?.row === last.current?.row && cell?.column === last.current?.column) return;
    last.current = cell;
    clearTimeout(timer.current);
    if (hovered) setHovered(undefined);
    if (cell) timer.current = setTimeout(() => setHovered(cell), REST);
  };
  return { hovered, hover };
}
