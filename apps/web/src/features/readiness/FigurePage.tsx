import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { compareReferences, conditionOfFigure, stateWords } from '@coomb/core';
import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { saveFile } from '../../shared/save-file';
import { SaveChosen } from '../exports';
import { Reference } from '../../shared/ui/reference';
import { PersonMark } from '../../shared/ui/person-mark';
import { useErrands } from '../acting/queries';
import { ItemList } from '../acting/ItemList';
import { StateMark } from '../../shared/ui/states';
import { FigureTrend } from './FigureTrend';
import { useFigure } from './queries';
import { toCsv } from '../../shared/to-csv';
import { OneLine } from '../../shared/ui/one-line';

const address = z.object({
  collection: z.string().optional(),
  words: z.string().default(''),
  sort: z.enum(['outline', 'reference', 'title', 'state']).default('outline'),
  trend: z.enum(['', 'yes']).default(''),
});

/** The very items behind a number. */
export function FigurePage() {
  const project = useProject();
  const { figure } = useParams();
  const [{ collection, words: kept, sort, trend }, set] = useAddress(address);
  const [words, setWords] = useState(kept);
  const { part: seen, says } = useFiguresLens();
  const part = useMemo(() => ({ ...(collection && { collection }), ...seen }), [collection, seen]);
  const opened = useFigure(project.id, figure!, part);
  const items = useMemo(() => {
    const wanted = words.toLowerCase();
    const found = (opened.data?.items ?? []).filter((item) => `${item.reference} ${item.title}`.toLowerCase().includes(wanted));
    if (sort === 'reference') found.sort((a, b) => compareReferences(a.reference, b.reference));
    if (sort === 'title') found.sort((a, b) => a.title.localeCompare(b.title));
    if (sort === 'state') found.sort((a, b) => a.state.localeCompare(b.state));
    return found;
  }, [opened.data, words, sort]);
  if (opened.error)
    return (
      <Box p="6">
        <ErrorNote error={opened.error} />
      </Box>
    );
  if (!opened.data) return <Loading what="the items" />;
  const kinds = new Map(project.scheme.kinds.map((kind) => [kind.id, kind.label]));
  const collections = new Map(project.collections.map((one) => [one.id, one.name]));
  const save = () => {
    const rows = items.map((item) => [
      item.reference,
      item.title,
      kinds.get(item.kind) ?? '',
      collections.get(item.collection) ?? '',
      stateWords[item.state].label,
      item.note ?? '',
    ]);
    saveFile(`${opened.data.label}.csv`, new Blob([toCsv([['Reference', 'Title', 'Kind', 'Collection', 'State', 'Open'], ...rows])], { type: 'text/csv' }));
  };
  return (
    <Page
      title={`${opened.data.label}: ${items.length}`}
      lead={says ? `${opened.data.explains} ${says}` : opened.data.explains}
      fill
      actions={
        <>
          <Input
            size="xs"
            w="130px"
            placeholder="Filter by words"
            aria-label="Filter by words"
            value={words}
            onChange={(event) => {
              setWords(event.target.value);
              set({ words: event.target.value });
            }}
            bg="bg.panel"
          />
          <Choice
            label="Collection"
            value={collection ?? ''}
            options={[{ value: '', label: 'all collections' }, ...project.collections.map((one) => ({ value: one.id, label: one.name }))]}
            onChange={(value) => set({ collection: value || undefined })}
          />
          <Choice
            label="Order"
            value={sort}
            options={[
              { value: 'outline', label: 'in reading order' },
              { value: 'reference', label: 'by reference' },
              { value: 'title', label: 'by title' },
              { value: 'state', label: 'by state' },
            ]}
            onChange={(value) => set({ sort: value as 'outline' })}
          />
          <Button
            size="xs"
            variant={trend ? 'solid' : 'outline'}
            aria-pressed={trend === 'yes'}
            onClick={() => set({ trend: trend ? '' : 'yes' })}
            title="What it was after earlier changes"
          >
            Trend
          </Button>
          {items.length > 0 && <SaveChosen project={project.id} items={items.map((item) => item.id)} size="xs" />}
          <Button size="xs" variant="outline" onClick={save} disabled={items.length === 0} title="These rows with their states, to be read elsewhere">
            <Download size={13} /> Save the list
          </Button>
        </>
      }
    >
      <Flex direction="column" h="100%">
        {trend && <FigureTrend figure={figure!} part={part} />}
        <Box flex="1" minH="0">
          {items.length === 0 ? (
            <EmptyState
              title="No item"
              action={
                <Button asChild size="xs" variant="outline">
                  <Link to={`/p/${project.id}/check`}>Back to readiness</Link>
                </Button>
              }
            >
              {words ? 'None of the items holds these words.' : 'Nothing counts here.'}
            </EmptyState>
          ) : (
            <ItemRows figure={figure!} isWhole={!words && !collection && !seen.lens} items={items} kinds={kinds} collections={collections} />
          )}
        </Box>
      </Flex>
    </Page>
  );
}

type Items = NonNullable<ReturnType<typeof useFigure>['data']>['items'];

interface RowsProps {
  figure: string;
  /** Nothing of it is left out. */
  isWhole: boolean;
  items: Items;
  kinds: Map<string, string>;
  collections: Map<string, string>;
}

function ItemRows({ figure, isWhole, items, kinds, collections }: RowsProps) {
  const project = useProject();
  const ownerOf = new Map((useErrands(project.id).data ?? []).map((one) => [one.item, one.owner]));
  /** Lists of what misses a rule are gaps, which may be waived. */
  const rule = /^rule:([^:]+):notMet$/.exec(figure)?.[1];
  return (
    <ItemList
      label="Items"
      items={items}
      common={isWhole ? conditionOfFigure(project.scheme, figure) : undefined}
      findingOf={rule === undefined ? undefined : ({ id }) => `gap:${rule}:${id}`}
    >
      {(item) => (
        <>
          <StateMark state={item.state} bare />
          <Reference reference={item.reference} w="6em" flexShrink={0} />
          <OneLine flex="1" fontFamily="serif" text={item.title} />
          {ownerOf.has(item.id) && <PersonMark name={ownerOf.get(item.id)!} />}
          {item.note && <OneLine maxW="24em" color="brick.fg" fontSize="12.5px" text={item.note} />}
          <Box w="9em" color="fg.muted" fontSize="12.5px">
            {kinds.get(item.kind)}
          </Box>
          <OneLine w="13em" color="fg.muted" fontSize="12.5px" text={collections.get(item.collection) ?? ''} />
          <Box w="8em" color="fg.muted" fontSize="12.5px">
            {stateWords[item.state].label}
          </Box>
        </>
      )}
    </ItemList>
  );
}
