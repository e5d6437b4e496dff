import { RichText } from '../../../shared/ui/rich-text';
import { Box, Button, Flex } from '@chakra-ui/react';
import { type DocumentRecipe, findLeadingWords, type RecipeOutcome, type Scheme, type SourceBlock, type SourceTable, type SourceWords } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { findColumnWidths } from '../../../shared/ui/column-widths';
import type { PickedPart } from '../recipe-forms/pick-part';
import { buildLeads, nameCells } from '../recipe-forms/recognised';
import { readShownText } from './shown-text';
import { useTrayPictures } from './tray-pictures';
import { OneLine } from '../../../shared/ui/one-line';

interface Props {
  blocks: SourceBlock[];
  outcome: RecipeOutcome;
  shown: { block: number; row?: number | undefined } | undefined;
  /** A click on a heading, a cell or a paragraph asks what it means. */
  onPick: (part: PickedPart) => void;
  /** Selected words are to lead to a value. */
  onPhrase: (words: string) => void;
  scheme: Scheme;
  recipe: DocumentRecipe;
}

interface Recognised {
  label: string;
  section: boolean;
  count: number;
}

/** The document as it reads, with what the recipe recognises marked in the margin. */
export function DocumentView({ blocks, outcome, shown, onPick, onPhrase, scheme, recipe }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [selected, setSelected] = useState<{ words: string; left: number; top: number }>();
  const recognised = useMemo(() => {
    const marks = new Map<string, Recognised>();
    for (const { place, reference, role } of outcome.drafts) {
      const key = `${place.block}:${place.row ?? ''}`;
      const count = (marks.get(key)?.count ?? 0) + 1;
      const own = reference ?? (role === 'section' ? 'section' : 'item');
      marks.set(key, { label: count > 1 ? `${count} items` : own, section: role === 'section', count });
    }
    return marks;
  }, [outcome]);
  const rows = useVirtualizer({
    count: blocks.length,
    getScrollElement: () => frame.current,
    estimateSize: (index) => (blocks[index]!.type === 'table' ? 40 * (blocks[index] as SourceTable).rows.length : 44),
    overscan: 6,
  });
  useEffect(() => {
    if (shown) rows.scrollToIndex(shown.block, { align: 'center' });
  }, [shown, rows]);
  const drawn = rows
    .getVirtualItems()
    .map((one) => one.index)
    .join();
  useEffect(() => {
    if (drawn && blocks.length) paintLeads(frame.current, recipe);
  }, [drawn, blocks, recipe]);
  const readSelection = () => {
    const selection = document.getSelection();
    const words = selection && !selection.isCollapsed ? findLeadingWords(selection.toString()) : '';
    const inner = frame.current?.firstElementChild?.getBoundingClientRect();
    if (!selection || !words || !inner) return setSelected(undefined);
    const box = selection.getRangeAt(0).getBoundingClientRect();
    setSelected({ words, left: Math.max(8, Math.min(box.left - inner.left, inner.width - 260)), top: box.bottom - inner.top + 4 });
  };
  return (
    <Box
      ref={frame}
      h="100%"
      overflow="auto"
      aria-label="The document as it reads"
      tabIndex={0}
      onMouseUp={() => setTimeout(readSelection, 0)}
      onKeyUp={readSelection}
    >
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {selected && (
          <Button
            position="absolute"
            zIndex="1"
            size="xs"
            maxW="250px"
            style={{ left: selected.left, top: selected.top }}
            onClick={(event) => {
              event.stopPropagation();
              onPhrase(selected.words);
              document.getSelection()?.removeAllRanges();
              setSelected(undefined);
            }}
          >
            <OneLine text={`Say what “${selected.words}” leads to`} />
          </Button>
        )}
        {rows.getVirtualItems().map(({ index, start, key }) => (
          <Box
            key={key}
            ref={rows.measureElement}
            data-index={index}
            position="absolute"
            w="100%"
            style={{ transform: `translateY(${start}px)` }}
            bg={shown?.block === index ? 'moss.subtle' : undefined}
            cursor="pointer"
            _hover={{ bg: 'bg.subtle' }}
            title="Say what this means"
            onClick={(event) => {
              if (document.getSelection()?.isCollapsed === false) return;
              const cell = (event.target as HTMLElement).closest('td');
              onPick({ block: blocks[index]!, ...(cell && { column: cell.cellIndex }) });
            }}
          >
            <Block
              block={blocks[index]!}
              index={index}
              recognised={recognised}
              row={shown?.block === index ? shown.row : undefined}
              nameCells={(table) => nameCells(scheme, recipe, table)}
            />
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** Characters that fit into the margin. */
const MARK_LENGTH = 9;
const sizes = ['22px', '18px', '16px', '15px'];

interface BlockProps {
  block: SourceBlock;
  index: number;
  recognised: Map<string, Recognised>;
  row: number | undefined;
  nameCells: (table: SourceTable) => Map<string, string>;
}

function Block({ block, index, recognised, row, nameCells }: BlockProps) {
  const mark = recognised.get(`${index}:`);
  if (block.type === 'table') {
    const names = nameCells(block);
    return (
      <Box px="4" py="2" pl="86px" position="relative">
        {mark && <Mark mark={mark} />}
        <Box
          as="table"
          w="100%"
          fontSize="12.5px"
          borderCollapse="collapse"
          tableLayout="fixed"
          overflowWrap="anywhere"
          className="rich"
          css={{ '& td': { paddingInline: '5px' } }}
        >
          <colgroup>
            {findColumnWidths(block.rows).map((width, at) => (
              <col key={at} style={{ width: `${width}%` }} />
            ))}
          </colgroup>
          <tbody>
            {block.rows.map((cells, at) => {
              const own = recognised.get(`${index}:${at}`);
              return (
                <Box as="tr" key={at} bg={row === at ? 'moss.muted' : at === 0 ? 'bg.subtle' : undefined}>
                  {cells.map((cell, column) => (
                    <td key={column} colSpan={cell.span}>
                      {column === 0 && own && (
                        <Box position="absolute" left="0">
                          <Mark mark={own} />
                        </Box>
                      )}
                      <Words words={cell} />
                      {names.has(`${at}:${column}`) && (
                        <Box fontSize="11px" color="moss.fg" fontFamily="body" fontWeight="400">
                          {names.get(`${at}:${column}`)}
                        </Box>
                      )}
                    </td>
                  ))}
                </Box>
              );
            })}
          </tbody>
        </Box>
      </Box>
    );
  }
  return (
    <Flex px="4" py={block.level ? '2' : '1'} pl="86px" position="relative">
      {mark && <Mark mark={mark} />}
      <Box
        className="rich"
        fontFamily="serif"
        fontSize={block.level ? sizes[Math.min(block.level, 4) - 1] : '14px'}
        fontWeight={block.level ? '600' : '400'}
        pl={block.list ? `${block.list.depth * 18}px` : undefined}
      >
        {(block.list || block.number) && (
          <Box as="span" mr="2" color={block.list ? undefined : 'fg.muted'}>
            {block.number ?? (block.list?.ordered ? '–' : '•')}
          </Box>
        )}
        <Words words={block} />
      </Box>
    </Flex>
  );
}

/** Text with tracked changes shown, its footnotes below and comments beside who made them. */
function Words({ words }: { words: SourceWords }) {
  const withPictures = useTrayPictures();
  return (
    <>
      <RichText as="span" data-words="" html={withPictures(words.tracked?.marked ?? words.html)} />
      {words.footnotes?.map(({ mark, html }) => (
        <Box key={mark} fontSize="12px" color="fg.muted" fontWeight="400">
          {mark} <RichText as="span" html={withPictures(html)} />
        </Box>
      ))}
      {words.comments?.map(({ by, text }, at) => (
        <Box key={at} fontFamily="body" fontSize="12px" fontWeight="400" color="heather.fg" borderLeftWidth="2px" borderColor="heather.solid" pl="2" my="1">
          {by && `${by}: `}
          {text}
        </Box>
      ))}
    </>
  );
}

/** Marks labels, phrases and what they lead to without touching the text, by the browser's own highlights. */
function paintLeads(root: HTMLElement | null, recipe: DocumentRecipe): void {
  if (!root || typeof CSS === 'undefined' || !('highlights' in CSS)) return;
  const find = buildLeads(recipe);
  const ranges = [...root.querySelectorAll<HTMLElement>('[data-words]')].flatMap((element) => {
    const { text, rangeOf } = readShownText(element, recipe.changes === 'rejected' ? 'ins' : 'del');
    return find(text).flatMap(({ start, end }) => rangeOf(start, end) ?? []);
  });
  CSS.highlights.set('coomb-phrase', new Highlight(...ranges));
}

function Mark({ mark }: { mark: Recognised }) {
  return (
    <Box
      position="absolute"
      left="6px"
      w="72px"
      fontFamily={mark.section ? 'body' : 'mono'}
      fontSize="11px"
      px="1.5"
      py="0.5"
      textAlign="right"
      truncate
      borderRightWidth="3px"
      borderColor={mark.section ? 'border.emphasized' : 'moss.solid'}
      color={mark.section ? 'fg.muted' : 'moss.fg'}
      title={mark.label}
    >
      {shorten(mark.label)}
    </Box>
  );
}

/** Long references differ at their end. */
function shorten(label: string): string {
  return label.length > MARK_LENGTH && !label.includes(' ') ? `…${label.slice(1 - MARK_LENGTH)}` : label;
}
