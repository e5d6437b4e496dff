import { Box, Flex } from '@chakra-ui/react';
import type { Collection } from '@coomb/contract';
import { getKind } from '@coomb/core';
import { useProject } from '../../shared/live/project-queries';
import { ItemEditor } from '../item-sheet/ItemEditor';
import type { Written } from '../item-sheet/written';

interface Props {
  collection: Collection;
  /** Address below the project's at which the writing is taken up again. */
  path: string;
  onStore: (written: Written) => Promise<unknown>;
  onDone: () => void;
  onNext: () => void;
}

/** A new item while it is written; it gets its reference when it is stored. */
export function NewItem({ collection, path, onStore, onDone, onNext }: Props) {
  const project = useProject();
  return (
    <Flex gap="5" px="5" py="2.5" borderLeftWidth="3px" borderColor="moss.solid" role="article" aria-label={`A new item of ${collection.name}`}>
      <Box w="110px" flexShrink={0} textAlign="right" fontSize="12.5px" color="fg.muted" pt="1">
        new
      </Box>
      <Box flex="1" minW="0" maxW="620px">
        <ItemEditor
          project={project.id}
          item={{ title: '', html: '', fields: {}, revision: 0, heading: false, reference: `a new item of ${collection.name}` }}
          draftId={`new ${collection.id}`}
          path={path}
          kind={getKind(project.scheme, collection.kind)}
          onStore={onStore}
          onDone={onDone}
          onNext={onNext}
        />
      </Box>
    </Flex>
  );
}
