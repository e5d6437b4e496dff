import { RichText } from '../../shared/ui/rich-text';
import { Box, Flex } from '@chakra-ui/react';
import type { Passage, SourceBlock, SourceTable } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { findColumnWidths } from '../../shared/ui/column-widths';
import { Reference } from '../../shared/ui/reference';
import type { SourceReading } from './queries';
import { rangeOf } from './selection';
import { findPictures, findShownHtml } from './shown-html';

interface Props {
  blocks: SourceBlock[];
  reading: SourceReading;
  selected: readonly Passage[];
  /** Reference of the item whose place is shown. */
  at: string | undefined;
}

const sizes = ['22px', '18px', '16px', '15px'];

/** The text of a source; items stand in the margin at their places, clipped passages are marked in the text. */
export function SourceText({ blocks, reading, selected, at }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const marks = useMemo(() => {
    const found = new Map<string, string[]>();
    const add = (key: string, reference: string) => {
      const list = found.get(key) ?? [];
      if (!list.includes(reference)) found.set(key, [...list, reference]);
    };
    for (const { item, place } of reading.items) if (!item.heading) add(`${place.block}:${place.row ?? ''}`, item.reference);
    for (const { item, block } of reading.clippings) add(`${block}:`, item.reference);
    return found;
  }, [reading]);
  const place = reading.items.find(({ item }) => item.reference === at)?.place;
  const rows = useVirtualizer({
    count: blocks.length,
    getScrollElement: () => frame.current,
    estimateSize: (index) => (blocks[index]!.type === 'table' ? 40 * (blocks[index] as SourceTable).rows.length : 44),
    overscan: 8,
  });
  const target = selected.at(-1)?.block ?? place?.block ?? reading.clippings.find(({ item }) => item.reference === at)?.block;
  useEffect(() => {
    if (target !== undefined) rows.scrollToIndex(target, { align: 'auto' });
  }, [target, rows]);
  const shown = rows.getVirtualItems();
  const drawn = shown.map((one) => one.index).join();
  useEffect(() => {
    if (drawn) paintMarks(frame.current, reading.clippings, selected);
  }, [drawn, reading.clippings, selected]);
  return (
    <Box ref={frame} h="100%" overflow="auto" tabIndex={0} aria-label="The source as it reads">
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {shown.map(({ index, start, key }) => (
          <Box
            key={key}
            ref={rows.measureElement}
            data-index={index}
            position="absolute"
            w="100%"
            style={{ transform: `translateY(${start}px)` }}
            bg={place?.block === index && place.row === undefined ? 'moss.subtle' : undefined}
          >
            <Block block={blocks[index]!} index={index} marks={marks} row={place?.block === index ? place.row : undefined} />
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** Marks passages without touching the text, by the browser's own highlights. Browsers without them show the margin only. */
function paintMarks(root: HTMLElement | null, clippings: readonly Passage[], selected: readonly Passage[]): void {
  if (!root || typeof CSS === 'undefined' || !('highlights' in CSS)) return;
  const rangesOf = (passages: readonly Passage[]) =>
    passages.flatMap(({ block, start, end }) => {
      const element = root.querySelector<HTMLElement>(`[data-block="${block}"]`);
      const range = element && rangeOf(element, start, end);
      return range ? [range] : [];
    });
  CSS.highlights.set('coomb-clipped', new Highlight(...rangesOf(clippings)));
  CSS.highlights.set('coomb-selected', new Highlight(...rangesOf(selected)));
}

function Block({ block, index, marks, row }: { block: SourceBlock; index: number; marks: ReadonlyMap<string, string[]>; row: number | undefined }) {
  const own = marks.get(`${index}:`) ?? [];
  const html = useMemo(() => (block.type === 'table' ? undefined : findShownHtml(block)), [block]);
  if (block.type === 'table')
    return (
      <Flex px="4" py="2" gap="3">
        <Margin references={own} />
        <Box as="table" flex="1" fontSize="12.5px" borderCollapse="collapse" tableLayout="fixed" overflowWrap="anywhere" className="rich" data-block={index}>
          <colgroup>
            {findColumnWidths(block.rows).map((width, at) => (
              <col key={at} style={{ width: `${width}%` }} />
            ))}
          </colgroup>
          <tbody>
            {block.rows.map((cells, at) => (
              <Box as="tr" key={at} bg={row === at ? 'moss.muted' : at === 0 ? 'bg.subtle' : undefined}>
                {cells.map((cell, column) => (
                  <td key={column} colSpan={cell.span} title={marks.get(`${index}:${at}`)?.join(', ')}>
                    {cell.text}
                    {findPictures(cell.html).map(({ src, alt }) => (
                      <img key={src} src={src} alt={alt} />
                    ))}
                    {'\n'}
                  </td>
                ))}
              </Box>
            ))}
          </tbody>
        </Box>
      </Flex>
    );
  return (
    <Flex px="4" py={block.level ? '2' : '1'} gap="3">
      <Margin references={own} />
      <Box
        flex="1"
        maxW="720px"
        className="rich"
        fontFamily="serif"
        fontSize={block.level ? sizes[Math.min(block.level, 4) - 1] : '15px'}
        fontWeight={block.level ? '600' : '400'}
        pl={block.list ? `${block.list.depth * 18}px` : undefined}
        whiteSpace="pre-wrap"
      >
        {(block.list || block.number) && (
          <Box as="span" mr="2" color={block.list ? undefined : 'fg.muted'}>
            {block.number ?? (block.list?.ordered ? '–' : '•')}
          </Box>
        )}
        {html === undefined ? <span data-block={index}>{block.text}</span> : <RichText as="span" data-block={index} html={html} />}
      </Box>
    </Flex>
  );
}

function Margin({ references }: { references: string[] }) {
  return (
    <Flex w="76px" flexShrink={0} direction="column" align="flex-end" userSelect="none" pt="0.5">
      {references.slice(0, 3).map((reference) => (
        <Reference key={reference} reference={reference} fontSize="11.5px" />
      ))}
      {references.length > 3 && (
        <Box fontSize="11px" color="fg.muted">
          +{references.length - 3}
        </Box>
      )}
    </Flex>
  );
}
