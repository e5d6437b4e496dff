import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { ItemSheet } from '@coomb/contract';
import { useState } from 'react';
import { OneLine } from '../../shared/ui/one-line';
import { useJoinWaiting, useLetGo } from './queries';

/** Ends of links that lie in files which were not handed in: they are joined when the file comes, or here by hand. */
export function WaitingEnds({ project, waiting }: { project: string; waiting: ItemSheet['waiting'] }) {
  return (
    <Box mt="2" aria-label="Ends that wait" role="list">
      {waiting.map((one) => (
        <WaitingLine key={one.id} project={project} end={one} />
      ))}
    </Box>
  );
}

function WaitingLine({ project, end }: { project: string; end: ItemSheet['waiting'][number] }) {
  const join = useJoinWaiting(project);
  const letGo = useLetGo(project);
  const [item, setItem] = useState<string>();
  const [file, name] = [end.target.slice(0, end.target.lastIndexOf('#')), end.target.slice(end.target.lastIndexOf('#') + 1)];
  return (
    <Box role="listitem" borderTopWidth="1px" borderTopStyle="dashed" py="1" fontSize="13px">
      <Flex align="center" gap="2">
        <Box color="fg.muted">{end.phrase}</Box>
        <OneLine flex="1" text={`${name} in ${file}, which has not come yet`} />
        <Button size="2xs" variant="ghost" aria-expanded={item !== undefined} onClick={() => setItem(item === undefined ? '' : undefined)}>
          Join
        </Button>
        <Button size="2xs" variant="ghost" loading={letGo.isPending} onClick={() => letGo.mutate(end.id)}>
          Let go
        </Button>
      </Flex>
      {item !== undefined && (
        <Flex
          as="form"
          gap="2"
          py="1"
          onSubmit={(event) => {
            event.preventDefault();
            if (item.trim()) join.mutate({ end: end.id, item: item.trim() });
          }}
        >
          <Input
            size="2xs"
            autoFocus
            w="14rem"
            aria-label="Reference of the item that it is"
            placeholder="Reference of the item that it is"
            value={item}
            onChange={(event) => setItem(event.target.value)}
          />
          <Button type="submit" size="2xs" disabled={!item.trim()} loading={join.isPending}>
            Link it
          </Button>
        </Flex>
      )}
    </Box>
  );
}
