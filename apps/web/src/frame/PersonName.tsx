import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { renamePerson } from '@coomb/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../shared/api/client';
import { readPerson, writePerson } from '../shared/api/person';
import { notify, notifyError } from '../shared/ui/notices';
import { PersonMark, usePersons } from '../shared/ui/person-mark';

/** The name that changes are recorded under; a click lets the person write their own, or be called otherwise in all that was recorded. */
export function PersonName() {
  const [name, setName] = useState(readPerson());
  const [editing, setEditing] = useState<string>();
  const client = useQueryClient();
  const me = usePersons().data?.find((person) => person.name === name);
  const go = (next: string) => {
    writePerson(next);
    setName(next.trim());
    setEditing(undefined);
  };
  const rename = async (next: string) => {
    try {
      if (me) await call(renamePerson, { params: { person: me.id }, body: { name: next } });
      go(next);
      await client.invalidateQueries();
      notify(`You are ${next} now, in all that you ever did here.`);
    } catch (error) {
      notifyError(error);
    }
  };
  if (editing === undefined)
    return (
      <Button
        variant="ghost"
        size="xs"
        fontWeight="400"
        color={name ? 'fg' : 'fg.warning'}
        onClick={() => setEditing(name)}
        title="The name your changes are recorded under"
      >
        {name && <PersonMark name={name} />}
        {name || 'Who are you?'}
      </Button>
    );
  const next = editing.trim();
  // Whoever has done nothing here yet has nothing to be renamed in.
  const isRename = me !== undefined && next !== '' && next !== name;
  return (
    <Flex
      gap="1"
      align="center"
      position="relative"
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget) && !isRename) go(editing);
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        setEditing(undefined);
      }}
    >
      <Input
        size="xs"
        w="150px"
        autoFocus
        aria-label="Your name"
        placeholder="Your name"
        value={editing}
        maxLength={80}
        onChange={(event) => setEditing(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && !isRename && go(editing)}
      />
      {isRename && (
        <Box position="absolute" top="100%" right="0" mt="1" zIndex="popover" bg="bg.panel" borderWidth="1px" p="2" w="17rem" fontSize="13px">
          <Box mb="1.5">Is this another name for {name}, or somebody else?</Box>
          <Flex gap="1.5" wrap="wrap">
            <Button size="2xs" onClick={() => void rename(next)}>
              I am called {next} now
            </Button>
            <Button size="2xs" variant="outline" onClick={() => go(editing)}>
              Somebody else works here
            </Button>
          </Flex>
        </Box>
      )}
    </Flex>
  );
}
