import { Box, Flex } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { Reference } from '../../shared/ui/reference';
import { OneLine } from '../../shared/ui/one-line';

/** Rows of a sheet, or lines of a file, numbered as in the original; items stand at the left of their row. */
export function RowsView({ rows, marks, shown, mono }: { rows: string[][]; marks: ReadonlyMap<number, string>; shown: number | undefined; mono: boolean }) {
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => 24, overscan: 20 });
  useEffect(() => {
    if (shown !== undefined) virtual.scrollToIndex(shown, { align: 'center' });
  }, [shown, virtual]);
  return (
    <Box
      ref={frame}
      h="100%"
      overflow="auto"
      bg="bg.panel"
      fontFamily={mono ? 'mono' : undefined}
      fontSize="12.5px"
      role="list"
      aria-label="Rows of the source"
    >
      <Box position="relative" minW="max-content" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const reference = marks.get(index);
          return (
            <Flex
              key={index}
              role="listitem"
              aria-current={index === shown || undefined}
              position="absolute"
              w="100%"
              h="24px"
              align="center"
              gap="3"
              px="4"
              whiteSpace="pre"
              bg={index === shown ? 'moss.muted' : undefined}
              style={{ transform: `translateY(${start}px)` }}
            >
              <Box w="6em" flexShrink={0} textAlign="right">
                {reference && <Reference reference={reference} />}
              </Box>
              <Box w="4em" flexShrink={0} textAlign="right" color="fg.muted" fontFamily="mono">
                {index + 1}
              </Box>
              {rows[index]!.map((cell, column) => (
                <OneLine key={column} w={mono ? undefined : '220px'} flexShrink={0} text={cell} />
              ))}
            </Flex>
          );
        })}
      </Box>
    </Box>
  );
}
