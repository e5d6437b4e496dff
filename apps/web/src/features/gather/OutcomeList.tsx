import { Box, Flex } from '@chakra-ui/react';
import type { RecipeOutcome, Scheme } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';

interface Props {
  scheme: Scheme;
  outcome: RecipeOutcome;
  onShow?: (place: RecipeOutcome['drafts'][number]['place']) => void;
}

/** The outline a file would become. */
export function OutcomeList({ scheme, outcome, onShow }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const depths = useMemo(() => {
    const found: number[] = [];
    for (const draft of outcome.drafts) found.push(draft.parent < 0 ? 0 : found[draft.parent]! + 1);
    return found;
  }, [outcome]);
  const links = useMemo(() => {
    const count = new Map<number, number>();
    for (const link of outcome.links) count.set(link.draft, (count.get(link.draft) ?? 0) + 1);
    return count;
  }, [outcome]);
  const rows = useVirtualizer({ count: outcome.drafts.length, getScrollElement: () => frame.current, estimateSize: () => 26, overscan: 12 });
  const labels = new Map(scheme.kinds.map((kind) => [kind.id, kind.label]));
  return (
    <Box ref={frame} flex="1" overflow="auto" minH="0" role="list" aria-label="Items that would be imported">
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const draft = outcome.drafts[index]!;
          const fields = Object.keys(draft.fields).length;
          return (
            <Flex
              key={index}
              role="listitem"
              position="absolute"
              w="100%"
              h="26px"
              align="center"
              gap="2"
              px="3"
              style={{ transform: `translateY(${start}px)` }}
              _hover={{ bg: 'bg.subtle' }}
              cursor={onShow ? 'pointer' : undefined}
              onClick={() => onShow?.(draft.place)}
              title={`${labels.get(draft.kind)} from ${draft.place.says}`}
            >
              <Box flexShrink={0} style={{ width: depths[index]! * 14 }} />
              {draft.role === 'item' && (
                <Box fontFamily="mono" fontSize="12px" color={draft.reference ? 'moss.fg' : 'fg.muted'} flexShrink={0} minW="5.2em">
                  {draft.reference ?? 'next free'}
                </Box>
              )}
              <Box flex="1" truncate fontFamily="serif" fontWeight={draft.role === 'section' ? '600' : '400'}>
                {draft.title}
              </Box>
              {draft.role === 'item' && (
                <Box fontSize="11.5px" color="fg.muted" flexShrink={0}>
                  {[
                    fields ? `${fields} ${fields === 1 ? 'field' : 'fields'}` : '',
                    links.get(draft.key) ? `${links.get(draft.key)} ${links.get(draft.key) === 1 ? 'link' : 'links'}` : '',
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </Box>
              )}
            </Flex>
          );
        })}
      </Box>
    </Box>
  );
}
