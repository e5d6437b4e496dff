import { Box, Button, Flex, Grid, Input } from '@chakra-ui/react';
import { counted, starters } from '@coomb/core';
import { useDeferredValue, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { ErrorNote } from '../../shared/ui/feedback';
import { useCreateSet, usePlanSet } from './queries';

/** A further set of collections: what it is called, what it starts from, and what it would bring. */
export function SetForm({ onDone }: { onDone: () => void }) {
  const project = useProject();
  const [name, setName] = useState('');
  const [initials, setInitials] = useState('');
  const [starter, setStarter] = useState(starters[0]!.id);
  const wish = { name: name.trim(), starter, initials: initials.trim() };
  const asked = useDeferredValue(wish);
  const plan = usePlanSet(project.id, { ...asked, name: asked.name || 'New set' });
  const create = useCreateSet(project.id);
  return (
    <Box
      as="form"
      aria-label="A further set"
      borderWidth="1px"
      borderColor="moss.border"
      bg="bg.panel"
      px="4"
      py="3"
      my="3"
      onSubmit={(event) => {
        event.preventDefault();
        if (wish.name) create.mutate(wish, { onSuccess: onDone });
      }}
      onKeyDown={(event) => event.key === 'Escape' && onDone()}
    >
      <Flex gap="2" wrap="wrap" align="center">
        <Input
          size="xs"
          w="16rem"
          autoFocus
          bg="bg"
          placeholder="Otterby lock"
          aria-label="Name of the set"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
        <Choice label="What the set starts from" value={starter} options={starters.map((one) => ({ value: one.id, label: one.label }))} onChange={setStarter} />
        <Input
          size="xs"
          w="6rem"
          bg="bg"
          fontFamily="mono"
          placeholder="OL"
          aria-label="Letters before the prefixes of its references"
          title="Letters before the prefixes of its references, such as OL for OLSYS-001"
          value={initials}
          maxLength={4}
          onChange={(event) => setInitials(event.target.value.replace(/[^a-z0-9]/gi, '').toUpperCase())}
        />
        <Button type="submit" size="xs" disabled={!wish.name} loading={create.isPending}>
          Add the set
        </Button>
        <Button size="xs" variant="ghost" onClick={onDone}>
          Leave
        </Button>
      </Flex>
      {plan.error && <ErrorNote error={plan.error} />}
      {plan.data && (
        <Box mt="2" fontSize="13px">
          <Grid templateColumns="1fr 6rem 12rem" columnGap="3">
            {plan.data.collections.map((one) => (
              <Flex key={one.name + one.prefix} display="contents">
                <Box>{one.name}</Box>
                <Box fontFamily="mono" fontSize="12.5px" color="fg.muted">
                  {one.prefix}
                </Box>
                <Box color="fg.muted">{one.shared ? 'is there: shared' : `new, ${counted(one.sections, 'section')}`}</Box>
              </Flex>
            ))}
          </Grid>
          {plan.data.parts.length > 0 && (
            <Box color="fg.muted" mt="1">
              The scheme gets {counted(plan.data.parts.length, 'part')}: {plan.data.parts.map((part) => part.label).join(', ')}.
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}
