import { Box, Flex } from '@chakra-ui/react';
import { comparedMarks, figure } from '@coomb/core';
import type { ReactNode } from 'react';
import { comparedGlyphs } from './glyphs';
import { useRoom } from '../../shared/ui/use-room';
import { barStyle, GlyphMark } from './MarksBar';

/** What the marks of a comparison stand for, and how many of each there are. */
export function ComparedBar({ counts, children }: { counts: readonly number[]; children: ReactNode }) {
  const { low } = useRoom();
  return (
    <Flex
      align="center"
      gap="1.5"
      px={{ base: '3', md: '6' }}
      pb={low ? '1' : '2'}
      wrap={low ? 'nowrap' : 'wrap'}
      overflowX={low ? 'auto' : undefined}
      css={barStyle(low)}
      fontSize="13px"
      color="fg.muted"
      flexShrink={0}
      role="group"
      aria-label="Compared"
    >
      {comparedMarks.map((mark, at) => (
        <Flex key={mark} align="center" gap="1.5" borderWidth="1px" borderRadius="l2" px="2" h="24px" bg="bg.subtle" color="fg">
          <GlyphMark glyph={comparedGlyphs[at]!} />
          {mark}
          <Box color="fg.muted" fontVariantNumeric="tabular-nums">
            {figure(counts[at]!)}
          </Box>
        </Flex>
      ))}
      {children}
    </Flex>
  );
}
