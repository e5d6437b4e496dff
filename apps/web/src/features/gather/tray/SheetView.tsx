import { Box, Flex } from '@chakra-ui/react';
import type { Meaning, ProposedField, RecipeOutcome, Scheme, SheetRecipe, SourceSheet } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { MeaningChoice } from '../recipe-forms/MeaningChoice';
import { OneLine } from '../../../shared/ui/one-line';

interface Props {
  scheme: Scheme;
  recipe: SheetRecipe;
  sheet: SourceSheet;
  outcome: RecipeOutcome;
  /** Cell or row that somebody asked to see; from 0. */
  shown: { row: number; column?: number } | undefined;
  proposeAt: (column: number) => ProposedField;
  onMeaning: (column: number, meaning: Meaning) => void;
}

const MARGIN = 124;
const ROW = 27;

/** The rows of a sheet below their column names: what each column means above it, what each row becomes beside it. */
export function SheetView({ scheme, recipe, sheet, outcome, shown, proposeAt, onMeaning }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const head = useRef<HTMLDivElement>(null);
  const [headHeight, setHeadHeight] = useState(0);
  useLayoutEffect(() => setHeadHeight(head.current?.offsetHeight ?? 0), []);
  const first = recipe.headerRow + 1;
  const marks = useMemo(() => {
    const found = new Map<number, string>();
    for (const { place, reference, role } of outcome.drafts)
      if (place.row !== undefined) found.set(place.row, role === 'section' ? 'section' : (reference ?? 'next free'));
    return found;
  }, [outcome]);
  const widths = useMemo(() => recipe.columns.map((_, column) => findWidth(sheet, first, column)), [recipe.columns, sheet, first]);
  const width = MARGIN + widths.reduce((sum, one) => sum + one, 0);
  const rows = useVirtualizer({
    count: Math.max(0, sheet.rows.length - first),
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 10,
    scrollMargin: headHeight,
    scrollPaddingStart: headHeight,
  });
  useEffect(() => {
    if (shown && shown.row >= first) rows.scrollToIndex(shown.row - first, { align: 'center' });
  }, [shown, first, rows]);
  return (
    <Box ref={frame} h="100%" overflow="auto" tabIndex={0} role="table" aria-label="Rows of the sheet" aria-rowcount={sheet.rows.length} fontSize="12.5px">
      <Flex ref={head} position="sticky" top="0" zIndex="1" bg="bg.panel" borderBottomWidth="1px" style={{ width }} role="row">
        <Box flexShrink={0} w={`${MARGIN}px`} />
        {recipe.columns.map((column, at) => (
          <Box key={at} role="columnheader" flexShrink={0} px="2" py="1.5" borderLeftWidth="1px" borderColor="border.muted" style={{ width: widths[at] }}>
            <OneLine fontWeight="600" mb="1" text={column.name || '–'} />
            <MeaningChoice
              scheme={scheme}
              kind={recipe.kind}
              name={column.name || `column ${at + 1}`}
              meaning={column.meaning}
              proposed={() => proposeAt(at)}
              onChange={(meaning) => onMeaning(at, meaning)}
            />
          </Box>
        ))}
      </Flex>
      <Box position="relative" style={{ height: rows.getTotalSize(), width }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const row = first + index;
          const mark = marks.get(row);
          return (
            <Flex
              key={row}
              role="row"
              position="absolute"
              h={`${ROW}px`}
              align="center"
              borderBottomWidth="1px"
              borderColor="border.muted"
              aria-current={shown?.row === row || undefined}
              bg={shown?.row === row ? 'moss.subtle' : undefined}
              style={{ transform: `translateY(${start - headHeight}px)`, width }}
            >
              <Flex flexShrink={0} w={`${MARGIN}px`} px="2" gap="2" fontFamily="mono" fontSize="11.5px">
                <Box color="fg.muted" w="38px" textAlign="right" flexShrink={0}>
                  {row + 1}
                </Box>
                <OneLine color={mark === undefined ? 'fg.subtle' : 'moss.fg'} text={mark ?? '–'} />
              </Flex>
              {mark === 'section' && (
                <OneLine
                  role="cell"
                  px="2"
                  fontWeight="600"
                  borderLeftWidth="1px"
                  borderColor="border.muted"
                  text={sheet.rows[row]!.filter((cell) => cell.trim()).join(' · ')}
                />
              )}
              {mark !== 'section' &&
                recipe.columns.map((column, at) => (
                  <OneLine
                    key={at}
                    role="cell"
                    flexShrink={0}
                    px="2"
                    borderLeftWidth="1px"
                    borderColor="border.muted"
                    color={column.meaning.as === 'ignore' ? 'fg.subtle' : undefined}
                    bg={shown?.row === row && shown.column === at ? 'moss.muted' : undefined}
                    style={{ width: widths[at] }}
                    text={sheet.rows[row]![at] ?? ''}
                  />
                ))}
            </Flex>
          );
        })}
      </Box>
    </Box>
  );
}

const NARROWEST = 186;
const WIDEST = 380;
const CHARACTER = 6.4;
const ROWS_LOOKED_AT = 60;

/** Width that most of the first cells of a column fit into, in pixels. */
function findWidth(sheet: SourceSheet, first: number, column: number): number {
  const lengths = sheet.rows
    .slice(first, first + ROWS_LOOKED_AT)
    .map((row) => row[column]?.length ?? 0)
    .sort((a, b) => a - b);
  return Math.round(Math.max(NARROWEST, Math.min(WIDEST, (lengths[Math.floor(lengths.length * 0.9)] ?? 0) * CHARACTER + 18)));
}

/** Place that a remark names, such as `Requirements!C12` or `Requirements, row 12`; from 0. */
export function findCell(at: string): { row: number; column?: number } | undefined {
  const cell = /!([A-Z]{1,3})(\d+)$/.exec(at);
  if (cell) return { row: Number(cell[2]) - 1, column: [...cell[1]!].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1 };
  const row = /(?:row |line )(\d+)$/.exec(at);
  return row ? { row: Number(row[1]) - 1 } : undefined;
}
