import { Box, Flex } from '@chakra-ui/react';
import type { RecipeOutcome, SourceBlock, SourceTable } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import type { PickedPart } from './pick-part';

interface Props {
  blocks: SourceBlock[];
  outcome: RecipeOutcome;
  shown: { block: number; row?: number | undefined } | undefined;
  /** A click on a heading, a cell or a paragraph asks what it means. */
  onPick: (part: PickedPart) => void;
}

interface Recognised {
  label: string;
  section: boolean;
}

/** The document as it reads, with what the recipe recognises marked in the margin. */
export function DocumentView({ blocks, outcome, shown, onPick }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const recognised = useMemo(() => {
    const marks = new Map<string, Recognised>();
    for (const { place, reference, role, title } of outcome.drafts)
      marks.set(`${place.block}:${place.row ?? ''}`, {
        label: reference ?? (role === 'section' ? 'section' : title.slice(0, 12)),
        section: role === 'section',
      });
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
  return (
    <Box ref={frame} h="100%" overflow="auto" aria-label="The document as it reads" tabIndex={0}>
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
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
              const cell = (event.target as HTMLElement).closest('td');
              onPick({ block: blocks[index]!, ...(cell && { column: cell.cellIndex }) });
            }}
          >
            <Block block={blocks[index]!} index={index} recognised={recognised} row={shown?.block === index ? shown.row : undefined} />
          </Box>
        ))}
      </Box>
    </Box>
  );
}

const sizes = ['22px', '18px', '16px', '15px'];

function Block({ block, index, recognised, row }: { block: SourceBlock; index: number; recognised: Map<string, Recognised>; row: number | undefined }) {
  const mark = recognised.get(`${index}:`);
  if (block.type === 'table')
    return (
      <Box px="4" py="2" pl="86px" position="relative">
        {mark && <Mark mark={mark} />}
        <Box as="table" w="100%" fontSize="12.5px" borderCollapse="collapse" tableLayout="fixed" overflowWrap="anywhere" className="rich">
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
                      <span dangerouslySetInnerHTML={{ __html: withoutPictures(cell.html) }} />
                    </td>
                  ))}
                </Box>
              );
            })}
          </tbody>
        </Box>
      </Box>
    );
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
        {block.list && (
          <Box as="span" mr="2">
            {block.list.ordered ? '–' : '•'}
          </Box>
        )}
        <span dangerouslySetInnerHTML={{ __html: withoutPictures(block.html) }} />
      </Box>
    </Flex>
  );
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
    >
      {mark.label}
    </Box>
  );
}

/** Pictures are stored at import; until then their place is named. */
function withoutPictures(html: string): string {
  return html.replace(/<img src="coomb-picture:[^"]*" alt="([^"]*)">/g, '<em>[picture: $1]</em>');
}
