import { Box, Button, Flex, IconButton, Popover, Portal } from '@chakra-ui/react';
import { counted } from '@coomb/core';
import { Aperture, Trash2, X } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { lookThrough, nextLens } from '../shared/lens/through';
import { useLens } from '../shared/lens/use-lens';
import { useSavedViews, useWithdrawView } from '../shared/saved-views/queries';
import { Choice } from '../shared/ui/choice';
import { OneLine } from '../shared/ui/one-line';
import { useKeys } from '../shared/ui/use-keys';
import type { View } from '../shared/view';

/** What the project is looked at through, beside its name: the same in every view, and plain to see when it is not everything. */
export function LensChoice({ project, here }: { project: string; here: View | undefined }) {
  const lens = useLens();
  const withdraw = useWithdrawView(project);
  const saved = useSavedViews(project).data;
  const lenses = useMemo(() => (saved ?? []).filter(({ sort }) => sort === 'lens'), [saved]);
  const keys = useMemo(() => {
    const step = (by: 1 | -1) => () => {
      const next = nextLens(
        lenses.map(({ id }) => id),
        lens?.lens,
        by,
      );
      lookThrough(project, next ? { lens: next, mode: lens?.mode ?? 'only' } : undefined);
    };
    return { '\\': step(1), '|': step(-1) };
  }, [lenses, lens?.lens, lens?.mode, project]);
  useKeys(keys);
  const name = lens && (lenses.find(({ id }) => id === lens.lens)?.name ?? lens.seen?.name ?? 'a lens');
  return (
    <Flex align="center" minW="0" flexShrink={1} {...(lens && { bg: 'bg.muted', borderRadius: 'l2' })}>
      <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
        <Popover.Trigger asChild>
          <Button
            size="2xs"
            variant="ghost"
            minW="0"
            fontWeight={lens ? '600' : '400'}
            color={lens ? 'fg' : 'fg.muted'}
            aria-label={lens ? `through ${name}` : 'everything'}
            px="1.5"
            title="What one looks through (\ and |)"
          >
            <Aperture size={13} />
            <Box truncate title={lens ? `through ${name}` : 'everything'} display={{ base: lens ? 'block' : 'none', lg: 'block' }} maxW="220px">
              {lens ? `through ${name}` : 'everything'}
            </Box>
          </Button>
        </Popover.Trigger>
        <Portal>
          <Popover.Positioner>
            <Popover.Content w="330px" borderWidth="1px" aria-label="Lenses">
              <Popover.Body p="2" fontSize="13.5px">
                {lenses.length === 0 && (
                  <Box color="fg.muted" px="1" pb="1">
                    No lens is kept yet. Compose conditions in the{' '}
                    <Box asChild textDecoration="underline">
                      <Link to={`/p/${project}/shape/register`}>register</Link>
                    </Box>
                    , and keep them as one.
                  </Box>
                )}
                {lenses.map(({ id, name: called, person }) => (
                  <Flex key={id} align="center" borderRadius="l2" _hover={{ bg: 'bg.subtle' }} {...(id === lens?.lens && { bg: 'bg.muted' })}>
                    <Box asChild flex="1" minW="0" textAlign="left" px="2" py="1" fontWeight={id === lens?.lens ? '600' : '400'}>
                      <button type="button" onClick={() => lookThrough(project, { lens: id, mode: lens?.mode ?? 'only' })} title={`Kept by ${person}`}>
                        <OneLine text={called} />
                      </button>
                    </Box>
                    <IconButton
                      aria-label={`Keep ${called} no more`}
                      title="Keep it no more"
                      size="2xs"
                      variant="ghost"
                      onClick={() => {
                        if (id === lens?.lens) lookThrough(project, undefined);
                        withdraw.mutate(id);
                      }}
                    >
                      <Trash2 size={12} />
                    </IconButton>
                  </Flex>
                ))}
                {lens && (
                  <Flex direction="column" gap="2" mt="2" pt="2" px="1" borderTopWidth="1px">
                    <Choice
                      label="What it does not show"
                      value={lens.mode}
                      width="100%"
                      options={[
                        { value: 'only', label: 'only these are shown' },
                        { value: 'lit', label: 'these are lit, the rest is faint' },
                      ]}
                      onChange={(mode) => lookThrough(project, { lens: lens.lens, mode: mode as 'only' })}
                    />
                    {lens.error ? (
                      <Box color="brick.fg">{lens.error.message}</Box>
                    ) : (
                      lens.seen && (
                        <Box color="fg.muted">
                          {counted(lens.seen.items, 'item')}, {counted(lens.seen.linksWithin, 'link')} between them; {counted(lens.seen.linksAcross, 'link')}{' '}
                          {lens.seen.linksAcross === 1 ? 'leads' : 'lead'} out of it.
                          {lens.seen.unknown.length > 0 && ' One of its conditions asks for what is not in the project, and narrows nothing.'}
                        </Box>
                      )
                    )}
                    {!here?.looksThrough && <Box color="fg.warning">This view shows everything: its figures are of all items.</Box>}
                    <Button size="2xs" variant="outline" onClick={() => lookThrough(project, undefined)}>
                      Look at everything
                    </Button>
                  </Flex>
                )}
              </Popover.Body>
            </Popover.Content>
          </Popover.Positioner>
        </Portal>
      </Popover.Root>
      {lens && (
        <>
          {!here?.looksThrough && (
            <Box fontSize="12px" color="fg.warning" whiteSpace="nowrap" display={{ base: 'none', lg: 'block' }}>
              not here: all is shown
            </Box>
          )}
          <IconButton aria-label="Look at everything" title="Look at everything" size="2xs" variant="plain" onClick={() => lookThrough(project, undefined)}>
            <X size={12} />
          </IconButton>
        </>
      )}
    </Flex>
  );
}
