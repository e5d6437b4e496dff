import { Box, Button, Flex, IconButton, Image } from '@chakra-ui/react';
import { Keyboard, Moon, Search, Sun } from 'lucide-react';
import { Link } from 'react-router';
import type { Project } from '../shared/live/project-queries';
import { useMoment } from '../shared/moment/moment';
import { setColourMode, useColourMode } from '../shared/ui/colour-mode';
import type { View } from '../shared/view';
import { KeyChoice } from './KeyChoice';
import { LensChoice } from './LensChoice';
import { MomentChoice } from './MomentChoice';
import { PersonName } from './PersonName';

export function TopLine({ project, here, onFind, onKeys }: { project: Project; here: View | undefined; onFind: () => void; onKeys: () => void }) {
  const mode = useColourMode();
  const isPast = useMoment(project.id) !== undefined;
  return (
    <Flex
      as="header"
      h={{ base: '34px', lg: '40px' }}
      px={{ base: '2', md: '4' }}
      align="center"
      gap={{ base: '1', md: '3' }}
      bg={isPast ? 'ochre.muted' : 'bg.panel'}
      flexShrink={0}
    >
      <Flex asChild align="center" gap="2" fontWeight="650" letterSpacing="0.01em">
        <Link to="/" title="All projects" aria-label="Coomb: all projects">
          <Image src="/coomb.svg" alt="" boxSize="22px" />
          <Box display={{ base: 'none', md: 'block' }}>Coomb</Box>
        </Link>
      </Flex>
      <Box color="border.emphasized">╱</Box>
      <Box asChild fontFamily="serif" fontSize="15px" minW="0" truncate dir="auto">
        <Link to={`/p/${project.id}`} title={`${project.name}: the section of this project`}>
          {project.name}
        </Link>
      </Box>
      <MomentChoice project={project.id} />
      <LensChoice project={project.id} here={here} />
      <KeyChoice project={project.id} />
      <Button
        variant="outline"
        size="xs"
        ml="auto"
        w={{ base: 'auto', md: '260px' }}
        flexShrink={0}
        justifyContent="flex-start"
        color="fg.muted"
        fontWeight="400"
        bg="bg"
        aria-keyshortcuts="Control+K"
        onClick={onFind}
      >
        <Search size={13} />
        <Box display={{ base: 'none', md: 'block' }}>Find anything</Box>
        <Box srOnly display={{ base: 'block', md: 'none' }}>
          Find anything
        </Box>
        <Box aria-hidden="true" as="kbd" display={{ base: 'none', md: 'block' }} ml="auto" fontFamily="mono" fontSize="11px">
          Ctrl K
        </Box>
      </Button>
      <PersonName />
      <IconButton aria-label="Keys of this view" title="Keys (?)" variant="ghost" size="xs" onClick={onKeys}>
        <Keyboard size={15} />
      </IconButton>
      <IconButton
        aria-label={mode === 'dark' ? 'Light theme' : 'Dark theme'}
        title={mode === 'dark' ? 'Light theme' : 'Dark theme'}
        variant="ghost"
        size="xs"
        onClick={() => setColourMode(mode === 'dark' ? 'light' : 'dark')}
      >
        {mode === 'dark' ? <Sun size={15} /> : <Moon size={15} />}
      </IconButton>
    </Flex>
  );
}
