import { Box, Button, Flex, Heading, IconButton } from '@chakra-ui/react';
import { counted } from '@coomb/core';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import { type Project, useProject } from '../../shared/live/project-queries';
import { Page } from '../../shared/ui/page';
import { CollectionForm } from '../read/CollectionForm';
import { CollectionLine } from './CollectionLine';
import { MergeForm } from './MergeForm';
import { NameLine } from './NameLine';
import { useEditSet, useRenameProject } from './queries';
import { SetForm } from './SetForm';

/** What the project holds: its collections, and the sets that they belong to. */
export function ContentsPage() {
  const project = useProject();
  const rename = useRenameProject(project.id);
  const [adding, setAdding] = useState(false);
  const own = project.collections.filter((one) => one.set === null);
  return (
    <Page
      lead={`${counted(project.collections.length, 'collection')}${project.sets.length > 0 ? ` in ${counted(project.sets.length, 'set')}` : ''}. Collections lie in the order of their layers.`}
      actions={
        <Button size="xs" variant="outline" onClick={() => setAdding(true)}>
          Add a set
        </Button>
      }
    >
      <Box maxW="76rem">
        {adding && <SetForm onDone={() => setAdding(false)} />}
        <NameLine name={project.name} what="the project" onRename={(name) => rename.mutate(name)}>
          <Heading as="h2" fontSize="17px" fontWeight="600" py="1">
            {project.name}
          </Heading>
        </NameLine>
        <Lines collections={own} />
        {project.sets.map((set, index) => (
          <SetPart key={set.id} set={set} index={index} />
        ))}
        <Box mt="5">
          <CollectionForm />
        </Box>
      </Box>
    </Page>
  );
}

function SetPart({ set, index }: { set: Project['sets'][number]; index: number }) {
  const { id, sets, collections } = useProject();
  const edit = useEditSet(id);
  const [merging, setMerging] = useState(false);
  return (
    <Box as="section" aria-label={set.name} mt="5">
      <Flex align="center" gap="1" wrap="wrap">
        <NameLine name={set.name} what={set.name} onRename={(name) => edit.mutate({ set: set.id, name })}>
          <Heading as="h2" fontSize="17px" fontWeight="600" py="1">
            {set.name}
          </Heading>
        </NameLine>
        <IconButton
          size="2xs"
          variant="ghost"
          aria-label={`Move ${set.name} up`}
          title="Up"
          disabled={index === 0}
          onClick={() => edit.mutate({ set: set.id, before: sets[index - 1]!.id })}
        >
          <ArrowUp size={13} />
        </IconButton>
        <IconButton
          size="2xs"
          variant="ghost"
          aria-label={`Move ${set.name} down`}
          title="Down"
          disabled={index === sets.length - 1}
          onClick={() => edit.mutate({ set: set.id, before: sets[index + 2]?.id ?? null })}
        >
          <ArrowDown size={13} />
        </IconButton>
        <Button size="2xs" variant="ghost" aria-expanded={merging} onClick={() => setMerging(!merging)}>
          Merge into…
        </Button>
      </Flex>
      {merging && <MergeForm set={set} onDone={() => setMerging(false)} />}
      <Lines collections={collections.filter((one) => one.set === set.id)} />
    </Box>
  );
}

function Lines({ collections }: { collections: Project['collections'] }) {
  if (collections.length === 0)
    return (
      <Box color="fg.muted" fontSize="13px" py="1" borderTopWidth="1px">
        No collection yet.
      </Box>
    );
  return (
    <Box role="list" borderBottomWidth="1px">
      {collections.map((collection) => (
        <CollectionLine key={collection.id} collection={collection} order={collections} />
      ))}
    </Box>
  );
}
