import { counted } from '@coomb/core';
import { Box, Button, Flex, Heading, Image, Text } from '@chakra-ui/react';
import type { ReplyOf, listProjects } from '@coomb/contract';
import { format } from 'date-fns';
import { useState } from 'react';
import { Link } from 'react-router';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { useProjects, useSetStanding } from './queries';
import { StartProject } from './StartProject';
import { useWindowTitle } from '../../shared/ui/window-title';

export function ProjectsPage() {
  const projects = useProjects();
  useWindowTitle('Projects');
  const stand = useSetStanding();
  return (
    <Box as="main" maxW="52rem" mx="auto" px="6" py="12">
      <Flex align="center" gap="3" mb="2">
        <Image src="/coomb.svg" alt="" boxSize="40px" />
        <Heading as="h1" fontSize="28px" fontWeight="650">
          Coomb
        </Heading>
      </Flex>
      <Text color="fg.muted" fontFamily="serif" fontSize="17px" mb="8">
        Is everything that was asked for designed, built and shown to work, and how do we know?
      </Text>
      {projects.error && <ErrorNote error={projects.error} retry={() => void projects.refetch()} />}
      {projects.isPending && <Loading what="the projects" />}
      {projects.data
        ?.filter((project) => project.standing === 'open')
        .map((project) => (
          <ProjectLine key={project.id} project={project} onStand={(standing) => stand.mutate({ project: project.id, standing })} />
        ))}
      <Aside
        title="Archived"
        projects={projects.data?.filter((project) => project.standing === 'archived') ?? []}
        onStand={(project, standing) => stand.mutate({ project, standing })}
      />
      <Aside
        title="Taken out"
        projects={projects.data?.filter((project) => project.standing === 'out') ?? []}
        onStand={(project, standing) => stand.mutate({ project, standing })}
      />
      <StartProject />
    </Box>
  );
}

type Project = ReplyOf<typeof listProjects>[number];
type Standing = Project['standing'];

function ProjectLine({ project, onStand }: { project: Project; onStand: (standing: Standing) => void }) {
  return (
    <Flex align="baseline" gap="1" borderTopWidth="1px" _hover={{ bg: 'bg.subtle' }}>
      <Flex asChild align="baseline" gap="4" py="3" px="3" flex="1" minW="0" wrap="wrap">
        <Link to={`/p/${project.id}`}>
          <Box fontFamily="serif" fontSize="18px" flex="1">
            {project.name}
          </Box>
          <Box color="fg.muted" fontSize="13px">
            {counted(project.items, 'item')} · {counted(project.links, 'link')}
          </Box>
          <Box color="fg.muted" fontSize="13px">
            since {format(new Date(project.createdAt), 'd MMM yyyy')}
          </Box>
        </Link>
      </Flex>
      {project.standing === 'open' ? (
        <>
          <Button size="2xs" variant="ghost" title="It can still be read" onClick={() => onStand('archived')} aria-label={`Archive ${project.name}`}>
            Archive
          </Button>
          <Button size="2xs" variant="ghost" title="Nothing of it is lost" onClick={() => onStand('out')} aria-label={`Take out ${project.name}`}>
            Take out
          </Button>
        </>
      ) : (
        <Button size="2xs" variant="outline" onClick={() => onStand('open')} aria-label={`Put back ${project.name}`}>
          Put back
        </Button>
      )}
    </Flex>
  );
}

function Aside({ title, projects, onStand }: { title: string; projects: readonly Project[]; onStand: (project: string, standing: Standing) => void }) {
  const [open, setOpen] = useState(false);
  if (projects.length === 0) return null;
  return (
    <Box borderTopWidth="1px" pt="2">
      <Button size="2xs" variant="ghost" aria-expanded={open} onClick={() => setOpen(!open)}>
        {title} ({projects.length})
      </Button>
      {open && projects.map((project) => <ProjectLine key={project.id} project={project} onStand={(standing) => onStand(project.id, standing)} />)}
    </Box>
  );
}
