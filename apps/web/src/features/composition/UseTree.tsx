import { Box, Flex } from '@chakra-ui/react';
import { figure } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight, RotateCcw } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { FAINT } from '../../shared/ui/faint';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { useProject } from '../../shared/live/project-queries';
import { OneLine } from '../../shared/ui/one-line';
import type { Use } from './queries';
import { nameOf, type UseRow } from './use-rows';

const ROW = 28;

/** A use is seen where itself is, or what it is a use of. */
const isSeenUse = ({ item, type }: Use, isSeen: (item: string) => boolean) => isSeen(item.id) || (type !== null && isSeen(type.id));

interface Props {
  rows: readonly UseRow[];
  at: number;
  onSelect: (key: string) => void;
  onToggle: (key: string) => void;
  onOpen: (use: Use) => void;
}

/** The uses in sight. Links are told apart: in this use, in every use, and those that only other uses have. */
export function UseTree({ rows, at, onSelect, onToggle, onOpen }: Props) {
  const { scheme } = useProject();
  const through = useIsSeen();
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 12 });
  useEffect(() => virtual.scrollToIndex(at), [at, virtual]);
  const labels = new Map(scheme.kinds.map((kind) => [kind.id, kind.label]));
  return (
    <Flex direction="column" h="100%">
      <Flex px="3" py="1" fontSize="12px" color="fg.muted" borderBottomWidth="1px" gap="3" bg="bg.panel">
        <Box flex="1">Use</Box>
        <Box w="86px" textAlign="right">
          in this use
        </Box>
        <Box w="86px" textAlign="right">
          in every use
        </Box>
        <Box w="110px" textAlign="right">
          uses below
        </Box>
      </Flex>
      <Box ref={frame} flex="1" minH="0" overflow="auto" role="tree" aria-label="Uses" aria-activedescendant={`use-${at}`}>
        <Box position="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const { use, key, depth, open } = rows[index]!;
            const isElsewhere = use.here + use.everywhere === 0 && use.elsewhere > 0;
            return (
              <Flex
                key={key}
                id={`use-${index}`}
                role="treeitem"
                aria-level={depth + 1}
                aria-selected={index === at}
                aria-expanded={use.rows > 0 ? open : undefined}
                position="absolute"
                w="100%"
                h={`${ROW}px`}
                align="center"
                gap="3"
                px="3"
                cursor="pointer"
                opacity={through && !isSeenUse(use, through.isSeen) ? FAINT : undefined}
                bg={index === at ? 'moss.muted' : undefined}
                _hover={{ bg: index === at ? undefined : 'bg.subtle' }}
                style={{ transform: `translateY(${start}px)` }}
                onClick={() => onSelect(key)}
                onDoubleClick={() => onOpen(use)}
              >
                <Flex flex="1" minW="0" align="center" gap="1.5" style={{ paddingLeft: Math.min(depth, 24) * 16 }}>
                  <Box asChild w="16px" flexShrink={0} color="fg.muted">
                    <button
                      type="button"
                      tabIndex={-1}
                      aria-label={open ? 'Fold' : 'Unfold'}
                      style={{ visibility: use.rows > 0 ? 'visible' : 'hidden' }}
                      onClick={(event) => {
                        event.stopPropagation();
                        onToggle(key);
                      }}
                    >
                      {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
                    </button>
                  </Box>
                  <OneLine fontWeight={use.type || depth === 0 ? '600' : '400'} text={nameOf(use)} />
                  <Box fontSize="12px" color="fg.muted" flexShrink={0}>
                    {labels.get(use.item.kind)?.toLowerCase()}
                  </Box>
                  {use.repeats && use.rows === 0 && (
                    <Flex align="center" gap="1" fontSize="12px" color="brick.fg" flexShrink={0} title="It stands above itself: the tree is cut here">
                      <RotateCcw size={11} aria-hidden /> repeats
                    </Flex>
                  )}
                  {isElsewhere && (
                    <Box fontSize="12px" color="heather.fg" flexShrink={0} title={`${figure(use.elsewhere)} in other uses only`}>
                      not linked here
                    </Box>
                  )}
                </Flex>
                <Count w="86px" count={use.here} />
                <Count w="86px" count={use.everywhere} />
                <Box w="110px" textAlign="right" color="fg.muted" fontVariantNumeric="tabular-nums">
                  {use.below === null ? 'beyond count' : use.below > 0 ? figure(use.below) : ''}
                </Box>
              </Flex>
            );
          })}
        </Box>
      </Box>
    </Flex>
  );
}

function Count({ w, count }: { w: string; count: number }) {
  return (
    <Box w={w} textAlign="right" fontVariantNumeric="tabular-nums" color={count > 0 ? 'moss.fg' : 'fg.subtle'} fontWeight={count > 0 ? '600' : '400'}>
      {count > 0 ? figure(count) : '–'}
    </Box>
  );
}
