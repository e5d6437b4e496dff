import { Box, Button, Flex } from '@chakra-ui/react';
import { figure } from '@coomb/core';
import type { HeldItem } from '../shared/marks/at-hand';
import { useMarks, writeMarks } from '../shared/marks/marks';

const SAID = 3;
const say = (items: readonly HeldItem[]) =>
  `${items
    .slice(0, SAID)
    .map(({ reference }) => reference)
    .join(', ')}${items.length > SAID ? ` and ${figure(items.length - SAID)} more` : ''}`;

/** What is marked to be joined, in the strip: it stays while one goes elsewhere. */
export function MarksLine({ project, onJoin }: { project: string; onJoin: () => void }) {
  const { first, second } = useMarks(project);
  if (first.length + second.length === 0) return null;
  const titles = (items: readonly HeldItem[]) => items.map(({ reference, title }) => `${reference} ${title}`).join('\n');
  return (
    <Flex role="group" aria-label="Marked to be linked" align="center" gap="1.5" color="fg" flexShrink={0}>
      <Box bg="moss.subtle" borderRadius="l2" px="1.5" fontFamily="mono" title={titles(first)}>
        {first.length > 0 ? say(first) : '…'}
      </Box>
      <Box color="fg.muted">with</Box>
      <Box bg="moss.subtle" borderRadius="l2" px="1.5" fontFamily="mono" title={titles(second)}>
        {second.length > 0 ? say(second) : 'what is marked next'}
      </Box>
      <Button size="2xs" variant="outline" onClick={onJoin} title="Link them (;)">
        Link…
      </Button>
      <Button size="2xs" variant="ghost" onClick={() => writeMarks(project, { first: [], second: [] })}>
        Let go
      </Button>
    </Flex>
  );
}
