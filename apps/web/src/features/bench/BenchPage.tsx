import { Box, Flex } from '@chakra-ui/react';
import { z } from 'zod';
import { Link } from 'react-router';
import { useAddress } from '../../shared/address';
import { findRequirements } from '../../shared/live/find-requirements';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { Bench } from './Bench';

const address = z.object({
  left: z.string().default(''),
  right: z.string().default(''),
  only: z.enum(['all', 'unlinked']).default('all'),
  order: z.enum(['outline', 'likely']).default('outline'),
  /** Reference of the item on the left that is marked first. */
  at: z.string().default(''),
});

/** Linking: two outlines face to face. */
export function BenchPage() {
  const project = useProject();
  const outline = useOutline();
  const [{ left, right, only, order, at }, set] = useAddress(address);
  const { collections } = project;
  if (outline.error) return <ErrorNote error={outline.error} />;
  if (!outline.data) return <Loading what="the bench" />;
  if (collections.length < 2)
    return (
      <EmptyState alone title="The bench needs two collections">
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather</Link>
        </Box>{' '}
        a specification and a model or tests; then link them here, side by side.
      </EmptyState>
    );
  const leftId = collections.some((one) => one.id === left) ? left : findRequirements(project)!.id;
  const rightId = collections.some((one) => one.id === right)
    ? right
    : (collections.find((one) => one.holds === 'model' && one.id !== leftId) ?? collections.find((one) => one.id !== leftId)!).id;
  const options = collections.map((one) => ({ value: one.id, label: one.name }));
  return (
    <Page
      fill
      actions={
        <>
          <Choice label="Left outline" value={leftId} options={options} onChange={(value) => set({ left: value })} />
          <Choice
            label="Which items on the left"
            value={only}
            options={[
              { value: 'all', label: 'all items' },
              { value: 'unlinked', label: 'without a link to the right' },
            ]}
            onChange={(value) => set({ only: value as 'all' })}
          />
          <Box color="fg.muted">facing</Box>
          <Choice label="Right outline" value={rightId} options={options} onChange={(value) => set({ right: value })} />
          <Choice
            label="Order on the right"
            value={order}
            options={[
              { value: 'outline', label: 'in outline order' },
              { value: 'likely', label: 'likeliest first' },
            ]}
            onChange={(value) => set({ order: value as 'outline' })}
          />
          <KeptViews project={project.id} sort="bench" body={{ left: leftId, right: rightId, only, order }} />
        </>
      }
    >
      <Flex h="100%" borderTopWidth="1px">
        <Bench
          key={`${leftId} ${rightId} ${at}`}
          at={at}
          outline={outline.data}
          left={leftId}
          right={rightId}
          onlyUnlinked={only === 'unlinked'}
          likely={order === 'likely'}
        />
      </Flex>
    </Page>
  );
}
