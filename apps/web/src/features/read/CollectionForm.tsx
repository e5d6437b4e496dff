import { Button, Flex, Input } from '@chakra-ui/react';
import { findKind, getUsualKind, holdsOf, offeredKinds, prefixOf, withinSentence } from '@coomb/core';
import { createCollection, type BodyOf } from '@coomb/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../shared/api/client';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { useChange } from '../../shared/live/use-change';

/** Starts an empty collection. */
export function CollectionForm() {
  const project = useProject();
  const navigate = useNavigate();
  const create = useChange(project.id, (body: BodyOf<typeof createCollection>) => call(createCollection, { params: { project: project.id }, body }));
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const usual = getUsualKind(project.scheme);
  const kinds = offeredKinds(project.scheme);
  const [kind, setKind] = useState(usual.id);
  const [prefix, setPrefix] = useState(prefixOf(usual));
  if (!open)
    return (
      <Button size="xs" variant="outline" onClick={() => setOpen(true)}>
        Start a collection
      </Button>
    );
  return (
    <Flex
      as="form"
      direction="column"
      gap="2"
      textAlign="left"
      maxW="240px"
      mx="auto"
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate(
          { name, kind, prefix, holds: holdsOf(findKind(project.scheme, kind)) },
          { onSuccess: ({ id }) => void navigate(`/p/${project.id}/shape/${id}`) },
        );
      }}
    >
      <Input
        size="xs"
        autoFocus
        placeholder="Name"
        aria-label="Name of the collection"
        value={name}
        onChange={(event) => setName(event.target.value)}
        bg="bg"
      />
      <Flex gap="2">
        <Choice
          label="It holds"
          value={kind}
          options={kinds.map((one) => ({ value: one.id, label: withinSentence(one.plural) }))}
          onChange={(value) => {
            setKind(value);
            setPrefix(prefixOf(findKind(project.scheme, value)));
          }}
        />
        <Input
          size="xs"
          w="80px"
          fontFamily="mono"
          aria-label="Prefix of references"
          value={prefix}
          onChange={(event) => setPrefix(event.target.value.toUpperCase())}
          bg="bg"
        />
      </Flex>
      <Flex gap="2">
        <Button type="submit" size="xs" disabled={!name.trim() || !/^[A-Z][A-Z0-9]{0,9}$/.test(prefix)} loading={create.isPending}>
          Start
        </Button>
        <Button size="xs" variant="ghost" onClick={() => setOpen(false)}>
          Leave
        </Button>
      </Flex>
    </Flex>
  );
}
