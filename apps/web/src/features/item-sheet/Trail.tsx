import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import type { TrailLink } from '@coomb/contract';
import { Unlink } from 'lucide-react';
import { useState } from 'react';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { useConfirmLinks, useLinkDifference, useRemoveLinks } from './queries';
import { Words } from './Words';
import { OneLine } from '../../shared/ui/one-line';

/** Links upstream and downstream of an item, grouped by phrase; suspect ones say what changed and can be confirmed. */
export function Trail({ project, title, empty, links }: { project: string; title: string; empty: string; links: TrailLink[] }) {
  const phrases = [...new Set(links.map((link) => link.phrase))];
  return (
    <Box flex="1" minW="0">
      <Box color="fg.muted" fontSize="12.5px" mb="1">
        {title}
      </Box>
      {links.length === 0 && (
        <Box color="fg.subtle" fontSize="13px" fontStyle="italic">
          {empty}
        </Box>
      )}
      {phrases.map((phrase) => (
        <Box key={phrase} mb="2">
          <Box fontSize="12.5px" color="fg.muted">
            {phrase}
          </Box>
          {links
            .filter((link) => link.phrase === phrase)
            .map((link) => (
              <TrailEntry key={link.id} project={project} link={link} />
            ))}
        </Box>
      ))}
    </Box>
  );
}

function TrailEntry({ project, link }: { project: string; link: TrailLink }) {
  const remove = useRemoveLinks(project);
  const [open, setOpen] = useState(false);
  return (
    <Box borderTopWidth="1px" py="1">
      <Flex align="center" gap="2">
        <StateMark state={link.other.state} bare />
        <Reference reference={link.other.reference} />
        <OneLine flex="1" text={link.other.title} />
        {link.suspect && (
          <Button size="2xs" variant="subtle" color="fg.warning" onClick={() => setOpen(!open)} aria-expanded={open}>
            Suspect
          </Button>
        )}
        <IconButton
          aria-label={`Remove the link to ${link.other.reference}`}
          title="Remove this link"
          size="2xs"
          variant="ghost"
          disabled={remove.isPending}
          onClick={() => remove.mutate([link.id])}
        >
          <Unlink size={12} />
        </IconButton>
      </Flex>
      {open && link.suspect && <Suspicion project={project} link={link.id} />}
    </Box>
  );
}

function Suspicion({ project, link }: { project: string; link: string }) {
  const difference = useLinkDifference(project, link);
  const confirm = useConfirmLinks(project);
  if (!difference.data) return null;
  return (
    <Box bg="bg.subtle" p="2" fontSize="13px">
      {difference.data.ends.map((end) => (
        <Box key={end.item.id} mb="2">
          <Box color="fg.muted">
            {end.item.reference} since {difference.data.confirmedBy} confirmed the link{end.changedBy && `, changed by ${end.changedBy}`}:
          </Box>
          <Words words={end.words} />
        </Box>
      ))}
      <Button size="2xs" loading={confirm.isPending} onClick={() => confirm.mutate([link])}>
        The link still holds
      </Button>
    </Box>
  );
}
