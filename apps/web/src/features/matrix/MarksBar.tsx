import { Box, Button, Flex, IconButton, Popover, Portal } from '@chakra-ui/react';
import { MOST_MARKS } from '@coomb/contract';
import { figure, proposeMarks, sayWay, type WayStep } from '@coomb/core';
import { Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { useRoom } from '../../shared/ui/use-room';
import type { Glyph } from './glyphs';

/** In a low window a bar is one line that is moved sideways; a line for moving it would cost a row of what is shown. */
export const barStyle = (low: boolean) => ({ '& > *': { flexShrink: low ? 0 : undefined }, scrollbarWidth: low ? ('none' as const) : undefined });

interface Props {
  /** Every kind of link is marked. */
  isEvery: boolean;
  marks: readonly { way: WayStep[]; count: number }[];
  glyphs: readonly Glyph[];
  /** Kinds of the items at both sides. */
  kinds: { rows: readonly string[]; columns: readonly string[] };
  onChange: (marks: WayStep[][]) => void;
  children?: ReactNode;
}

const same = (a: readonly WayStep[], b: readonly WayStep[]) => JSON.stringify(a) === JSON.stringify(b);

/** What the marks stand for, how many of each there are; and which further ways from a row to a column can be marked. */
export function MarksBar({ isEvery, marks, glyphs, kinds, onChange, children }: Props) {
  const { scheme } = useProject();
  const ways = marks.map(({ way }) => way);
  const offers = proposeMarks(scheme, kinds.rows, kinds.columns).filter((way) => !ways.some((one) => same(one, way)));
  const add = (way: WayStep[]) => onChange([...ways, way]);
  const isOnly = isEvery && ways.length < 2;
  const room = useRoom();
  const [direct, through] = [offers.filter(({ length }) => length === 1), offers.filter(({ length }) => length > 1)];
  return (
    <Flex
      align="center"
      gap="1.5"
      px={{ base: '3', md: '6' }}
      pb={room.low ? '1' : '2'}
      wrap={room.low ? 'nowrap' : 'wrap'}
      overflowX={room.low ? 'auto' : undefined}
      css={barStyle(room.low)}
      fontSize="13px"
      color="fg.muted"
      flexShrink={0}
      role="group"
      aria-label="Marks"
    >
      {marks.map(({ way, count }, at) => {
        const words = sayWay(scheme, way);
        return (
          <Flex
            key={words}
            align="center"
            gap="1.5"
            borderWidth="1px"
            borderRadius="l2"
            pl="2"
            pr={isOnly ? '2' : '0'}
            h="24px"
            bg="bg.subtle"
            color="fg"
            maxW="100%"
          >
            <GlyphMark glyph={glyphs[at]!} />
            <Box truncate title={words}>
              {words}
            </Box>
            <Box color="fg.muted" fontVariantNumeric="tabular-nums">
              {figure(count)}
            </Box>
            {!isOnly && (
              <IconButton
                aria-label={`No longer mark: ${words}`}
                title="No longer mark it"
                size="2xs"
                variant="ghost"
                onClick={() => onChange(ways.filter((one) => one !== way))}
              >
                <X size={12} />
              </IconButton>
            )}
          </Flex>
        );
      })}
      {marks.length === 0 && 'No kind of link joins what is shown.'}
      <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
        <Popover.Trigger asChild>
          <Button size="2xs" variant="outline" disabled={ways.length >= MOST_MARKS}>
            <Plus size={12} /> Mark
          </Button>
        </Popover.Trigger>
        <Portal>
          <Popover.Positioner>
            <Popover.Content w="420px" borderWidth="1px" aria-label="What can be marked">
              <Popover.Body p="2" fontSize="13px" maxH="420px" overflowY="auto">
                <Offers title="Links between rows and columns" ways={direct} onChoose={add} />
                <Offers title="Ways through items between them" ways={through} onChoose={add} />
                {offers.length === 0 && <Box px="2">The scheme has no further way from a row to a column.</Box>}
              </Popover.Body>
            </Popover.Content>
          </Popover.Positioner>
        </Portal>
      </Popover.Root>
      {!isEvery && (
        <Button size="2xs" variant="ghost" onClick={() => onChange([])}>
          Every kind of link
        </Button>
      )}
      <Flex ml="auto" gap="2" align="center" minW="0">
        {children}
      </Flex>
    </Flex>
  );
}

function Offers({ title, ways, onChoose }: { title: string; ways: readonly WayStep[][]; onChoose: (way: WayStep[]) => void }) {
  const { scheme } = useProject();
  if (ways.length === 0) return null;
  return (
    <Box mb="2">
      <Box px="2" color="fg.muted" fontSize="12px">
        {title}
      </Box>
      {ways.map((way) => {
        const words = sayWay(scheme, way);
        return (
          <Box asChild key={words} display="block" w="100%" textAlign="left" px="2" py="0.5" borderRadius="l1" _hover={{ bg: 'bg.subtle' }}>
            <button type="button" onClick={() => onChoose(way)}>
              {words}
            </button>
          </Box>
        );
      })}
    </Box>
  );
}

export function GlyphMark({ glyph }: { glyph: Glyph }) {
  return (
    <Box asChild color={glyph.token} flexShrink={0}>
      <svg width="13" height="13" viewBox="-1.3 -1.3 2.6 2.6" aria-hidden>
        <path d={glyph.path} fill="currentColor" />
      </svg>
    </Box>
  );
}
