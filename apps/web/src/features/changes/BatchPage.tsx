import { Box, Button, Flex } from '@chakra-ui/react';
import { type Brief, getBatch, type ReplyOf } from '@coomb/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useParams } from 'react-router';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { Reference } from '../../shared/ui/reference';
import { OneLine } from '../../shared/ui/one-line';

const PAGE = 200;
type Row = ReplyOf<typeof getBatch>['rows'][number];

/** Everything that one action changed. */
export function BatchPage() {
  const project = useProject();
  const seq = Number(useParams().seq);
  const batch = useInfiniteQuery({
    queryKey: [...projectKey(project.id), 'batch', seq],
    queryFn: ({ pageParam }) => call(getBatch, { params: { project: project.id, seq }, query: { offset: pageParam, most: PAGE } }),
    initialPageParam: 0,
    getNextPageParam: (_, pages) => (pages.length * PAGE < pages[0]!.total ? pages.length * PAGE : undefined),
  });
  if (batch.error) return <ErrorNote error={batch.error} />;
  if (!batch.data) return <Loading what="the change" />;
  const { batch: about, total } = batch.data.pages[0]!;
  return (
    <Page
      title={`Change ${about.seq}: ${about.action}`}
      lead={`${about.person}, ${format(new Date(about.at), 'd MMM yyyy, HH:mm:ss')}${about.undone ? '; undone since' : ''}. ${total} ${total === 1 ? 'row' : 'rows'}.`}
    >
      {batch.data.pages
        .flatMap((page) => page.rows)
        .map((row, index) => (
          <BatchLine key={index} row={row} />
        ))}
      {batch.hasNextPage && (
        <Button mt="3" size="xs" variant="outline" loading={batch.isFetchingNextPage} onClick={() => void batch.fetchNextPage()}>
          More rows
        </Button>
      )}
    </Page>
  );
}

/** What rows are called, where it is not what they are called inside. */
const WORDS: Partial<Record<Row['entity'], string>> = { schemePart: 'scheme', savedView: 'view', waitingEnd: 'waiting' };

function BatchLine({ row }: { row: Row }) {
  return (
    <Flex gap="3" py="1" borderTopWidth="1px" align="baseline">
      <Box w="6em" color="fg.muted">
        {row.did}
      </Box>
      <Box w="6em" color="fg.muted">
        {WORDS[row.entity] ?? row.entity}
      </Box>
      {row.item && <Named item={row.item} />}
      {row.phrase && <Box color="fg.muted">{row.phrase}</Box>}
      {row.other && <Named item={row.other} />}
      {row.name && row.name !== row.item?.title && <OneLine flex="1" text={row.item ? `“${row.name}”` : row.name} />}
    </Flex>
  );
}

function Named({ item }: { item: Brief }) {
  return (
    <Flex gap="2" minW="0" align="baseline">
      <Reference reference={item.reference} />
      <OneLine maxW="24em" text={item.title} />
    </Flex>
  );
}
