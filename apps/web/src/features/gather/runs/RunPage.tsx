import { Box, Button, Flex } from '@chakra-ui/react';
import { format } from 'date-fns';
import { useParams } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../../shared/address';
import { useProject } from '../../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../../shared/ui/feedback';
import { Page } from '../../../shared/ui/page';
import { Reference } from '../../../shared/ui/reference';
import { useRunResults } from '../queries';
import { OneLine } from '../../../shared/ui/one-line';

const shows = ['all', 'passed', 'failed', 'broken', 'skipped', 'unmatched'] as const;
const address = z.object({ show: z.enum(shows).default('all') });
const reasons = { property: 'by its property', reference: 'by its reference', title: 'by its title' };

/** Every result of a run: what it gave, and which test case it was matched to by what. */
export function RunPage() {
  const project = useProject();
  const { run: id } = useParams();
  const [{ show }, set] = useAddress(address);
  const opened = useRunResults(project.id, id!);
  if (opened.error) return <ErrorNote error={opened.error} />;
  if (!opened.data) return <Loading what="the results" />;
  const { run, results } = opened.data;
  const shown = (one: (typeof shows)[number]) =>
    results.filter((result) => (one === 'all' ? true : one === 'unmatched' ? result.test === null : result.outcome === one));
  const rows = shown(show);
  return (
    <Page
      title={run.name}
      lead={`Run on ${format(new Date(run.at), 'd MMM yyyy, HH:mm')}.`}
      actions={shows.map((one) => (
        <Button key={one} size="xs" variant={one === show ? 'solid' : 'outline'} aria-pressed={one === show} onClick={() => set({ show: one })}>
          {shown(one).length} {one === 'unmatched' ? 'without a test case' : one}
        </Button>
      ))}
    >
      {rows.length === 0 && <EmptyState title="No such result">Choose another outcome above.</EmptyState>}
      {rows.map((result, index) => (
        <Flex key={index} gap="3" py="1" borderTopWidth="1px" align="baseline">
          <Box w="5em" color={result.outcome === 'passed' ? 'moss.fg' : result.outcome === 'skipped' ? 'fg.muted' : 'brick.fg'}>
            {result.outcome}
          </Box>
          <Box w="5.5em">{result.test ? <Reference reference={result.test.reference} /> : <Box color="fg.warning">no test</Box>}</Box>
          <Box flex="1" minW="0">
            <OneLine text={result.suite ? `${result.suite} › ${result.name}` : result.name}>
              {result.suite && <Box as="span" color="fg.muted">{`${result.suite} › `}</Box>}
              {result.name}
            </OneLine>
            {result.message && (
              <Box color="fg.muted" fontSize="13px">
                {result.message}
              </Box>
            )}
          </Box>
          <Box color="fg.muted" fontSize="12.5px">
            {result.reason ? `matched ${reasons[result.reason]}` : ''}
          </Box>
          <Box w="6em" textAlign="right" color="fg.muted" fontSize="12.5px">
            {result.duration === null ? '' : `${result.duration.toFixed(1)} s`}
          </Box>
        </Flex>
      ))}
    </Page>
  );
}
