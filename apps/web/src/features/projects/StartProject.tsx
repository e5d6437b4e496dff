import { Box, Button, Checkbox, Flex, Grid, Heading, Input } from '@chakra-ui/react';
import { schemeFileSchema } from '@coomb/contract';
import { assembleScheme, readSchemeFile, type Scheme, type SchemeFile, starters } from '@coomb/core';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { notifyError } from '../../shared/ui/notices';
import { readFileOf } from '../../shared/read-json';
import { useCreateProject } from './queries';
import { StarterDrawing } from './StarterDrawing';

/** What a project may start from: a starter by its id, or the scheme of a file. */
type Choice = { starter: string } | { file: SchemeFile; scheme: Scheme };

/** Starts a project: which sort of work it is for, and what it is called. */
export function StartProject() {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [choice, setChoice] = useState<Choice>({ starter: starters[0]!.id });
  const [outline, setOutline] = useState(true);
  const [own, setOwn] = useState<{ file: SchemeFile; scheme: Scheme }>();
  const input = useRef<HTMLInputElement>(null);
  const create = useCreateProject((id) => void navigate(`/p/${id}`));
  const takeFile = async (file: File) => {
    try {
      const parsed = (await readFileOf(file, schemeFileSchema, 'a scheme file')) as SchemeFile;
      const taken = { file: parsed, scheme: assembleScheme(readSchemeFile(parsed)) };
      setOwn(taken);
      setChoice(taken);
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <Box
      as="form"
      mt="10"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) create.mutate({ name: name.trim(), ...('starter' in choice ? { starter: choice.starter, outline } : { scheme: choice.file }) });
      }}
    >
      <Heading as="h2" fontSize="18px" fontWeight="650" mb="1">
        Start a project
      </Heading>
      <Box color="fg.muted" fontSize="14px" mb="3">
        Each start brings layers, kinds, links and rules, and collections with a first outline. All of it can be changed later, in Shape.
      </Box>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="3" role="radiogroup" aria-label="What the project is for">
        {starters.map((starter) => (
          <Card
            key={starter.id}
            label={starter.label}
            explains={starter.explains}
            scheme={starter.scheme}
            chosen={'starter' in choice && choice.starter === starter.id}
            onChoose={() => setChoice({ starter: starter.id })}
          />
        ))}
        {own && (
          <Card
            label={own.file.name}
            explains="The scheme of your file, without collections."
            scheme={own.scheme}
            chosen={choice === own}
            onChoose={() => setChoice(own)}
          />
        )}
      </Grid>
      {'starter' in choice && (
        <Checkbox.Root mt="3" size="sm" checked={outline} onCheckedChange={(event) => setOutline(event.checked === true)}>
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">with collections and a first outline</Checkbox.Label>
        </Checkbox.Root>
      )}
      <Flex gap="3" mt="3" wrap="wrap">
        <Input
          value={name}
          onChange={(event) => setName(event.target.value)}
          placeholder="Name of a new project"
          aria-label="Name of a new project"
          bg="bg.panel"
          maxLength={120}
          flex="1"
          minW="14rem"
        />
        <Button type="submit" disabled={!name.trim()} loading={create.isPending}>
          Start a project
        </Button>
        <Button variant="ghost" onClick={() => input.current?.click()}>
          From a scheme file…
        </Button>
        <input
          ref={input}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label="Scheme file"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void takeFile(file);
          }}
        />
      </Flex>
    </Box>
  );
}

function Card({ label, explains, scheme, chosen, onChoose }: { label: string; explains: string; scheme: Scheme; chosen: boolean; onChoose: () => void }) {
  return (
    <Box
      asChild
      borderWidth="2px"
      borderColor={chosen ? 'moss.solid' : 'border'}
      bg={chosen ? 'moss.subtle' : 'bg.panel'}
      textAlign="left"
      p="0"
      overflow="hidden"
      borderRadius="l3"
      display="flex"
      flexDirection="column"
      alignItems="stretch"
      _hover={{ borderColor: chosen ? 'moss.solid' : 'moss.border' }}
    >
      <button type="button" role="radio" aria-checked={chosen} onClick={onChoose}>
        <StarterDrawing scheme={scheme} />
        <Box px="3" py="2">
          <Box fontWeight="600">{label}</Box>
          <Box color="fg.muted" fontSize="13px" lineHeight="1.35">
            {explains}
          </Box>
        </Box>
      </button>
    </Box>
  );
}
