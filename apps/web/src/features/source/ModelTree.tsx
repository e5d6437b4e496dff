import { Box, Flex, Input } from '@chakra-ui/react';
import { figure } from '@coomb/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { OneLine } from '../../shared/ui/one-line';
import { Reference } from '../../shared/ui/reference';
import type { SourceReading } from './queries';
import { buildTreeRows, childrenByParent, pathOf } from './tree-rows';

const ROW = 26;

interface Props {
  model: Extract<SourceReading['content'], { type: 'model' }>;
  items: SourceReading['items'];
  /** Reference of the item whose element is shown. */
  at: string | undefined;
}

/** A model as the tree that its file is: every element with its place, and the item that it became. */
export function ModelTree({ model, items, at }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const indexOf = useMemo(() => new Map(model.id.map((id, index) => [id, index])), [model.id]);
  const itemOf = useMemo(() => {
    const found = new Map<number, SourceReading['items'][number]['item']>();
    for (const { item, place } of items) {
      const index = place.element === undefined ? undefined : indexOf.get(place.element);
      if (index !== undefined) found.set(index, item);
    }
    return found;
  }, [items, indexOf]);
  const asked = useMemo(() => [...itemOf].find(([, item]) => item.reference === at)?.[0], [itemOf, at]);
  const children = useMemo(() => childrenByParent(model.parent), [model.parent]);
  const [unfolded, setUnfolded] = useState<ReadonlySet<number>>(() => new Set(asked === undefined ? (children.get(-1) ?? []) : pathOf(model.parent, asked)));
  const [chosen, setChosen] = useState(asked ?? 0);
  const [wanted, setWanted] = useState('');
  const rows = useMemo(() => buildTreeRows(children, unfolded), [children, unfolded]);
  const row = Math.max(
    0,
    rows.findIndex((one) => one.at === chosen),
  );
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 15 });
  useEffect(() => virtual.scrollToIndex(row, { align: 'auto' }), [row, virtual]);
  const toggle = (index: number, to?: boolean) =>
    setUnfolded((before) => {
      const next = new Set(before);
      if (to ?? !next.has(index)) next.add(index);
      else next.delete(index);
      return next;
    });
  const show = (index: number) => {
    setUnfolded((before) => new Set([...before, ...pathOf(model.parent, index)]));
    setChosen(index);
  };
  const found = useMemo(() => {
    const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
    if (words.length === 0) return [];
    return model.name.flatMap((name, index) => {
      const text = `${name} ${model.sorts[model.sort[index]!]} ${model.id[index]}`.toLowerCase();
      return words.every((word) => text.includes(word)) ? [index] : [];
    });
  }, [model, wanted]);
  const keys: Record<string, () => void> = {
    ArrowDown: () => setChosen(rows[Math.min(rows.length - 1, row + 1)]!.at),
    ArrowUp: () => setChosen(rows[Math.max(0, row - 1)]!.at),
    ArrowRight: () => rows[row]!.holds && (rows[row]!.open ? setChosen(rows[row + 1]!.at) : toggle(chosen, true)),
    ArrowLeft: () => (rows[row]!.open ? toggle(chosen, false) : model.parent[chosen]! >= 0 && setChosen(model.parent[chosen]!)),
    Home: () => setChosen(rows[0]!.at),
    End: () => setChosen(rows.at(-1)!.at),
  };
  if (model.id.length === 0)
    return (
      <Box p="6" color="fg.muted">
        The file holds no elements that are known here. Look at it as the text that it is.
      </Box>
    );
  const file = model.files[model.file[chosen]!];
  return (
    <Flex direction="column" h="100%">
      <Flex px="4" py="1" gap="3" align="center" bg="bg.panel" borderBottomWidth="1px" fontSize="13px">
        <Box flexShrink={0} color="fg.muted">
          {figure(model.id.length)} elements
        </Box>
        <OneLine
          flex="1"
          color="fg.muted"
          text={`${[...pathOf(model.parent, chosen), chosen].map((one) => model.name[one] || model.sorts[model.sort[one]!]).join(' › ')}; ${file ? `${file}, ` : ''}line ${model.line[chosen]}; ${model.id[chosen]}`}
        />
        <Input
          size="2xs"
          w="200px"
          aria-label="Find in the file"
          placeholder="Find in the file"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || found.length === 0) return;
            show(found.find((index) => index > chosen) ?? found[0]!);
          }}
        />
        {wanted && (
          <Box color="fg.muted" aria-live="polite" flexShrink={0}>
            {found.length === 0 ? 'nothing' : `${found.indexOf(chosen) + 1 || '–'} of ${figure(found.length)}`}
          </Box>
        )}
      </Flex>
      <Box
        ref={frame}
        flex="1"
        minH="0"
        overflow="auto"
        tabIndex={0}
        role="tree"
        aria-label="Elements of the file"
        aria-activedescendant={`element-${chosen}`}
        onKeyDown={(event) => {
          const run = event.ctrlKey || event.metaKey || event.altKey ? undefined : keys[event.key];
          if (!run) return;
          event.preventDefault();
          run();
        }}
      >
        <Box position="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const { at: own, depth, holds, open } = rows[index]!;
            const item = itemOf.get(own);
            return (
              <Flex
                key={own}
                id={`element-${own}`}
                role="treeitem"
                aria-level={depth + 1}
                aria-selected={own === chosen}
                aria-expanded={holds ? open : undefined}
                data-element={model.id[own]}
                position="absolute"
                w="100%"
                h={`${ROW}px`}
                align="center"
                gap="2"
                px="4"
                cursor="pointer"
                fontSize="13.5px"
                bg={own === chosen ? 'moss.muted' : undefined}
                _hover={{ bg: own === chosen ? undefined : 'bg.subtle' }}
                style={{ transform: `translateY(${start}px)` }}
                onClick={() => setChosen(own)}
                onDoubleClick={() => toggle(own)}
              >
                <Box flexShrink={0} style={{ width: Math.min(depth, 30) * 16 }} />
                <Box asChild w="16px" flexShrink={0} color="fg.muted">
                  <button
                    type="button"
                    tabIndex={-1}
                    aria-label={open ? 'Fold' : 'Unfold'}
                    style={{ visibility: holds ? 'visible' : 'hidden' }}
                    onClick={(event) => {
                      event.stopPropagation();
                      toggle(own);
                    }}
                  >
                    {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
                  </button>
                </Box>
                <OneLine
                  fontWeight={holds ? '600' : '400'}
                  maxW="46%"
                  text={model.name[own] || '(unnamed)'}
                  color={model.name[own] ? undefined : 'fg.subtle'}
                />
                <OneLine flex="1" fontSize="12.5px" color="fg.muted" text={model.sorts[model.sort[own]!]!} />
                {item ? (
                  <Reference reference={item.reference} />
                ) : (
                  <Box fontSize="12px" color="fg.subtle">
                    in the file only
                  </Box>
                )}
                <Box w="5em" textAlign="right" fontSize="12px" color="fg.muted" fontVariantNumeric="tabular-nums">
                  {model.line[own]}
                </Box>
              </Flex>
            );
          })}
        </Box>
      </Box>
    </Flex>
  );
}
