import { Box, Button, Flex, Progress } from '@chakra-ui/react';
import { PenLine, Redo2, Undo2 } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import { Link } from 'react-router';
import { useDrafts } from '../shared/drafts/drafts';
import { useProject } from '../shared/live/project-queries';
import type { Live } from '../shared/live/use-live';
import { NoticeLine } from '../shared/ui/notices';
import { PersonMark } from '../shared/ui/person-mark';
import { counted } from '@coomb/core';
import { useKeys } from '../shared/ui/use-keys';
import { useCancelJob, useJobs, useTakeBack, useUndoState, useUpkeep } from './ledger-queries';
import { OneLine } from '../shared/ui/one-line';

/** The strip below every view: undo and redo, running jobs, who else is here. */
export function LedgerStrip({ people, connected, missed, forgetMissed, marks }: Live & { marks?: ReactNode }) {
  const project = useProject();
  const { data: state } = useUndoState(project.id);
  const takeBack = useTakeBack(project.id);
  const { mutate } = takeBack;
  const keys = useMemo(() => ({ 'Control+z': () => mutate('undo'), 'Control+y': () => mutate('redo') }), [mutate]);
  useKeys(keys);
  return (
    <Flex
      as="footer"
      minH="30px"
      px={{ base: '1', md: '4' }}
      wrap="wrap"
      align="center"
      gap="2"
      borderTopWidth="1px"
      bg="bg.panel"
      fontSize="12.5px"
      color="fg.muted"
      flexShrink={0}
    >
      <Button size="2xs" variant="ghost" disabled={!state?.undo || takeBack.isPending} onClick={() => mutate('undo')} title="Undo (Ctrl Z)">
        <Undo2 size={13} /> Undo
        {state?.undo && <OneLine as="span" fontWeight="400" maxW={{ base: '0', lg: '260px' }} text={`: ${state.undo}`} />}
      </Button>
      <Button size="2xs" variant="ghost" disabled={!state?.redo || takeBack.isPending} onClick={() => mutate('redo')} title="Redo (Ctrl Y)">
        <Redo2 size={13} /> Redo
        {state?.redo && <OneLine as="span" fontWeight="400" maxW={{ base: '0', lg: '200px' }} text={`: ${state.redo}`} />}
      </Button>
      {marks}
      <RunningJobs project={project.id} />
      <Unfinished project={project.id} />
      <Upkeep />
      <NoticeLine />
      {!connected && (
        <Box color="fg.warning" role="status">
          Not connected. What you write is kept here; trying again…
        </Box>
      )}
      {missed.length > 0 && (
        <Flex gap="1" align="center" role="status" color="fg.warning">
          <Box asChild textDecoration="underline">
            <Link to={`/p/${project.id}/changes`} title={missed.map((batch) => `${batch.person}: ${batch.action}`).join('\n')}>
              {counted(missed.length, 'change')} by {[...new Set(missed.map((batch) => batch.person))].join(', ')} while you were away
            </Link>
          </Box>
          <Button size="2xs" variant="ghost" onClick={forgetMissed}>
            Seen
          </Button>
        </Flex>
      )}
      {people.length > 1 && (
        <Flex gap="1" align="center" role="group" aria-label={`Here: ${people.map(({ name }) => name).join(', ')}`}>
          {people.slice(0, 8).map(({ name }) => (
            <PersonMark key={name} name={name} />
          ))}
          {people.length > 8 && <Box>and {people.length - 8} more</Box>}
        </Flex>
      )}
      <Box asChild _hover={{ textDecoration: 'underline' }}>
        <Link to={`/p/${project.id}/changes`}>Change {project.seq}</Link>
      </Box>
    </Flex>
  );
}

const LITTLE_ROOM = 1024 ** 3;

/** What whoever looks after the server must know: copies that failed, a disk that fills. */
function Upkeep() {
  const upkeep = useUpkeep().data;
  if (upkeep?.copies?.failed)
    return (
      <OneLine color="brick.fg" role="status" maxW="420px" text={`${upkeep.copies.folder}: ${upkeep.copies.failed}`}>
        The copy of the data failed: {upkeep.copies.failed}
      </OneLine>
    );
  if (upkeep && upkeep.free < LITTLE_ROOM)
    return (
      <Box color="fg.warning" role="status">
        {Math.floor(upkeep.free / 1024 ** 2)} MB left on the server’s disk
      </Box>
    );
  return null;
}

/** Texts that were begun and not stored: each leads back to where it is written. */
function Unfinished({ project }: { project: string }) {
  const drafts = Object.entries(useDrafts(project));
  if (drafts.length === 0) return null;
  return (
    <Flex gap="1.5" minW="0" color="fg.warning" align="center">
      <PenLine size={12} aria-hidden="true" />
      <Box flexShrink={0}>Not stored yet:</Box>
      {drafts.slice(0, 2).map(([id, draft]) => (
        <Box asChild key={id} textDecoration="underline" truncate maxW="220px">
          <Link to={`/p/${project}/${draft.path}`} title={draft.title || 'Go on writing'}>
            {draft.about}
          </Link>
        </Box>
      ))}
      {drafts.length > 2 && <Box flexShrink={0}>and {drafts.length - 2} more</Box>}
    </Flex>
  );
}

function RunningJobs({ project }: { project: string }) {
  const jobs = useJobs(project).data?.filter((job) => job.state === 'running') ?? [];
  const cancel = useCancelJob(project);
  return jobs.map((job) => (
    <Flex key={job.id} align="center" gap="2">
      <Box>
        {job.label}: {job.step}
      </Box>
      <Progress.Root value={job.progress * 100} w="120px" size="xs" aria-label={job.label}>
        <Progress.Track>
          <Progress.Range />
        </Progress.Track>
      </Progress.Root>
      <Button size="2xs" variant="outline" onClick={() => cancel.mutate(job.id)}>
        Cancel
      </Button>
    </Flex>
  ));
}
