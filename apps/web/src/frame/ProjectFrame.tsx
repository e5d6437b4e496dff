import { Box, Button, Flex } from '@chakra-ui/react';
import type { Scheme } from '@coomb/core';
import { useQuery } from '@tanstack/react-query';
import { type MouseEvent, Suspense, useMemo, useState } from 'react';
import { Outlet, useLocation, useSearchParams } from 'react-router';
import { FillItems } from '../shared/colour-key/fills';
import { useLive } from '../shared/live/use-live';
import { projectQuery, useProjectId } from '../shared/live/project-queries';
import { lookAsOf, useMoment } from '../shared/moment/moment';
import { ErrorNote, Loading } from '../shared/ui/feedback';
import { HereProvider, type View } from '../shared/view';
import { useKeys } from '../shared/ui/use-keys';
import { FindAnything } from './FindAnything';
import { AddRelated } from '../features/linking/AddRelated';
import { JoinDialog } from '../features/linking/JoinDialog';
import { ItemSheet } from '../features/item-sheet/ItemSheet';
import { CourseBar } from './CourseBar';
import { KeysHelp } from './KeysHelp';
import { LedgerStrip } from './LedgerStrip';
import { MarksLine } from './MarksLine';
import { SayAtHand } from './SayAtHand';
import { TopLine } from './TopLine';
import { useJoining } from './use-joining';
import { usePreloaded } from './use-preloaded';
import { belowProject, viewAt } from './view-at';
import { useWindowPlace } from '../shared/ui/window-title';

const NO_SCHEME: Scheme = { layers: [], kinds: [], linkKinds: [], rules: [], verification: { of: { kinds: [] }, verifies: '', derives: null, waivedBy: '' } };

/** The frame around every view of a project: the course on top, the ledger strip below, the item sheet at the side. */
export function ProjectFrame({ views }: { views: readonly View[] }) {
  const project = useProjectId();
  const here = viewAt(views, belowProject(useLocation().pathname));
  const about = useQuery(projectQuery(project));
  useWindowPlace(about.data?.name ?? '');
  const moment = useMoment(project);
  const live = useLive(project, about.data !== undefined);
  usePreloaded(views, about.data !== undefined);
  const [overlay, setOverlay] = useState<'find' | 'keys' | null>(null);
  const [params, setParams] = useSearchParams();
  const item = params.get('item');
  const closeItem = () =>
    // Back must not open again what was closed: the closed sheet takes the place of the open one.
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        next.delete('item');
        return next;
      },
      { replace: true },
    );
  /** Links in texts that lead to items open the sheet beside what is read. */
  const openLinkedItem = (event: MouseEvent<HTMLElement>) => {
    const link = (event.target as Element).closest?.('a[data-item]');
    if (!link || link.closest('[contenteditable="true"]')) return;
    event.preventDefault();
    setParams((before) => {
      const next = new URLSearchParams(before);
      next.set('item', link.getAttribute('data-item')!);
      return next;
    });
  };
  const keys = useMemo(() => ({ 'Control+k': () => setOverlay('find'), '/': () => setOverlay('find'), '?': () => setOverlay('keys') }), []);
  useKeys(keys);
  const joins = useJoining(project, about.data?.scheme ?? NO_SCHEME);
  if (about.error)
    return (
      <Box p="8">
        <ErrorNote error={about.error} retry={() => void about.refetch()} />
        {moment && (
          <Button size="xs" mt="3" onClick={() => lookAsOf(project, undefined)}>
            Back to now, from {moment.says}
          </Button>
        )}
      </Box>
    );
  if (!about.data) return <Loading what="the project" />;
  return (
    <FillItems project={project}>
      <Flex direction="column" h="100%" overflow="hidden">
        <TopLine project={about.data} here={here ?? undefined} onFind={() => setOverlay('find')} onKeys={() => setOverlay('keys')} />
        <CourseBar project={about.data} views={views} here={here} />
        <Flex flex="1" minH="0" position="relative">
          <Box as="main" onClick={openLinkedItem} flex="1" minW="0" h="100%" overflow="hidden">
            <Suspense fallback={<Loading what="the view" />}>
              <HereProvider value={here}>
                <Outlet />
              </HereProvider>
            </Suspense>
          </Box>
          {item && (
            <Box display="contents" onClick={openLinkedItem}>
              <ItemSheet key={item} item={item} onClose={closeItem} />
            </Box>
          )}
        </Flex>
        {!item && <SayAtHand project={project} />}
        <LedgerStrip {...live} marks={<MarksLine project={project} onJoin={joins.join} />} />
        {overlay === 'find' && <FindAnything views={views} onClose={() => setOverlay(null)} />}
        {joins.joining && <JoinDialog {...joins.joining} onClose={joins.leave} onDone={joins.done} />}
        {joins.adding && <AddRelated item={joins.adding} onClose={joins.leave} />}
        {overlay === 'keys' && <KeysHelp view={here} onClose={() => setOverlay(null)} />}
      </Flex>
    </FillItems>
  );
}
