import { Box, Button, Flex } from '@chakra-ui/react';
import { listChanges } from '@coomb/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { Link } from 'react-router';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { OneLine } from '../../shared/ui/one-line';

const PAGE = 50;

export function ChangesPage() {
  const project = useProject();
  const changes = useInfiniteQuery({
    queryKey: [...projectKey(project.id), 'changes'],
    queryFn: ({ pageParam }) => call(listChanges, { params: { project: project.id }, query: { most: PAGE, ...(pageParam && { before: pageParam }) } }),
    initialPageParam: 0,
    getNextPageParam: (page) => (page.length < PAGE ? undefined : page.at(-1)!.seq),
  });
  const rows = changes.data?.pages.flat() ?? [];
  return (
    <Page
      actions={
        <Button asChild size="xs" variant="outline">
          <Link to={`/p/${project.id}/changes/between`}>Compare two moments</Link>
        </Button>
      }
    >
      {changes.error && <ErrorNote error={changes.error} retry={() => void changes.refetch()} />}
      {changes.isPending && <Loading what="changes" />}
      {changes.data && rows.length === 0 && <EmptyState title="Nothing has changed yet">What you gather, write and link appears here.</EmptyState>}
      {rows.map((row) => (
        <Flex key={row.id} gap="4" py="1" borderTopWidth="1px" color={row.undone ? 'fg.subtle' : undefined}>
          <Box w="4em" textAlign="right" fontVariantNumeric="tabular-nums" color="fg.muted">
            {row.seq}
          </Box>
          <Box w="11em" color="fg.muted">
            {format(new Date(row.at), 'd MMM yyyy, HH:mm:ss')}
          </Box>
          <OneLine w="11em" text={row.person} />
          <Box flex="1" textDecoration={row.undone ? 'line-through' : undefined}>
            {row.action}
          </Box>
          {row.undone && <Box>undone</Box>}
          <Box asChild color="fg.muted" w="6em" textAlign="right" textDecoration="underline" textDecorationColor="border.emphasized">
            <Link to={`/p/${project.id}/changes/${row.seq}`}>
              {row.changes} {row.changes === 1 ? 'row' : 'rows'}
            </Link>
          </Box>
        </Flex>
      ))}
      {changes.hasNextPage && (
        <Button mt="3" size="xs" variant="outline" loading={changes.isFetchingNextPage} onClick={() => void changes.fetchNextPage()}>
          Older changes
        </Button>
      )}
    </Page>
  );
}
