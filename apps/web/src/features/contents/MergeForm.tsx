import { Box, Button, Flex } from '@chakra-ui/react';
import { counted } from '@coomb/core';
import { useState } from 'react';
import { type Project, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { useMergeSets, usePlanMerge } from './queries';

/** Merging a set into another: what becomes of each collection, before it is done. */
export function MergeForm({ set, onDone }: { set: Project['sets'][number]; onDone: () => void }) {
  const project = useProject();
  const others = project.sets.filter((one) => one.id !== set.id);
  const [into, setInto] = useState(others[0]?.id ?? '');
  const plan = usePlanMerge(project.id, set.id, into || null);
  const merge = useMergeSets(project.id);
  return (
    <Box as="section" aria-label={`Merge ${set.name}`} borderWidth="1px" borderColor="moss.border" bg="bg.panel" px="4" py="2" my="2">
      <Flex gap="2" align="center" wrap="wrap">
        <Box>Merge into</Box>
        <Choice
          label="Set that it is merged into"
          value={into}
          options={[...others.map((one) => ({ value: one.id, label: one.name })), { value: '', label: 'the whole project' }]}
          onChange={setInto}
        />
        <Button
          size="xs"
          disabled={!plan.data}
          loading={merge.isPending}
          onClick={() => merge.mutate({ set: set.id, into: into || null }, { onSuccess: onDone })}
        >
          Merge
        </Button>
        <Button size="xs" variant="ghost" onClick={onDone}>
          Leave
        </Button>
      </Flex>
      {plan.data?.steps.map((step) => (
        <Box key={step.collection} fontSize="13px" py="0.5">
          {step.collection}{' '}
          <Box as="span" color="fg.muted">
            {step.into === null ? 'moves over as it is' : `gives its ${counted(step.items, 'item')} to`}
          </Box>{' '}
          {step.into}
        </Box>
      ))}
      {plan.data?.steps.length === 0 && (
        <Box fontSize="13px" color="fg.muted">
          It holds no collection: only its name goes.
        </Box>
      )}
    </Box>
  );
}
