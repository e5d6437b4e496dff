import { Box } from '@chakra-ui/react';
import type { Brief } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { WaiveDialog } from './dialogs';
import { useMissing } from './queries';

/** Waives a rule for those of some items that miss it. */
export function WaiveItemsDialog({ items, onClose, onDone }: { items: readonly Brief[]; onClose: () => void; onDone: () => void }) {
  const { id, scheme } = useProject();
  const [rule, setRule] = useState(scheme.rules[0]?.id ?? '');
  const missing = useMissing(id, rule);
  const gaps = items.filter((item) => missing.data?.has(item.id));
  return (
    <WaiveDialog project={id} findings={gaps.map((item) => `gap:${rule}:${item.id}`)} onClose={onClose} onDone={onDone}>
      <Choice label="Rule" value={rule} options={scheme.rules.map((one) => ({ value: one.id, label: one.label }))} onChange={setRule} width="100%" />
      <Box fontSize="13px" color={missing.error ? 'brick.fg' : 'fg.muted'} aria-live="polite">
        {missing.error
          ? missing.error.message
          : missing.data &&
            (gaps.length === 0
              ? 'None of them misses this rule.'
              : `${figure(gaps.length)} of ${counted(items.length, 'item')} ${gaps.length === 1 ? 'misses' : 'miss'} it.`)}
      </Box>
    </WaiveDialog>
  );
}
