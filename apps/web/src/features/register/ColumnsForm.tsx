import { Box, Button, Flex, IconButton, Input, Popover, Portal } from '@chakra-ui/react';
import { addColumn, type Column, proposeColumns, sayColumn } from '@coomb/core';
import { ArrowDown, ArrowUp, Columns3, Eye, EyeOff, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { OneLine } from '../../shared/ui/one-line';

/** Which columns there are and in which order; a further one is found by naming what it shows. */
export function ColumnsForm({ kinds, columns, onChange }: { kinds: readonly string[]; columns: readonly Column[]; onChange: (columns: Column[]) => void }) {
  const { scheme } = useProject();
  const [words, setWords] = useState('');
  const proposed = useMemo(() => (words.trim() ? proposeColumns(scheme, kinds, words) : []), [scheme, kinds, words]);
  const move = (at: number, by: number) => {
    const next = [...columns];
    const [one] = next.splice(at, 1);
    next.splice(at + by, 0, one!);
    onChange(next);
  };
  const add = (one: (typeof proposed)[number]) => {
    onChange([...columns, addColumn(columns, one)]);
    setWords('');
  };
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-end' }}>
      <Popover.Trigger asChild>
        <Button size="xs" variant="outline">
          <Columns3 size={13} /> Columns
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="380px" borderWidth="1px" aria-label="Columns">
            <Popover.Body p="3" fontSize="13px">
              <Input
                size="xs"
                autoFocus
                aria-label="Name a further column"
                placeholder="A further column: “priority”, “verified latest result”…"
                value={words}
                onChange={(event) => setWords(event.target.value)}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' || !proposed[0]) return;
                  event.preventDefault();
                  add(proposed[0]);
                }}
              />
              {words.trim() !== '' && (
                <Box mt="1" maxH="190px" overflowY="auto" borderWidth="1px" borderRadius="l2">
                  {proposed.length === 0 && (
                    <Box px="2" py="1" color="fg.muted">
                      Nothing here is called so.
                    </Box>
                  )}
                  {proposed.map((one) => {
                    const name = sayColumn(scheme, one);
                    return (
                      <Box asChild key={`${name}${one.as}`} display="block" w="100%" textAlign="left" px="2" py="1" _hover={{ bg: 'bg.subtle' }}>
                        <button type="button" onClick={() => add(one)}>
                          {name}
                        </button>
                      </Box>
                    );
                  })}
                </Box>
              )}
              <Box mt="2" maxH="300px" overflowY="auto">
                {columns.map((column, at) => {
                  const name = sayColumn(scheme, column);
                  return (
                    <Flex key={column.id} align="center" gap="0.5">
                      <OneLine flex="1" minW="0" text={name} color={column.hidden ? 'fg.muted' : undefined} />
                      <IconButton
                        aria-label={column.hidden ? `Show ${name}` : `Hide ${name}`}
                        title={column.hidden ? 'Show it' : 'Hide it: it still sorts and groups'}
                        size="2xs"
                        variant="ghost"
                        onClick={() =>
                          onChange(
                            columns.map(({ hidden, ...one }) =>
                              one.id === column.id ? (hidden ? one : { ...one, hidden: true }) : { ...one, ...(hidden && { hidden }) },
                            ),
                          )
                        }
                      >
                        {column.hidden ? <EyeOff size={12} /> : <Eye size={12} />}
                      </IconButton>
                      <IconButton
                        aria-label={`${name}: further left`}
                        title="Further left"
                        size="2xs"
                        variant="ghost"
                        disabled={at === 0}
                        onClick={() => move(at, -1)}
                      >
                        <ArrowUp size={12} />
                      </IconButton>
                      <IconButton
                        aria-label={`${name}: further right`}
                        title="Further right"
                        size="2xs"
                        variant="ghost"
                        disabled={at === columns.length - 1}
                        onClick={() => move(at, 1)}
                      >
                        <ArrowDown size={12} />
                      </IconButton>
                      <IconButton
                        aria-label={`Leave ${name} out`}
                        title="Leave it out"
                        size="2xs"
                        variant="ghost"
                        onClick={() => onChange(columns.filter((one) => one !== column))}
                      >
                        <X size={12} />
                      </IconButton>
                    </Flex>
                  );
                })}
              </Box>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
