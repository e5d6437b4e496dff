import { Box, Button, Flex, Grid, Input } from '@chakra-ui/react';
import type { DrawingBrief } from '@coomb/contract';
import { counted, figure, groupBy } from '@coomb/core';
import { Link } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { FAINT } from '../../shared/ui/faint';
import { useLens } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { sortWords } from './desk/drawing-words';
import { DrawingThumb } from '../../shared/drawing/DrawingThumb';
import { useDrawings } from './desk/queries';

const address = z.object({ q: z.string().default('') });

/** Every drawing of the project, collection by collection, with a small picture of each. */
export function DrawingsPage() {
  const project = useProject();
  const lens = useLens();
  const drawings = useDrawings(project.id, lens && !lens.error ? { lens: lens.lens } : {});
  const [{ q }, set] = useAddress(address);
  if (drawings.error) return <ErrorNote error={drawings.error} />;
  if (!drawings.data) return <Loading what="the drawings" />;
  if (drawings.data.length === 0)
    return (
      <EmptyState alone title="No drawings yet">
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather</Link>
        </Box>{' '}
        a model that has drawings in it (UML or SysML in XMI, BPMN, DMN, SSP): they come along, as their tool placed them. Or{' '}
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/shape/drawings/new`}>make one</Link>
        </Box>{' '}
        of what the project holds.
      </EmptyState>
    );
  const words = q.toLowerCase().split(/\s+/).filter(Boolean);
  const isOnly = lens?.mode === 'only';
  const within = drawings.data.filter(({ seen }) => !isOnly || seen !== 0);
  const shown = within.filter((one) => words.every((word) => `${one.name} ${sortWords[one.sort]}`.toLowerCase().includes(word)));
  const groups = groupBy(shown, (one) => one.collection);
  return (
    <Page
      lead={
        within.length < drawings.data.length
          ? `${figure(within.length)} of ${counted(drawings.data.length, 'drawing')} show something that is seen through “${lens?.seen?.name ?? 'the lens'}”.`
          : `${counted(drawings.data.length, 'drawing')}, as their tools placed them or made here.`
      }
      actions={
        <>
          <Button asChild size="xs">
            <Link to={`/p/${project.id}/shape/drawings/new`}>New drawing</Link>
          </Button>
          <Input size="xs" w="220px" aria-label="Find a drawing" placeholder="Find a drawing" value={q} onChange={(event) => set({ q: event.target.value })} />
        </>
      }
    >
      {shown.length === 0 && (
        <Box color="fg.muted">{within.length === 0 ? 'No drawing shows anything that is seen through the lens.' : 'No drawing is called so.'}</Box>
      )}
      {[...groups].map(([collection, list]) => (
        <Box as="section" key={collection} mb="6">
          <Flex gap="2" align="baseline" mb="2" borderBottomWidth="1px">
            <Box as="h2" fontWeight="600" fontSize="15px">
              {project.collections.find((one) => one.id === collection)?.name}
            </Box>
            <Box color="fg.muted" fontSize="13px">
              {figure(list.length)}
            </Box>
          </Flex>
          <Grid templateColumns="repeat(auto-fill, minmax(220px, 1fr))" gap="4">
            {list.map((one) => (
              <DrawingCard key={one.id} project={project.id} drawing={one} />
            ))}
          </Grid>
        </Box>
      ))}
    </Page>
  );
}

function DrawingCard({ project, drawing }: { project: string; drawing: DrawingBrief }) {
  return (
    <Box asChild bg="bg.panel" borderWidth="1px" _hover={{ borderColor: 'moss.solid' }} display="block" opacity={drawing.seen === 0 ? FAINT : undefined}>
      <Link to={`/p/${project}/shape/drawings/${drawing.id}`}>
        <Box h="140px" borderBottomWidth="1px">
          <DrawingThumb project={project} drawing={drawing.id} />
        </Box>
        <Box px="3" py="1.5">
          <OneLine fontWeight="600" text={drawing.name || 'Unnamed drawing'} />
          <OneLine
            fontSize="12.5px"
            color="fg.muted"
            text={`${drawing.made ? 'made here' : sortWords[drawing.sort]} · ${drawing.seen === undefined ? counted(drawing.shapes, 'shape') : `${figure(drawing.seen)} of ${figure(drawing.shapes)} seen`}`}
          />
        </Box>
      </Link>
    </Box>
  );
}
