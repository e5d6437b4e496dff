import { Box } from '@chakra-ui/react';
import { useProject } from '../../shared/live/project-queries';
import { DrawingDifferences } from '../../shared/drawing/DrawingDifferences';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { useComparedDrawings } from './queries';

/** Drawings of both moments, one over the other: those that came, went, or are drawn otherwise. */
export function ComparedDrawings({ since }: { since: number }) {
  const { id: project } = useProject();
  const compared = useComparedDrawings(project, since);
  if (compared.error) return <ErrorNote error={compared.error} retry={() => void compared.refetch()} />;
  if (!compared.data) return <Loading what="the drawings of both moments" />;
  if (compared.data.length === 0) return <EmptyState title="No drawing is different">What is drawn is what it was.</EmptyState>;
  return (
    <Box h="100%" display="flex">
      <DrawingDifferences drawings={compared.data} sides={['then', 'now']} />
    </Box>
  );
}
