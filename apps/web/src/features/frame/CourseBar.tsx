import { Box, Flex } from '@chakra-ui/react';
import { Fragment } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import type { Project } from '../../shared/live/project-queries';
import { course, type Stage } from './course';

/** The course of the work as one line: the stage you are in opens to its views, the others show what waits there. */
export function CourseBar({ project }: { project: Project }) {
  const { pathname } = useLocation();
  const rest = pathname.split('/').slice(3).join('/');
  return (
    <Flex
      as="nav"
      aria-label="Course of the work"
      minH={{ base: '30px', lg: '38px' }}
      px={{ base: '1', md: '4' }}
      align="stretch"
      wrap="wrap"
      bg="bg.panel"
      borderBottomWidth="1px"
      flexShrink={0}
      gap="1"
    >
      {course.map((stage, index) => (
        <Fragment key={stage.id}>
          {index > 0 && <Seam />}
          <StageEntry stage={stage} waiting={project.waiting[stage.id]} base={`/p/${project.id}`} here={rest.split('/')[0] === stage.id} rest={rest} />
        </Fragment>
      ))}
    </Flex>
  );
}

/** A small dip between stages: the line of the valley. */
function Seam() {
  return (
    <Flex align="flex-end" aria-hidden="true" pb="10px" display={{ base: 'none', lg: 'flex' }}>
      <svg width="22" height="10" viewBox="0 0 22 10">
        <path d="M0 1c6 0 6 8 11 8s5-8 11-8" fill="none" stroke="var(--chakra-colors-border-emphasized)" strokeWidth="1.5" />
      </svg>
    </Flex>
  );
}

function StageEntry({ stage, waiting, base, here, rest }: { stage: Stage; waiting: number; base: string; here: boolean; rest: string }) {
  return (
    <Flex align="center" gap={{ base: '1', lg: '3' }} px="2" wrap="wrap" borderBottomWidth="3px" borderColor={here ? 'moss.solid' : 'transparent'}>
      <Flex asChild align="baseline" gap="2">
        <Link to={`${base}/${stage.views[0]!.path}`} title={stage.waits(waiting)}>
          <Box fontWeight={here ? '650' : '500'}>{stage.label}</Box>
          <Box fontSize="12px" color="fg.muted" whiteSpace="nowrap" display={{ base: 'none', lg: 'block' }}>
            {stage.waits(waiting)}
          </Box>
        </Link>
      </Flex>
      {here &&
        stage.views.length > 1 &&
        stage.views.map((view) => (
          <Box
            asChild
            key={view.path}
            fontSize="13px"
            px="2"
            py="0.5"
            borderRadius="l2"
            color={rest === view.path ? 'moss.fg' : 'fg.muted'}
            bg={rest === view.path ? 'moss.subtle' : 'transparent'}
            whiteSpace="nowrap"
          >
            <NavLink to={`${base}/${view.path}`} end>
              {view.label}
            </NavLink>
          </Box>
        ))}
    </Flex>
  );
}
