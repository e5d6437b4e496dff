import { Box, Flex } from '@chakra-ui/react';
import { Fragment } from 'react';
import { Link, NavLink } from 'react-router';
import { useThrough } from '../shared/lens/through';
import type { Project } from '../shared/live/project-queries';
import { OneLine } from '../shared/ui/one-line';
import { addressesOf, type StageId, stages, type View } from '../shared/view';

const entriesOf = (views: readonly View[], stage: View['stage']) => views.filter((view) => view.stage === stage && view.path !== undefined);

/** The entry that leads to a view: its own, or for what was opened from a list (`changes/:seq`) the entry of that list. */
function entryFor(here: View | null, entries: readonly View[]): View | undefined {
  if (!here || here.path !== undefined) return entries.find((view) => view === here);
  const above = entries.filter(({ path }) => path && addressesOf(here).some((address) => address.startsWith(`${path}/`)));
  return above.toSorted((a, b) => b.path!.length - a.path!.length)[0];
}

/**
 * The course of the work. The stages stand in one line and never move; the views of the stage one is in stand in the line below,
 * always at the same place.
 */
export function CourseBar({ project, views, here }: { project: Project; views: readonly View[]; here: View | null }) {
  const base = `/p/${project.id}`;
  const stage = here?.stage ?? 'home';
  const entries = entriesOf(views, stage);
  const entry = entryFor(here, entries);
  return (
    <Box as="nav" aria-label="Course of the work" bg="bg.panel" borderBottomWidth="1px" flexShrink={0}>
      <Flex minH={{ base: '28px', lg: '32px' }} px={{ base: '1', md: '4' }} align="stretch" wrap="wrap" gap="1">
        {stages.map((one, index) => (
          <Fragment key={one.id}>
            {index > 0 && <Seam />}
            <StageEntry id={one.id} label={one.label} entries={entriesOf(views, one.id)} project={project} base={base} here={one.id === stage} />
          </Fragment>
        ))}
      </Flex>
      <Flex
        minH={{ base: '26px', lg: '28px' }}
        px={{ base: '1', md: '4' }}
        align="center"
        wrap={{ base: 'wrap', lg: 'nowrap' }}
        gap="1"
        bg="bg"
        role="group"
        aria-label="Views"
      >
        {entries.map((view) => (
          <Box
            asChild
            key={view.path}
            fontSize="13px"
            lineHeight="24px"
            px="2"
            borderRadius="l2"
            color={view === entry ? 'moss.fg' : 'fg.muted'}
            bg={view === entry ? 'moss.subtle' : 'transparent'}
            _hover={{ color: 'fg' }}
            whiteSpace="nowrap"
          >
            <NavLink to={view.path ? `${base}/${view.path}` : base} end title={view.help} data-entry={view === entry ? 'here' : undefined}>
              {view.name}
            </NavLink>
          </Box>
        ))}
        {here && (
          <OneLine ml="auto" pl="4" minW="0" flex="0 1 auto" display={{ base: 'none', lg: 'block' }} color="fg.muted" fontSize="12.5px" text={here.help} />
        )}
      </Flex>
    </Box>
  );
}

/** A small dip between stages: the line of the valley. */
function Seam() {
  return (
    <Flex align="flex-end" aria-hidden="true" pb="8px" display={{ base: 'none', lg: 'flex' }}>
      <svg width="22" height="10" viewBox="0 0 22 10">
        <path d="M0 1c6 0 6 8 11 8s5-8 11-8" fill="none" stroke="var(--chakra-colors-border-emphasized)" strokeWidth="1.5" />
      </svg>
    </Flex>
  );
}

interface StageProps {
  id: StageId;
  label: string;
  entries: View[];
  project: Project;
  base: string;
  here: boolean;
}

function StageEntry({ label, entries, project, base, here }: StageProps) {
  const waits = entries.find((view) => view.waits)?.waits?.(project) ?? '';
  const isThrough = useThrough(project.id) !== undefined;
  return (
    <Flex align="center" px="2" minW={{ lg: '150px' }} borderBottomWidth="3px" borderColor={here ? 'moss.solid' : 'transparent'}>
      <Flex asChild align="baseline" gap="2">
        <Link to={`${base}/${entries[0]?.path ?? ''}`} title={waits && isThrough ? `${waits}, of everything` : waits}>
          <Box fontWeight={here ? '650' : '500'}>{label}</Box>
          <Box fontSize="12px" color="fg.muted" whiteSpace="nowrap" display={{ base: 'none', lg: 'block' }}>
            {waits}
          </Box>
        </Link>
      </Flex>
    </Flex>
  );
}
