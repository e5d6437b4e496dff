import { Box, Button, Flex } from '@chakra-ui/react';
import { format } from 'date-fns';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote } from '../../shared/ui/feedback';
import { Reference } from '../../shared/ui/reference';
import { Words } from '../../shared/ui/words';
import { useDifference } from './queries';
import type { SuspectRow } from './suspect-rows';
import { useItemText } from './use-item-text';

/** What the ends of the marked link said when it was last confirmed, against what they say now; and what the other end asks for. */
export function DifferencePane({ project, row }: { project: string; row: SuspectRow | undefined }) {
  const difference = useDifference(project, row?.link?.id);
  const other = useItemText(project, row?.link?.other.id);
  const [whole, setWhole] = useState(true);
  const { scheme } = useProject();
  if (!row?.link) return null;
  const ends = difference.data?.ends ?? [];
  return (
    <Box flex="1 1 48%" minW="0" h="100%" overflow="auto" borderLeftWidth="1px" px="5" py="3" aria-live="polite">
      {difference.error && <ErrorNote error={difference.error} />}
      {ends.map(({ item, words, changedBy }) => (
        <Box key={item.id} mb="5">
          <Flex align="baseline" gap="2" mb="1" fontSize="13px" color="fg.muted" wrap="wrap">
            <Reference reference={item.reference} />
            <Box>
              since {difference.data!.confirmedBy} confirmed the link
              {changedBy && `, changed by ${changedBy}`}
            </Box>
          </Flex>
          <Box fontSize="16px" lineHeight="1.55">
            <Words words={words} />
          </Box>
        </Box>
      ))}
      {!ends.some(({ item }) => item.id === row.link!.other.id) && (
        <Box borderTopWidth="1px" pt="3">
          <Flex align="baseline" gap="2" fontSize="13px" color="fg.muted" mb="1">
            <Box>
              {row.group.item.reference} {row.link.phrase}
            </Box>
            <Reference reference={row.link.other.reference} />
            <Box flex="1" />
            <Button size="2xs" variant="ghost" onClick={() => setWhole(!whole)}>
              {whole ? 'Hide its text' : 'Show its text'}
            </Button>
          </Flex>
          <Box fontFamily="serif" fontSize="16px" fontWeight="600">
            {row.link.other.title}
          </Box>
          {whole && (
            <Box fontFamily="serif" fontSize="15.5px" lineHeight="1.55" whiteSpace="pre-line">
              {other}
            </Box>
          )}
          <Box mt="1" fontSize="12.5px" color="fg.muted">
            {scheme.kinds.find(({ id }) => id === row.link!.other.kind)?.label}, unchanged
          </Box>
        </Box>
      )}
      <Box mt="5" fontSize="12.5px" color="fg.subtle">
        {row.group.action}, {format(new Date(row.group.at), 'd MMM yyyy, HH:mm')}
      </Box>
    </Box>
  );
}
