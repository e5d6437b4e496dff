import { counted } from '@coomb/core';
import { Box, Button } from '@chakra-ui/react';
import { getSourceFile } from '@coomb/contract';
import type { SourceBlock } from '@coomb/core';
import { Download } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { ClipDesk } from './ClipDesk';
import { ModelTree } from './ModelTree';
import { RowsView } from './RowsView';
import { SheetRows } from './SheetRows';
import { type SourceReading, useSource } from './queries';
import { addressOf } from '../../shared/api/client';

/** `at`: reference of the item whose place is shown. */
const address = z.object({ at: z.string().optional(), as: z.enum(['tree', 'text']).default('tree') });

/** A stored original as it reads, with its items at their places; documents can be clipped from. */
export function SourcePage() {
  const project = useProject();
  const { source: id } = useParams();
  const [{ at, as }, set] = useAddress(address);
  const reading = useSource(project.id, id!, as);
  if (reading.error)
    return (
      <Box p="6">
        <ErrorNote error={reading.error} retry={() => void reading.refetch()} />
      </Box>
    );
  if (!reading.data) return <Loading what="the source" />;
  const { name, label, newer, content, items } = reading.data;
  return (
    <Page
      title={name}
      lead={`${label}. ${describeCounts(items)} came from it.`}
      fill
      actions={
        <>
          {(content.type === 'model' || as === 'text') && (
            <Button size="xs" variant="outline" onClick={() => set({ as: as === 'text' ? 'tree' : 'text' })}>
              {as === 'text' ? 'As a tree' : 'As the text that it is'}
            </Button>
          )}
          {newer && (
            <Button asChild size="xs" variant="outline">
              <Link to={`/p/${project.id}/gather/sources/${newer}${at ? `?at=${at}` : ''}`}>There is a newer version</Link>
            </Button>
          )}
          <Button asChild size="xs" variant="outline">
            <a href={addressOf(getSourceFile, { project: project.id, source: id })}>
              <Download size={13} /> The original
            </a>
          </Button>
        </>
      }
    >
      <Box h="100%" borderTopWidth="1px">
        {content.type === 'document' ? (
          <ClipDesk key={id} project={project} reading={reading.data} blocks={content.blocks as SourceBlock[]} at={at} />
        ) : content.type === 'model' ? (
          <ModelTree key={`${id} ${at}`} model={content} items={items} at={at} />
        ) : content.type === 'sheets' ? (
          <SheetRows key={`${id} ${at}`} sheets={content.sheets} items={items} at={at} />
        ) : (
          <RowsView {...toLines(content.lines, items, at)} />
        )}
      </Box>
    </Page>
  );
}

/** "12 items and 3 sections": what came from a source, each counted by itself. */
function describeCounts(items: SourceReading['items']): string {
  const sections = items.filter(({ item }) => item.heading).length;
  const own = counted(items.length - sections, 'item');
  return sections ? `${own} and ${counted(sections, 'section')}` : own;
}

/** An element file as numbered lines, with the items that stand in each. */
function toLines(lines: readonly string[], items: SourceReading['items'], at: string | undefined) {
  const line = items.find(({ item }) => item.reference === at)?.line;
  const marks = new Map(items.flatMap((one) => (one.line === null ? [] : [[one.line - 1, one.item.reference] as const])));
  return { rows: lines.map((text) => [text]), marks, shown: line == null ? undefined : line - 1, mono: true };
}
