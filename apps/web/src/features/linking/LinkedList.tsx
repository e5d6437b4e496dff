import { Box, Button, Checkbox, Flex, Input } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Link2Off } from 'lucide-react';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { rowsOf, useProject } from '../../shared/live/project-queries';
import { useOthersByItem } from '../../shared/live/presence';
import { OthersMark } from '../../shared/ui/others-mark';
import { RowLabel } from '../../shared/ui/row-label';

/** A link of what is chosen, as a list shows it. */
export interface ChosenLink {
  id: string;
  /** Row of the outline at its other end, and how it reads from here. */
  other: number;
  phrase: string;
  suspect: boolean;
  /** The usage at this end that it holds in only. */
  usage: string | null;
  usagePath?: readonly string[] | undefined;
}

interface Props {
  outline: OutlineReply;
  collection: string;
  choice: ReactNode;
  /** What is chosen beside the list. */
  about: string;
  onlyLinked: boolean;
  setOnlyLinked: (only: boolean) => void;
  /** Links of what is chosen. */
  links: readonly ChosenLink[];
  marked: number | undefined;
  onMark: (row: number | undefined) => void;
  onHover: (row: number | undefined) => void;
  onDrag: (row: number, event: { clientX: number; clientY: number }) => void;
  onOpen: (row: number) => void;
  onLink: (row: number) => void;
  onUnlink: (ids: readonly string[]) => void;
  onCollection: (id: string) => void;
}

const ROW = 27;
const DRAG = 5;

