import { Box, Button, Flex } from '@chakra-ui/react';
import { format } from 'date-fns';
import { Link } from 'react-router';
import { notifyError } from '../../../shared/ui/notices';
import { useDropTrayEntry, useTray } from '../queries';

/** Files that were handed in and not imported yet: to go on with, or to put away. Nothing while there are none. */
export function TrayList({ project }: { project: string }) {
  const tray = useTray(project);
  const drop = useDropTrayEntry(project);
  if (!tray.data?.length) return null;
  return (
    <Box mb="5" role="region" aria-label="Handed in, not imported yet">
      <Box fontWeight="600" mb="1">
        Handed in, not imported yet
      </Box>
      {tray.data.map((file) => (
        <Flex key={file.id} columnGap="4" py="1" borderTopWidth="1px" align="baseline" wrap={{ base: 'wrap', md: 'nowrap' }}>
          <Box asChild flex={{ base: '1 0 100%', md: '1' }} _hover={{ textDecoration: 'underline' }}>
            <Link to={`/p/${project}/gather/${file.id}`}>{file.name}</Link>
          </Box>
          <Box color="fg.muted" w={{ md: '5em' }} textAlign="right">
            {Math.max(1, Math.round(file.size / 1024))} kB
          </Box>
          <Box color="fg.muted" w={{ md: '17em' }}>
            {format(new Date(file.at), 'd MMM yyyy, HH:mm')}
          </Box>
          <Flex w={{ md: '9em' }} gap="1">
            <Button asChild size="2xs" variant="outline">
              <Link to={`/p/${project}/gather/${file.id}`} aria-label={`Go on with ${file.name}`}>
                Go on
              </Link>
            </Button>
            <Button
              size="2xs"
              variant="ghost"
              aria-label={`Put away ${file.name}`}
              loading={drop.isPending && drop.variables === file.id}
              onClick={() => drop.mutate(file.id, { onError: notifyError })}
            >
              Put away
            </Button>
          </Flex>
        </Flex>
      ))}
    </Box>
  );
}
