import { counted } from '@coomb/core';
import { Box } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { Button } from '@chakra-ui/react';
import { ArrowLeftRight } from 'lucide-react';
import { useAddress } from '../../shared/address';
import { findRequirements } from '../../shared/live/find-requirements';
import { LitItems } from '../../shared/lens/lit';
import { useSeenOutline } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { Page } from '../../shared/ui/page';
import { ofSameLife } from '../../shared/live/same-life';
import { useLinksBetween, useUsed } from '../linking/queries';
import { buildUseLines } from '../linking/use-lines';
import { Matrix } from './Matrix';
import { buildMatrixSides } from './matrix-sides';

const address = z.object({
  rows: z.string().default(''),
  columns: z.string().default(''),
  kind: z.string().default(''),
  show: z.enum(['all', 'rowGaps', 'columnGaps']).default('all'),
  uses: z.enum(['lines', 'together']).default('lines'),
});

/** Trace matrix: rows × columns, folding outlines with counts, gaps, link and unlink in the cell. */
export function MatrixPage() {
  const project = useProject();
  const outline = useSeenOutline();
  const [{ rows, columns, kind, show, uses }, set] = useAddress(address);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const { collections } = project;
  const rowId = collections.some((one) => one.id === rows) ? rows : (findRequirements(project)?.id ?? '');
  const columnId = collections.some((one) => one.id === columns)
    ? columns
    : ((collections.find((one) => one.holds === 'tests' && one.id !== rowId) ?? collections.find((one) => one.id !== rowId))?.id ?? '');
  const links = useLinksBetween(project.id, rowId, columnId);
  const joined = ofSameLife(outline.data, links.data);
  const used = useUsed(project.id).data;
  const useLines = useMemo(
    () => (outline.data && uses === 'lines' ? buildUseLines(used, new Map(outline.data.node.map((node, row) => [node, row]))) : undefined),
    [outline.data, used, uses],
  );
  const kindIndex = project.scheme.linkKinds.findIndex((one) => one.id === kind);
  const sides = useMemo(
    () =>
      outline.data && joined
        ? buildMatrixSides(
            outline.data,
            joined,
            collections.findIndex((one) => one.id === rowId),
            collections.findIndex((one) => one.id === columnId),
            kindIndex,
            show,
            useLines,
          )
        : undefined,
    [outline.data, joined, collections, rowId, columnId, kindIndex, show, useLines],
  );
  if (outline.error ?? links.error) return <ErrorNote error={outline.error ?? links.error} />;
  if (collections.length < 2)
    return (
      <EmptyState alone title="A matrix needs two collections">
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather</Link>
        </Box>{' '}
        a specification and a model or tests first.
      </EmptyState>
    );
  if (!sides || !outline.data) return <Loading what="the matrix" />;
  const sidesAt = [rowId, columnId].map((id) => collections.findIndex((one) => one.id === id));
  const rowOfNode = new Map(outline.data.node.map((node, row) => [node, row]));
  const hasUses = used?.items.some(({ node }) => sidesAt.includes(outline.data.collection[rowOfNode.get(node) ?? -1] ?? -2)) === true;
  const options = collections.map((one) => ({ value: one.id, label: one.name }));
  const present = project.scheme.linkKinds.filter((_, index) => links.data?.kind.includes(index) || index === kindIndex);
  const swap = () => set({ rows: columnId, columns: rowId, show: show === 'rowGaps' ? 'columnGaps' : show === 'columnGaps' ? 'rowGaps' : 'all' });
  return (
    <Page
      lead={counted(sides.shown, 'link')}
      fill
      actions={
        <>
          <Choice label="Rows" value={rowId} options={options} onChange={(value) => set({ rows: value })} />
          <Button size="xs" variant="outline" onClick={swap} title="Swap rows and columns (X)">
            <ArrowLeftRight size={13} /> Swap
          </Button>
          <Choice label="Columns" value={columnId} options={options} onChange={(value) => set({ columns: value })} />
          <Choice
            label="Link kind"
            value={kind}
            options={[{ value: '', label: 'every link kind' }, ...present.map((one) => ({ value: one.id, label: one.phrase }))]}
            onChange={(value) => set({ kind: value })}
          />
          <Choice
            label="Which lines"
            value={show}
            options={[
              { value: 'all', label: 'everything' },
              { value: 'rowGaps', label: 'rows with gaps only' },
              { value: 'columnGaps', label: 'columns with gaps only' },
            ]}
            onChange={(value) => set({ show: value as 'all' })}
          />
          {hasUses && (
            <Choice
              label="Items used in several places"
              value={uses}
              options={[
                { value: 'lines', label: 'a line for each use' },
                { value: 'together', label: 'all uses together' },
              ]}
              onChange={(value) => set({ uses: value as 'lines' })}
            />
          )}
          <KeptViews project={project.id} sort="matrix" body={{ rows: rowId, columns: columnId, kind, show, uses }} />
        </>
      }
    >
      <LitItems outline={outline.data} rows={outline.lit}>
        <Matrix
          key={`${rowId} ${columnId}`}
          outline={outline.data}
          sides={sides}
          kind={kindIndex}
          folded={folded}
          onFold={(id) => setFolded(flip(folded, id))}
          onSwap={swap}
        />
      </LitItems>
    </Page>
  );
}

function flip(set: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}
