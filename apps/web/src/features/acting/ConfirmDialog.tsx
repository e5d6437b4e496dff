import { Box } from '@chakra-ui/react';
import type { Brief } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { notify } from '../../shared/ui/notices';
import { ReasonDialog } from './dialogs';
import { useConfirm, useSuspectsAt } from './queries';

/** Links that are named before they are confirmed. */
const MOST_NAMED = 30;

/** Confirms the suspect links of items: says which, what came to say something else, and asks for a reason that is kept. */
export function ConfirmDialog({ project, items, onClose, onDone }: { project: string; items: readonly Brief[]; onClose: () => void; onDone: () => void }) {
  const suspects = useSuspectsAt(
    project,
    items.map(({ id }) => id),
  );
  const confirm = useConfirm(project);
  const links = suspects.data?.links ?? [];
  const many = counted(links.length, 'link');
  return (
    <ReasonDialog
      title={`Suspect links of ${counted(items.length, 'item')}`}
      says={
        suspects.error ? (
          <Box color="brick.fg">{suspects.error.message}</Box>
        ) : !suspects.data ? (
          'Looking for suspect links…'
        ) : links.length === 0 ? (
          'None of their links is suspect: there is nothing to confirm.'
        ) : (
          <>
            They will be confirmed by you against what both ends say now. Should a text move on meanwhile, none of them is.
            <Box as="ul" mt="2" maxH="9rem" overflowY="auto" fontSize="13px">
              {links.slice(0, MOST_NAMED).map(({ id, item, phrase, other }) => (
                <li key={id}>
                  {item.reference}, which changed, {phrase} {other.reference} {other.title}
                </li>
              ))}
              {links.length > MOST_NAMED && <li>and {figure(links.length - MOST_NAMED)} more</li>}
            </Box>
          </>
        )
      }
      verb={links.length > 0 ? `Confirm ${many}` : 'Confirm'}
      busy={confirm.isPending}
      disabled={links.length === 0 || suspects.isFetching}
      onDo={(reason) =>
        confirm.mutate(
          { links: links.map(({ id }) => id), reason },
          {
            onSuccess: () => {
              notify(`Confirmed: ${many}. Undo takes it back.`);
              onDone();
            },
          },
        )
      }
      onClose={onClose}
    />
  );
}
