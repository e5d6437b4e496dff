import { Box, Checkbox, Flex } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useRef } from 'react';
import { FAINT } from './faint';
import { useRestingFocus } from './use-resting-focus';

interface Props {
  label: string;
  count: number;
  rowHeight: number;
  keyOf: (index: number) => string;
  /** What the list calls a row for those who do not see it. */
  nameOf: (index: number) => string;
  children: (index: number, marked: boolean) => ReactNode;
  marked: number;
  onMark: (index: number) => void;
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
  /** Keys beyond moving and choosing; what it does not know it leaves. */
  onKey: (key: string, index: number) => boolean;
  /** Told when rows come into sight, for lists that are loaded window by window. */
  onSight?: (first: number, last: number) => void;
  isHeading?: (index: number) => boolean;
  /** What a lens does not light. */
  isFaint?: ((index: number) => boolean) | undefined;
}

const PAGE = 15;

/** A list to work off: arrows move, Space chooses, Shift with arrows chooses on the way, Ctrl A chooses all. Only rows in sight are drawn. */
export function WorkList({
  label,
  count,
  rowHeight,
  keyOf,
  nameOf,
  children,
  marked,
  onMark,
  chosen,
  onChoose,
  onKey,
  onSight,
  isHeading = () => false,
  isFaint,
}: Props) {
  const frame = useRef<HTMLDivElement>(null);
  useRestingFocus(frame);
  const virtual = useVirtualizer({ count, getScrollElement: () => frame.current, estimateSize: () => rowHeight, overscan: 10 });
  const rows = virtual.getVirtualItems();
  const [first, last] = [rows[0]?.index ?? 0, rows.at(-1)?.index ?? 0];
  useEffect(() => {
    onSight?.(first, last);
  }, [first, last, onSight]);
  const toggle = (index: number) => {
    const key = keyOf(index);
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    onChoose(next);
  };
  /** What is chosen already, and all rows from one to another. */
  const withRange = (one: number, other: number) => {
    const next = new Set(chosen);
    for (let index = Math.min(one, other); index <= Math.max(one, other); index++) if (!isHeading(index)) next.add(keyOf(index));
    return next;
  };
  const go = (to: number, choose: boolean) => {
    const by = Math.sign(to - marked) || 1;
    const seek = (from: number, step: number) => {
      for (let at = from; at >= 0 && at < count; at += step) if (!isHeading(at)) return at;
      return undefined;
    };
    const from = Math.max(0, Math.min(count - 1, to));
    // A list may begin and end with a heading: the nearest row is meant.
    const next = seek(from, by) ?? seek(from, -by) ?? marked;
    if (choose) onChoose(withRange(marked, next));
    onMark(next);
    virtual.scrollToIndex(next);
  };
  const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: PAGE, PageUp: -PAGE, Home: -count, End: count };
  return (
    <Box
      ref={frame}
      flex="1"
      minH="0"
      h="100%"
      overflow="auto"
      role="grid"
      aria-multiselectable
      aria-label={label}
      aria-activedescendant={count > 0 ? `row-${marked}` : undefined}
      tabIndex={0}
      outlineOffset="-2px"
      onKeyDown={(event) => {
        const isOwn = event.target === event.currentTarget;
        if (!isOwn && ['INPUT', 'BUTTON', 'A', 'SELECT', 'TEXTAREA'].includes((event.target as HTMLElement).tagName)) return;
        const by = steps[event.key];
        if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') onChoose(withRange(0, count - 1));
        else if (event.ctrlKey || event.metaKey || event.altKey) return;
        else if (by !== undefined) go(marked + by, event.shiftKey);
        else if (event.key === ' ') toggle(marked);
        else if (event.key === 'Escape' && chosen.size > 0) onChoose(new Set());
        else if (!onKey(event.key.length === 1 ? event.key.toLowerCase() : event.key, marked)) return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <Box position="relative" style={{ height: virtual.getTotalSize() }}>
        {rows.map(({ index, start }) => {
          const heading = isHeading(index);
          const isChosen = !heading && chosen.has(keyOf(index));
          return (
            <Flex
              key={index}
              id={`row-${index}`}
              role="row"
              aria-rowindex={index + 1}
              aria-selected={heading ? undefined : isChosen}
              data-name={heading ? undefined : nameOf(index)}
              data-marked={index === marked || undefined}
              position="absolute"
              w="100%"
              align="center"
              gap="2.5"
              pl="4"
              pr="4"
              borderBottomWidth="1px"
              borderColor="border.muted"
              bg={isChosen ? 'moss.subtle' : index === marked ? 'bg.subtle' : undefined}
              boxShadow={index === marked ? 'inset 3px 0 0 var(--chakra-colors-moss-solid)' : undefined}
              style={{ height: rowHeight, transform: `translateY(${start}px)` }}
              onClick={(event) => {
                if (heading) return;
                if (event.shiftKey) onChoose(withRange(marked, index));
                else if (event.ctrlKey || event.metaKey) toggle(index);
                onMark(index);
              }}
            >
              <Flex role="gridcell" flex="1" minW="0" h="100%" align="center" gap="2.5" opacity={!heading && isFaint?.(index) ? FAINT : undefined}>
                {heading ? (
                  children(index, false)
                ) : (
                  <>
                    <Checkbox.Root size="sm" checked={isChosen} onCheckedChange={() => toggle(index)} onClick={(event) => event.stopPropagation()}>
                      <Checkbox.HiddenInput tabIndex={-1} aria-label={`Choose ${nameOf(index)}`} />
                      <Checkbox.Control />
                    </Checkbox.Root>
                    {children(index, index === marked)}
                  </>
                )}
              </Flex>
            </Flex>
          );
        })}
      </Box>
    </Box>
  );
}
