import { Box, Button, Popover, Portal } from '@chakra-ui/react';
import type { Brief } from '@coomb/contract';
import { counted } from '@coomb/core';
import { useState } from 'react';
import { useHoldInLens } from '../../shared/lens/use-lens';
import { notify } from '../../shared/ui/notices';

const ways = [
  { as: 'pinned', label: 'Pin to the lens', says: 'in it, whatever its conditions say', done: 'Pinned to the lens' },
  { as: 'leftOut', label: 'Leave out of the lens', says: 'out of it, whatever its conditions say', done: 'Left out of the lens' },
  { as: 'asked', label: 'As its conditions say', says: 'neither pinned nor left out', done: 'Left to the conditions of the lens' },
] as const;

/** Holds items in the lens that is on, or out of it, by hand. */
export function LensHold({ project, lens, items, onDone }: { project: string; lens: string; items: readonly Brief[]; onDone: () => void }) {
  const hold = useHoldInLens(project, lens);
  const [open, setOpen] = useState(false);
  const run = ({ as, done }: (typeof ways)[number]) =>
    hold.mutate(
      { items: items.map(({ id }) => id), as },
      {
        onSuccess: ({ changed }) => {
          setOpen(false);
          notify(`${done}: ${counted(changed, 'item')}. Undo takes it back.`);
          onDone();
        },
      },
    );
  return (
    <Popover.Root lazyMount unmountOnExit open={open} onOpenChange={(details) => setOpen(details.open)} positioning={{ placement: 'bottom-end' }}>
      <Popover.Trigger asChild>
        <Button size="2xs" variant="outline" disabled={items.length === 0} title="In the lens that is on, or out of it, by hand">
          Lens…
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="280px" borderWidth="1px" aria-label="Hold in the lens">
            <Popover.Body p="2" fontSize="13px">
              <Box color="fg.muted" px="1" pb="1">
                {counted(items.length, 'item')}
              </Box>
              {ways.map((way) => (
                <Button
                  key={way.as}
                  size="xs"
                  variant="ghost"
                  w="100%"
                  justifyContent="flex-start"
                  title={way.says}
                  loading={hold.isPending}
                  onClick={() => run(way)}
                >
                  {way.label}
                </Button>
              ))}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
