import { Box, Flex } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useMemo } from 'react';
import { z } from 'zod';
import { Link } from 'react-router';
import { useAddress } from '../../shared/address';
import { findRequirements } from '../../shared/live/find-requirements';
import { LitItems } from '../../shared/lens/lit';
import { useSeenOutline } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
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
  /** Kinds of items that a side shows only. */
  leftKind: z.string().default(''),
  rightKind: z.string().default(''),
  /** Reference of the item on the left that is marked first. */
  at: z.string().default(''),
});

/** Linking: two outlines face to face. */
export function BenchPage() {
  const project = useProject();
  const outline = useSeenOutline();
  const [{ left, right, only, order, at, leftKind, rightKind }, set] = useAddress(address);
  const { collections } = project;
  if (outline.error) return <ErrorNote error={outline.error} />;
  if (!outline.data) return <Loading what="the bench" />;
  if (collections.length === 0)
    return (
      <EmptyState alone title="Nothing is gathered yet">
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather</Link>
        </Box>{' '}
        a specification, a model or tests; then link their items here, side by side.
      </EmptyState>
    );
  const leftId = collections.some((one) => one.id === left) ? left : findRequirements(project)!.id;
  const rightId = collections.some((one) => one.id === right)
    ? right
    : ((collections.find((one) => one.holds === 'model' && one.id !== leftId) ?? collections.find((one) => one.id !== leftId))?.id ?? leftId);
  const options = collections.map((one) => ({ value: one.id, label: one.name }));
  return (
    <Page
      fill
      actions={
        <>
          <Choice label="Left outline" value={leftId} options={options} onChange={(value) => set({ left: value, leftKind: '' })} />
          <KindFilter side="left" outline={outline.data} collection={leftId} value={leftKind} onChange={(value) => set({ leftKind: value })} />
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
          <Choice label="Right outline" value={rightId} options={options} onChange={(value) => set({ right: value, rightKind: '' })} />
          <KindFilter side="right" outline={outline.data} collection={rightId} value={rightKind} onChange={(value) => set({ rightKind: value })} />
          <Choice
            label="Order on the right"
            value={order}
            options={[
              { value: 'outline', label: 'in outline order' },
              { value: 'likely', label: 'likeliest first' },
            ]}
            onChange={(value) => set({ order: value as 'outline' })}
          />
          <KeptViews project={project.id} sort="bench" body={{ left: leftId, right: rightId, only, order, leftKind, rightKind }} />
        </>
      }
    >
      <LitItems outline={outline.data} rows={outline.lit}>
        <Flex h="100%" borderTopWidth="1px">
          <Bench
            key={`${leftId} ${rightId} ${at}`}
            at={at}
            kinds={{ left: leftKind, right: rightKind }}
            outline={outline.data}
            left={leftId}
            right={rightId}
            onlyUnlinked={only === 'unlinked'}
            likely={order === 'likely'}
          />
        </Flex>
      </LitItems>
    </Page>
  );
}

/** Kinds that a collection holds, to show one of them only; nothing to choose where it holds one. */
function KindFilter({
  side,
  outline,
  collection,
  value,
  onChange,
}: {
  side: 'left' | 'right';
  outline: OutlineReply;
  collection: string;
  value: string;
  onChange: (kind: string) => void;
}) {
  const { scheme } = useProject();
  const kinds = useMemo(() => {
    const at = outline.collections.indexOf(collection);
    const counts = new Map<string, number>();
    outline.collection.forEach((one, row) => {
      const kind = outline.kinds[outline.kind[row]!];
      if (one === at && !outline.heading[row] && kind) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    });
    return scheme.kinds.flatMap(({ id, plural }) => (counts.has(id) ? [{ value: id, label: `${plural.toLowerCase()} (${figure(counts.get(id)!)})` }] : []));
  }, [outline, collection, scheme]);
  if (kinds.length < 2) return null;
  return <Choice label={`Kinds on the ${side}`} value={value} options={[{ value: '', label: 'all kinds' }, ...kinds]} onChange={onChange} width="8.5rem" />;
}
