import { Box } from '@chakra-ui/react';
import { useParams } from 'react-router';
import { useProjectId } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { useSheet } from './queries';
import { useInUse } from './use-in-use';
import { SheetBody } from './SheetBody';
import { useWindowTitle } from '../../shared/ui/window-title';

export function ItemPage() {
  const project = useProjectId();
  const { item } = useParams();
  const known = useSheet(project, item!).data;
  const [use] = useInUse(known?.id);
  const sheet = useSheet(project, item!, use);
  useWindowTitle(sheet.data ? `${sheet.data.reference} ${sheet.data.title}` : item!);
  if (sheet.error)
    return (
      <Box p="6">
        <ErrorNote error={sheet.error} />
      </Box>
    );
  if (!sheet.data) return <Loading what="the item" />;
  return (
    <Box h="100%" overflow="auto" pt="4">
      <Box maxW="56rem" mx="auto">
        <Box px="5" fontFamily="mono" color="moss.fg">
          {sheet.data.reference}
        </Box>
        <SheetBody sheet={sheet.data} wide />
      </Box>
    </Box>
  );
}
