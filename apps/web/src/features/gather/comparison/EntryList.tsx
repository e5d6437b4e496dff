import { Box, Checkbox, Flex } from '@chakra-ui/react';
import type { ComparedEntry } from '@coomb/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowRightLeft, CornerUpLeft, Equal, type LucideIcon, Minus, PencilLine, Plus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useKeys } from '../../../shared/ui/use-keys';
import { type Choices, type Sort, takenOf } from './choices';
import { OneLine } from '../../../shared/ui/one-line';

interface Props {
  entries: ComparedEntry[];
  current: string | undefined;
  choices: Choices;
  onChoose: (choices: Choices) => void;
  onShow: (id: string) => void;
}

const looks: Record<Sort, { icon: LucideIcon; colour: string; word: string }> = {
  new: { icon: Plus, colour: 'moss.fg', word: 'new' },
  changed: { icon: PencilLine, colour: 'fg', word: 'changed' },
  moved: { icon: ArrowRightLeft, colour: 'slate.fg', word: 'moved' },
  removed: { icon: Minus, colour: 'brick.fg', word: 'no longer there' },
  returned: { icon: CornerUpLeft, colour: 'fg.warning', word: 'withdrawn here, changed there' },
  same: { icon: Equal, colour: 'fg.muted', word: 'the same' },
};

/** Everything that differs, in the order of the newer version; a tick takes it. */
export function EntryList({ entries, current, choices, onChoose, onShow }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: entries.length, getScrollElement: () => frame.current, estimateSize: () => 30, overscan: 12 });
  const at = Math.max(
    0,
    entries.findIndex((entry) => entry.id === current),
  );
  const toggle = (entry: ComparedEntry) => onChoose({ ...choices, [entry.id]: takenOf(entry, choices) === 'none' ? 'theirs' : 'mine' });
  const go = (by: number) => onShow(entries[Math.max(0, Math.min(entries.length - 1, at + by))]!.id);
  useKeys({ ArrowDown: () => go(1), ArrowUp: () => go(-1), t: () => toggle(entries[at]!) });
  useEffect(() => {
    rows.scrollToIndex(at, { align: 'auto' });
  }, [at, rows]);
  return (
    <Box ref={frame} w="430px" flexShrink={0} overflow="auto" bg="bg.panel" borderRightWidth="1px" role="list" aria-label="Differences">
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const entry = entries[index]!;
          const { icon: Icon, colour, word } = looks[entry.sort];
          const taken = takenOf(entry, choices);
          return (
            <Flex
              key={entry.id}
              role="listitem"
              aria-current={index === at}
              position="absolute"
              w="100%"
              h="30px"
              align="center"
              gap="2"
              px="3"
              bg={index === at ? 'moss.subtle' : undefined}
              borderLeftWidth="3px"
              borderColor={entry.conflict ? 'brick.solid' : 'transparent'}
              cursor="pointer"
              onClick={() => onShow(entry.id)}
              style={{ transform: `translateY(${start}px)` }}
            >
              {entry.sort === 'same' ? (
                <Box w="16px" />
              ) : (
                <Checkbox.Root
                  size="sm"
                  checked={taken === 'all' ? true : taken === 'some' ? 'indeterminate' : false}
                  onCheckedChange={() => toggle(entry)}
                  onClick={(event) => event.stopPropagation()}
                >
                  <Checkbox.HiddenInput aria-label={`Take ${entry.mine?.reference ?? entry.theirs?.title}`} />
                  <Checkbox.Control />
                </Checkbox.Root>
              )}
              <Box color={colour} title={word}>
                <Icon size={13} aria-label={word} />
              </Box>
              <Box fontFamily="mono" fontSize="12px" color="moss.fg" flexShrink={0} minW="5em">
                {entry.mine?.reference ?? entry.theirs?.key ?? 'next free'}
              </Box>
              <OneLine
                flex="1"
                fontFamily="serif"
                fontWeight={(entry.mine ?? entry.theirs)?.heading ? '600' : '400'}
                text={entry.theirs?.title ?? entry.mine?.title ?? ''}
              />
              {entry.conflict && choices[entry.id] === undefined && (
                <Box color="brick.fg" fontSize="12px" flexShrink={0}>
                  to decide
                </Box>
              )}
            </Flex>
          );
        })}
      </Box>
    </Box>
  );
}
