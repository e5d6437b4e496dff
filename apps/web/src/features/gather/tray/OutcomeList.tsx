import { Box, Checkbox, Flex } from '@chakra-ui/react';
import type { Issue, RecipeOutcome, Scheme } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { findDoubts } from './doubts';
import { IssueGlyph } from './IssueGlyph';
import { OneLine } from '../../../shared/ui/one-line';

interface Props {
  scheme: Scheme;
  outcome: RecipeOutcome;
  /** What is remarked of the file; rows that a remark is about are marked with it. */
  issues: readonly Issue[];
  onShow?: (place: RecipeOutcome['drafts'][number]['place']) => void;
}

/** The outline a file would become; all of it, or only the rows that something is remarked of. */
export function OutcomeList({ scheme, outcome, issues, onShow }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [onlyDoubtful, setOnlyDoubtful] = useState(false);
  const [at, setAt] = useState(-1);
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
  const doubts = useMemo(() => findDoubts(outcome.drafts, issues), [outcome, issues]);
  const isFiltered = onlyDoubtful && doubts.size > 0;
  const drafts = useMemo(() => (isFiltered ? outcome.drafts.filter((draft) => doubts.has(draft.key)) : outcome.drafts), [outcome, doubts, isFiltered]);
  const rows = useVirtualizer({ count: drafts.length, getScrollElement: () => frame.current, estimateSize: () => 26, overscan: 12 });
  const labels = new Map(scheme.kinds.map((kind) => [kind.id, kind.label]));
  const current = Math.min(at, drafts.length - 1);
  const go = (to: number) => {
    const next = Math.max(0, Math.min(drafts.length - 1, to));
    setAt(next);
    rows.scrollToIndex(next);
    if (drafts[next]) onShow?.(drafts[next].place);
  };
  const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15, Home: -drafts.length, End: drafts.length };
  return (
    <Flex direction="column" flex="1" minH="0" minW="0">
      {doubts.size > 0 && (
        <Flex px="3" py="1" borderBottomWidth="1px" bg="bg.panel" flexShrink={0}>
          <Checkbox.Root size="sm" checked={isFiltered} onCheckedChange={({ checked }) => setOnlyDoubtful(checked === true)}>
            <Checkbox.HiddenInput />
            <Checkbox.Control />
            <Checkbox.Label fontWeight="400">Only the {doubts.size} with remarks</Checkbox.Label>
          </Checkbox.Root>
        </Flex>
      )}
      <Box
        ref={frame}
        flex="1"
        overflow="auto"
        minH="0"
        role="listbox"
        aria-label="Items that would be imported"
        aria-activedescendant={current >= 0 ? `draft-${current}` : undefined}
        tabIndex={0}
        onKeyDown={(event) => {
          const step = steps[event.key];
          if (step === undefined) return;
          event.preventDefault();
          go(Math.max(current, -1) + step);
        }}
      >
        <Box position="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map(({ index, start }) => {
            const draft = drafts[index]!;
            const fields = Object.keys(draft.fields).length;
            const doubt = doubts.get(draft.key);
            return (
              <Flex
                key={index}
                id={`draft-${index}`}
                role="option"
                aria-selected={index === current}
                position="absolute"
                w="100%"
                h="26px"
                align="center"
                gap="2"
                px="3"
                style={{ transform: `translateY(${start}px)` }}
                bg={index === current && onShow ? 'bg.subtle' : undefined}
                _hover={{ bg: 'bg.subtle' }}
                cursor={onShow ? 'pointer' : undefined}
                onClick={() => go(index)}
                title={doubt?.message ?? `${labels.get(draft.kind)} from ${draft.place.says}`}
              >
                <Box flexShrink={0} style={{ width: depths[draft.key]! * 14 }} />
                {draft.role === 'item' && (
                  <Box fontFamily="mono" fontSize="12px" color={draft.reference ? 'moss.fg' : 'fg.muted'} flexShrink={0} minW="5.2em">
                    {draft.reference ?? 'next free'}
                  </Box>
                )}
                {doubt && <IssueGlyph severity={doubt.severity} />}
                <OneLine flex="1" fontFamily="serif" fontWeight={draft.role === 'section' ? '600' : '400'} text={draft.title} />
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
    </Flex>
  );
}