/** Items of any collection; what is linked with what is chosen beside it stands out, or stands alone. */
export function LinkedList({
  outline,
  collection,
  choice,
  about,
  onlyLinked,
  setOnlyLinked,
  links,
  marked,
  onMark,
  onHover,
  onDrag,
  onOpen,
  onLink,
  onUnlink,
  onCollection,
}: Props) {
  const project = useProject();
  const others = useOthersByItem();
  const frame = useRef<HTMLDivElement>(null);
  const [q, setQ] = useState('');
  const index = project.collections.findIndex((one) => one.id === collection);
  const all = useMemo(() => rowsOf(outline, index), [outline, index]);
  const linksTo = useMemo(() => {
    const found = new Map<number, ChosenLink[]>();
    for (const link of links) found.set(link.other, [...(found.get(link.other) ?? []), link]);
    return found;
  }, [links]);
  const here = all.filter((row) => linksTo.has(row)).length;
  /** Where else what is chosen is linked to. */
  const elsewhere = useMemo(() => {
    const counts = new Map<number, number>();
    for (const row of linksTo.keys()) {
      const at = outline.collection[row]!;
      if (at !== index) counts.set(at, (counts.get(at) ?? 0) + 1);
    }
    return [...counts].toSorted((a, b) => b[1] - a[1]);
  }, [linksTo, outline, index]);
  const rows = useMemo(() => {
    const words = q.toLowerCase().split(/\s+/).filter(Boolean);
    return all.filter(
      (row) => (!onlyLinked || linksTo.has(row)) && words.every((word) => `${outline.reference[row]} ${outline.title[row]}`.toLowerCase().includes(word)),
    );
  }, [all, onlyLinked, linksTo, q, outline]);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 12 });
  const first = rows.findIndex((row) => linksTo.has(row));
  useEffect(() => {
    // What is linked comes into sight when another shape is chosen.
    if (first >= 0) virtual.scrollToIndex(first, { align: 'center' });
  }, [first, virtual]);
  const at = marked === undefined ? -1 : rows.indexOf(marked);
  const step = (by: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, at + by));
    onMark(rows[next]);
    virtual.scrollToIndex(next);
  };
  const hand = useRef<{ row: number; x: number; y: number }>(undefined);
  return (
    <Flex direction="column" h="100%" bg="bg.panel">
      <Flex px="3" py="1.5" gap="2" align="center" wrap="wrap" borderBottomWidth="1px">
        {choice}
        <Input
          size="2xs"
          flex="1"
          minW="90px"
          aria-label="Find in the list"
          placeholder="Find in the list"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
      </Flex>
      <Flex px="3" py="1" gap="2" align="center" borderBottomWidth="1px" fontSize="12.5px">
        <Checkbox.Root size="sm" checked={onlyLinked} onCheckedChange={({ checked }) => setOnlyLinked(checked === true)}>
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400" fontSize="12.5px">
            Only what is linked with <bdi>{about}</bdi> ({figure(here)})
          </Checkbox.Label>
        </Checkbox.Root>
      </Flex>
      {elsewhere.length > 0 && (
        <Flex px="3" py="0.5" gap="2" align="center" wrap="wrap" borderBottomWidth="1px" fontSize="12.5px" color="fg.muted">
          Also linked in
          {elsewhere.slice(0, 4).map(([at, count]) => (
            <Button key={at} size="2xs" variant="plain" px="0" textDecoration="underline" onClick={() => onCollection(project.collections[at]!.id)}>
              {project.collections[at]?.name} ({figure(count)})
            </Button>
          ))}
        </Flex>
      )}
      <Box
        ref={frame}
        flex="1"
        minH="0"
        overflow="auto"
        role="listbox"
        tabIndex={0}
        aria-label={project.collections[index]?.name}
        aria-activedescendant={at >= 0 ? `linked-${rows[at]}` : undefined}
        onKeyDown={(event) => {
          const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15, Home: -rows.length, End: rows.length };
          const by = steps[event.key];
          if (by !== undefined) step(by);
          else if (event.key === 'Enter' && marked !== undefined) onLink(marked);
          else if (event.key === 'Delete' && marked !== undefined && linksTo.has(marked)) onUnlink(linksTo.get(marked)!.map(({ id }) => id));
          else if (event.key.toLowerCase() === 'o' && marked !== undefined) onOpen(marked);
          else return;
          event.preventDefault();
        }}
        onPointerLeave={() => onHover(undefined)}
      >
        {rows.length === 0 && (
          <Box p="5" color="fg.muted">
            {onlyLinked ? (
              <>
                Nothing here is linked with <bdi>{about}</bdi> yet. Show all, and drag an item onto it.
              </>
            ) : (
              'Nothing to show here.'
            )}
          </Box>
        )}
        <Box position="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index: line, start }) => {
            const row = rows[line]!;
            const isHeading = outline.heading[row] === 1;
            const own = linksTo.get(row);
            return (
              <Flex
                key={outline.id[row]}
                id={`linked-${row}`}
                data-linked-row={isHeading ? undefined : row}
                data-reference={outline.reference[row]}
                role="option"
                aria-selected={row === marked}
                position="absolute"
                w="100%"
                h={`${ROW}px`}
                align="center"
                gap="2"
                px="3"
                cursor={isHeading ? 'default' : 'grab'}
                userSelect="none"
                bg={row === marked ? 'moss.muted' : own ? 'moss.subtle' : undefined}
                _hover={{ bg: row === marked ? undefined : 'bg.subtle' }}
                style={{ transform: `translateY(${start}px)` }}
                onPointerEnter={() => onHover(isHeading ? undefined : row)}
                onPointerDown={(event) => {
                  if (event.button === 0 && !isHeading) hand.current = { row, x: event.clientX, y: event.clientY };
                }}
                onPointerMove={(event) => {
                  const held = hand.current;
                  if (!held || event.buttons === 0 || Math.hypot(event.clientX - held.x, event.clientY - held.y) < DRAG) return;
                  hand.current = undefined;
                  onDrag(held.row, { clientX: held.x, clientY: held.y });
                }}
                onPointerUp={() => {
                  hand.current = undefined;
                }}
                onClick={() => !isHeading && onMark(row)}
                onDoubleClick={() => !isHeading && onOpen(row)}
                title={own?.map((link) => `${link.phrase} it${link.usage ? ` (in ${link.usage} only)` : ''}`).join('; ')}
              >
                <RowLabel outline={outline} row={row} />
                <OthersMark names={others.get(outline.id[row]!)} />
                {own && (
                  <Button
                    size="2xs"
                    variant="ghost"
                    px="1"
                    minW="0"
                    aria-label={`Remove the link with ${outline.reference[row]}`}
                    title={`${own.map((link) => link.phrase).join(', ')}; remove this link`}
                    onClick={(event) => {
                      event.stopPropagation();
                      onUnlink(own.map(({ id }) => id));
                    }}
                  >
                    <Link2Off size={12} />
                  </Button>
                )}
              </Flex>
            );
          })}
        </Box>
      </Box>
    </Flex>
  );
}
