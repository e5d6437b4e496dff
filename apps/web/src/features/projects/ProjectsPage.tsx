import { counted } from '@coomb/core';
import { Box, Button, Flex, Heading, Image, Input, Text } from '@chakra-ui/react';
import { format } from 'date-fns';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { useCreateProject, useProjects } from './queries';
import { useWindowTitle } from '../../shared/ui/window-title';

export function ProjectsPage() {
  const projects = useProjects();
  useWindowTitle('Projects');
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const create = useCreateProject((id) => void navigate(`/p/${id}`));
  return (
    <Box as="main" maxW="46rem" mx="auto" px="6" py="12">
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
      {projects.data?.map((project) => (
        <Flex asChild key={project.id} align="baseline" gap="4" py="3" px="3" borderTopWidth="1px" _hover={{ bg: 'bg.subtle' }}>
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
      ))}
      <Flex
        as="form"
        gap="3"
        mt="8"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) create.mutate(name.trim());
        }}
      >
        <Input
          value={name}
          onChange={(event) => setName(event.target.value)}
          placeholder="Name of a new project"
          aria-label="Name of a new project"
          bg="bg.panel"
          maxLength={120}
        />
        <Button type="submit" disabled={!name.trim()} loading={create.isPending}>
          Start a project
        </Button>
      </Flex>
      <Text color="fg.muted" fontSize="13px" mt="3">
        A project starts with five layers, from needs to tests, and coverage rules between them. Then gather your first document.
      </Text>
    </Box>
  );
}
