import { Box, Button } from '@chakra-ui/react';
import { buildUrl, getSourceFile } from '@coomb/contract';
import type { SourceBlock } from '@coomb/core';
import { Download } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { ClipDesk } from './ClipDesk';
import { RowsView } from './RowsView';
import { type SourceReading, useSource } from './queries';

/** `at`: reference of the item whose place is shown. */
const address = z.object({ at: z.string().optional() });

/** A stored original as it reads, with its items at their places; documents can be clipped from. */
export function SourcePage() {
  const project = useProject();
  const { source: id } = useParams();
  const [{ at }] = useAddress(address);
  const reading = useSource(project.id, id!);
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
      lead={`${label}, ${items.length} ${items.length === 1 ? 'item' : 'items'} came from it.`}
      fill
      actions={
        <>
          {newer && (
            <Button asChild size="xs" variant="outline">
              <Link to={`/p/${project.id}/gather/sources/${newer}${at ? `?at=${at}` : ''}`}>There is a newer version</Link>
            </Button>
          )}
          <Button asChild size="xs" variant="outline">
            <a href={buildUrl(getSourceFile.path, { project: project.id, source: id })}>
              <Download size={13} /> The original
            </a>
          </Button>
        </>
      }
    >
      <Box h="100%" borderTopWidth="1px">
        {content.type === 'document' ? (
          <ClipDesk key={id} project={project} reading={reading.data} blocks={content.blocks as SourceBlock[]} at={at} />
        ) : (
          <RowsView {...toRows(content, items, at)} />
        )}
      </Box>
    </Page>
  );
}

/** Sheets and element files as numbered rows, with the items that stand in each. */
function toRows(content: Exclude<SourceReading['content'], { type: 'document' }>, items: SourceReading['items'], at: string | undefined) {
  const shown = items.find(({ item }) => item.reference === at);
  if (content.type === 'text') {
    const marks = new Map(items.flatMap(({ item, line }) => (line === null ? [] : [[line - 1, item.reference] as const])));
    return { rows: content.lines.map((line) => [line]), marks, shown: shown?.line == null ? undefined : shown.line - 1, mono: true };
  }
  const sheet = content.sheets.find((one) => one.name === (shown?.place.sheet ?? items[0]?.place.sheet)) ?? content.sheets[0];
  const marks = new Map(
    items.flatMap(({ item, place }) => (place.sheet === sheet?.name && place.row !== undefined ? [[place.row, item.reference] as const] : [])),
  );
  return { rows: sheet?.rows ?? [], marks, shown: shown?.place.row, mono: false };
}
