import { Button } from '@chakra-ui/react';
import type { Brief } from '@coomb/contract';
import { counted } from '@coomb/core';
import { useHoldInLens } from '../../shared/lens/use-lens';
import { notify } from '../../shared/ui/notices';

/** Pins items to the lens that is on, or leaves them out of it, whatever its conditions say. */
export function LensHold({ project, lens, items, onDone }: { project: string; lens: string; items: readonly Brief[]; onDone: () => void }) {
  const hold = useHoldInLens(project, lens);
  const run = (as: 'pinned' | 'leftOut') =>
    hold.mutate(
      { items: items.map(({ id }) => id), as },
      {
        onSuccess: ({ changed }) => {
          notify(`${as === 'pinned' ? 'Pinned to the lens' : 'Left out of the lens'}: ${counted(changed, 'item')}. Undo takes it back.`);
          onDone();
        },
      },
    );
  const many = counted(items.length, 'item');
  return (
    <>
      <Button
        size="2xs"
        variant="outline"
        disabled={items.length === 0}
        onClick={() => run('pinned')}
        title={`${many}: in the lens, whatever its conditions say`}
      >
        Pin to the lens
      </Button>
      <Button
        size="2xs"
        variant="outline"
        disabled={items.length === 0}
        onClick={() => run('leftOut')}
        title={`${many}: out of the lens, whatever its conditions say`}
      >
        Leave out of the lens
      </Button>
    </>
  );
}
