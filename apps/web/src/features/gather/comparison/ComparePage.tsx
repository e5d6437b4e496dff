import { counted } from '@coomb/core';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { ComparedEntry } from '@coomb/contract';
import { useMemo, useState } from 'react';
import { Link, Navigate, useLocation, useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../../shared/address';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../../shared/ui/feedback';
import { notify } from '../../../shared/ui/notices';
import { Page } from '../../../shared/ui/page';
import { useImport } from '../queries';
import { type Choices, countOpen, takenOf } from './choices';
import { type Pairs, type RecipeWish, useComparison } from './compare-queries';
import { countDifferences, differsIn, readPartWish, writePartWish } from './differences';
import { DrawingDifferences } from '../../../shared/drawing/DrawingDifferences';
import { EntryDetail } from './EntryDetail';
import { sortWords } from './sort-words';
import { EntryList } from './EntryList';

const filters = ['all', 'conflicts', 'new', 'changed', 'moved', 'removed', 'returned', 'same', 'drawings'] as const;
const address = z.object({
  source: z.string().default(''),
  other: z.enum(['yes', '']).default(''),
  show: z.enum(filters).default('all'),
  part: z.string().optional(),
  entry: z.string().optional(),
});
/** References that an address takes. */
const MOST_ASKED = 300;

/** A newer version beside what stands here: everything that differs, to be taken one by one or all. Nothing is stored until Import. */
export function ComparePage() {
  const project = useProject();
  const { tray } = useParams();
  const navigate = useNavigate();
  const recipe = (useLocation().state ?? {}) as RecipeWish;
  const [{ source, other: through, show, part, entry: chosen }, set] = useAddress(address);
  const other = through === 'yes';
  const [choices, setChoices] = useState<Choices>({});
  const [pairs, setPairs] = useState<Pairs>([]);
  const comparison = useComparison(project.id, tray!, source, recipe, pairs, other);
  const start = useImport(project.id, tray!);
  const entries = comparison.data?.entries;
  const sorted = useMemo(
    () =>
      (entries ?? []).filter((entry) =>
        show === 'all' ? entry.sort !== 'same' : show === 'conflicts' ? entry.conflict : show !== 'drawings' && entry.sort === show,
      ),
    [entries, show],
  );
  const differences = useMemo(() => countDifferences(sorted), [sorted]);
  const shown = useMemo(() => (part ? sorted.filter((entry) => differsIn(entry, readPartWish(part))) : sorted), [sorted, part]);
  // Without the version that stands here there is nothing to compare with: the tray offers the choice.
  if (!source) return <Navigate to={`/p/${project.id}/gather/${tray}`} replace />;
  if (comparison.error)
    return (
      <Box p="6">
        <ErrorNote error={comparison.error} retry={() => void comparison.refetch()} />
      </Box>
    );
  if (!comparison.data) return <Loading what="the comparison" />;
  const { counts, collection, drawings } = comparison.data;
  const current = shown.find((entry) => entry.id === chosen) ?? shown[0];
  const taken = comparison.data.entries.filter((entry) => entry.sort !== 'same' && takenOf(entry, choices) !== 'none').length;
  const differing = comparison.data.entries.filter((entry) => entry.sort !== 'same').length;
  const gone = comparison.data.entries.filter((entry) => entry.sort === 'removed');
  /** What stands here and would say something else. */
  const touched = shown.flatMap(({ sort, mine }) => (mine && sort !== 'same' ? [mine.reference] : []));
  const open = countOpen(comparison.data.entries, choices);
  const setAll = (side: 'mine' | 'theirs') => setChoices({ ...choices, ...Object.fromEntries(shown.map((entry) => [entry.id, side])) });
  const pair = (entry: ComparedEntry, item: string | null) =>
    entry.theirs && setPairs([...pairs.filter(([draft]) => draft !== entry.theirs!.draft), [entry.theirs.draft, item]]);
  const failure = start.error ?? (start.data && start.data.state !== 'done' ? new Error(start.data.message) : undefined);
  const run = () =>
    start.mutate(
      { ...recipe, again: { source, ...(other && { other }), pairs, choices, seq: comparison.data.seq } },
      {
        onSuccess: (job) => {
          if (job.state !== 'done') return void comparison.refetch();
          notify(`Imported ${counted(job.outcome!.items, 'changed item or section', 'changed items or sections')} and ${counted(job.outcome!.links, 'link')}`);
          void navigate(`/p/${project.id}/shape/${job.outcome!.collection}`);
        },
      },
    );
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={`${comparison.data.file} as a newer version`}
          lead={`Compared with ${comparison.data.source.name}, and with ${collection.name} as it stands here. Nothing is stored yet.`}
          fill
          actions={
            <>
              {touched.length > 0 && (
                <Button asChild size="xs" variant="ghost" title={`What taking the changes of ${counted(touched.length, 'item')} would touch`}>
                  <Link to={`/p/${project.id}/link/impact?items=${touched.slice(0, MOST_ASKED).join(',')}`}>Impact</Link>
                </Button>
              )}
              <Button size="xs" variant="outline" onClick={() => setAll('theirs')} disabled={shown.length === 0}>
                Take all shown
              </Button>
              <Button size="xs" variant="outline" onClick={() => setAll('mine')} disabled={shown.length === 0}>
                Leave all shown
              </Button>
            </>
          }
        >
          <Flex direction="column" h="100%">
            <Flex gap="1.5" px="6" pb="2" wrap="wrap" align="center">
              {filters.map((one) => {
                const count = one === 'all' ? differing : one === 'conflicts' ? counts.conflicts : one === 'drawings' ? drawings.length : counts[one];
                if (one === 'drawings' && count === 0) return null;
                return (
                  <Button
                    key={one}
                    size="2xs"
                    variant={one === show ? 'solid' : 'outline'}
                    colorPalette={one === 'conflicts' && count > 0 ? 'brick' : undefined}
                    aria-pressed={one === show}
                    onClick={() => set({ show: one, part: undefined, entry: undefined })}
                    disabled={count === 0 && one !== 'all'}
                  >
                    {count}{' '}
                    {one === 'all'
                      ? 'differ'
                      : one === 'conflicts'
                        ? 'to decide'
                        : one === 'same'
                          ? 'the same'
                          : one === 'drawings'
                            ? count === 1
                              ? 'drawing'
                              : 'drawings'
                            : sortWords[one]}
                  </Button>
                );
              })}
              {differences.length > 1 && (
                <Choice
                  label="Differing in"
                  value={part ?? ''}
                  options={[
                    { value: '', label: 'in any part' },
                    ...differences.map((one) => ({
                      value: writePartWish({ part: one.part, only: false }),
                      label: `in ${one.part.toLowerCase()} (${one.count})`,
                    })),
                    ...differences
                      .filter((one) => one.alone > 0)
                      .map((one) => ({ value: writePartWish({ part: one.part, only: true }), label: `only in ${one.part.toLowerCase()} (${one.alone})` })),
                  ]}
                  onChange={(value) => set({ part: value || undefined, entry: undefined })}
                />
              )}
            </Flex>
            {show === 'drawings' && drawings.length > 0 ? (
              <DrawingDifferences drawings={drawings} />
            ) : shown.length === 0 ? (
              <EmptyState title={differing === 0 ? 'Nothing differs' : 'Nothing of this sort'}>
                {differing === 0
                  ? 'The file says what stands here already. Importing it only notes where each item stands in the new file.'
                  : 'Choose another sort above.'}
              </EmptyState>
            ) : (
              <Flex flex="1" minH="0" borderTopWidth="1px">
                <EntryList entries={shown} current={current?.id} choices={choices} onChoose={setChoices} onShow={(id) => set({ entry: id })} />
                {current && (
                  <EntryDetail key={current.id} project={project} entry={current} gone={gone} choices={choices} onChoose={setChoices} onPair={pair} />
                )}
              </Flex>
            )}
          </Flex>
        </Page>
      </Box>
      <Box bg="bg.panel" borderTopWidth="1px" px="6" py="2" flexShrink={0}>
        {failure && <ErrorNote error={failure} />}
        <Flex align="center" gap="3">
          <Box flex="1" fontSize="13.5px">
            {taken} of {counted(differing, 'difference')} taken, {counted(counts.same, 'item or section', 'items and sections')} the same.
            {open > 0 && (
              <Box as="span" color="brick.fg">
                {' '}
                {open} to decide keep what stands here.
              </Box>
            )}
          </Box>
          <Button size="xs" variant="ghost" onClick={() => void navigate(-1)}>
            Back
          </Button>
          <Button size="sm" onClick={run} loading={start.isPending} loadingText="Importing…">
            Import
          </Button>
        </Flex>
      </Box>
    </Flex>
  );
}
