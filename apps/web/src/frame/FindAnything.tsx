import { Box, Dialog, Flex, Input, Portal } from '@chakra-ui/react';
import { type Found, findItems, MOST_SOUGHT, savedViewSortOf } from '@coomb/contract';
import { markTerms, termsOf } from '@coomb/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../shared/api/client';
import { projectKey } from '../shared/api/keys';
import { useProject } from '../shared/live/project-queries';
import { addressOfView, useSavedViews } from '../shared/saved-views/queries';
import { carries } from '../shared/marks/drag-items';
import { setColourMode, useColourMode } from '../shared/ui/colour-mode';
import { useItemAddress } from '../shared/ui/reference';
import { StateMark } from '../shared/ui/states';
import { useSources } from '../features/gather/queries';
import { stages, type View } from '../shared/view';
import { useTakeBack } from './ledger-queries';
import { OneLine } from '../shared/ui/one-line';

interface Entry {
  key: string;
  sort: 'Item' | 'Source' | 'View' | 'Action';
  label: string;
  /** What is shown in place of the label. */
  shown?: React.ReactNode;
  mark?: React.ReactNode;
  /** Of an item: it can be dragged onto another. */
  reference?: string;
  run: () => void;
}

/** One list for items, views and actions, from the keyboard. */
export function FindAnything({ views, onClose }: { views: readonly View[]; onClose: () => void }) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const takeBack = useTakeBack(project.id);
  const mode = useColourMode();
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  /** While an entry is dragged, the list makes room for what lies below it. */
  const [dragging, setDragging] = useState(false);
  useEffect(() => {
    // An open dialog keeps the page from the pointer, and gives it back when it closes.
    if (dragging) document.body.style.pointerEvents = 'auto';
  }, [dragging]);
  const found = useQuery({
    queryKey: [...projectKey(project.id), 'find', words],
    queryFn: ({ signal }) => call(findItems, { params: { project: project.id }, query: { words: words.slice(0, MOST_SOUGHT), most: 30 }, signal }),
    placeholderData: keepPreviousData,
  });
  const sources = useSources(project.id);
  const kept = useSavedViews(project.id);
  const go = (path: string) => () => void navigate(path);
  const fixed: Entry[] = [
    ...views.flatMap((view): Entry[] => {
      if (view.path === undefined) return [];
      const stage = stages.find(({ id }) => id === view.stage);
      const address = view.path ? `/p/${project.id}/${view.path}` : `/p/${project.id}`;
      return [{ key: view.path, sort: 'View', label: stage ? `${stage.label}: ${view.name}` : view.name, run: go(address) }];
    }),
    ...project.collections.map(
      (collection): Entry => ({ key: collection.id, sort: 'View', label: `Read ${collection.name}`, run: go(`/p/${project.id}/shape/${collection.id}`) }),
    ),
    ...(kept.data ?? []).flatMap((view): Entry[] => {
      const address = addressOfView(view);
      return address
        ? [{ key: view.id, sort: 'View', label: `${savedViewSortOf(view.sort)!.label}: ${view.name}`, run: go(`/p/${project.id}/${address}`) }]
        : [];
    }),
    { key: 'undo', sort: 'Action', label: 'Undo your last action', run: () => takeBack.mutate('undo') },
    { key: 'redo', sort: 'Action', label: 'Redo', run: () => takeBack.mutate('redo') },
    {
      key: 'theme',
      sort: 'Action',
      label: mode === 'dark' ? 'Use the light theme' : 'Use the dark theme',
      run: () => setColourMode(mode === 'dark' ? 'light' : 'dark'),
    },
    { key: 'projects', sort: 'View', label: 'All projects', run: go('/') },
  ];
  const wanted = words.trim();
  const terms = termsOf(words);
  const items = wanted ? (found.data ?? []) : [];
  // Who writes a reference wants the item.
  const isReference = (items[0]?.referenceMarks.length ?? 0) > 0;
  const namedSources = (wanted ? (sources.data ?? []) : [])
    .filter((source) => markTerms(source.name, terms).found === terms.length)
    .slice(0, 5)
    .map((source): Entry => ({ key: source.id, sort: 'Source', label: source.name, run: go(`/p/${project.id}/gather/sources/${source.id}`) }));
  const entries: Entry[] = [
    ...(isReference ? [] : namedSources),
    ...items.map(
      (item): Entry => ({
        key: item.id,
        sort: 'Item',
        label: `${item.reference}  ${item.title}`,
        reference: item.reference,
        shown: <FoundItem item={item} />,
        mark: <StateMark state={item.state} bare />,
        run: go(itemAddress(item.reference)),
      }),
    ),
    ...(isReference ? namedSources : []),
    ...(items.length > 0
      ? [
          {
            key: 'found',
            sort: 'View' as const,
            label: 'All of these as a list, to do something with them',
            run: go(`/p/${project.id}/found?${new URLSearchParams({ words })}`),
          },
        ]
      : []),
    ...fixed.filter((entry) => !wanted || markTerms(entry.label, terms).found === terms.length),
  ];
  const chosen = Math.min(at, entries.length - 1);
  const choose = (entry: Entry | undefined) => {
    if (!entry) return;
    onClose();
    entry.run();
  };
  const list = useId();
  return (
    <Dialog.Root open onOpenChange={onClose} size="lg" placement="top">
      <Portal>
        <Dialog.Backdrop {...(dragging && { display: 'none' })} />
        <Dialog.Positioner {...(dragging && { opacity: 0, pointerEvents: 'none' })}>
          <Dialog.Content aria-label="Find anything" mt="12">
            <Input
              variant="flushed"
              maxLength={MOST_SOUGHT}
              px="4"
              h="46px"
              fontSize="16px"
              autoFocus
              placeholder="A reference, words of an item, a source, a view, an action…"
              aria-label="Find anything"
              role="combobox"
              aria-expanded="true"
              aria-autocomplete="list"
              aria-controls={list}
              aria-activedescendant={`${list}-${chosen}`}
              value={words}
              onChange={(event) => {
                setWords(event.target.value);
                setAt(0);
              }}
              onKeyDown={(event) => {
                if (event.key === 'ArrowDown') setAt(Math.min(chosen + 1, entries.length - 1));
                else if (event.key === 'ArrowUp') setAt(Math.max(chosen - 1, 0));
                else if (event.key === 'Enter') choose(entries[chosen]);
                else return;
                event.preventDefault();
              }}
            />
            <Box role="listbox" id={list} aria-label="Found" maxH="56vh" overflow="auto" py="1">
              {entries.map((entry, index) => (
                <Flex
                  key={`${entry.sort}${entry.key}`}
                  role="option"
                  {...(entry.reference && carries(entry.reference))}
                  onDragEnd={onClose}
                  onDrag={() => !dragging && setDragging(true)}
                  id={`${list}-${index}`}
                  aria-selected={index === chosen}
                  px="4"
                  py="1"
                  gap="3"
                  align="center"
                  cursor="pointer"
                  bg={index === chosen ? 'moss.subtle' : undefined}
                  onMouseMove={() => setAt(index)}
                  onClick={() => choose(entry)}
                  ref={index === chosen ? (element) => void element?.scrollIntoView({ block: 'nearest' }) : undefined}
                >
                  {entry.mark ?? <Box w="14px" />}
                  {entry.shown ?? <OneLine flex="1" text={entry.label} />}
                  <Box color="fg.muted" fontSize="12px">
                    {entry.sort}
                  </Box>
                </Flex>
              ))}
              {entries.length === 0 && (
                <Box px="4" py="3" color="fg.muted">
                  {found.isFetching ? 'Looking…' : `Nothing says “${words}”. Try fewer words, the beginning of one, or a reference.`}
                </Box>
              )}
            </Box>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

/** An item with the words that were looked for, in its title or else where it says them. */
function FoundItem({ item }: { item: Found }) {
  return (
    <Box flex="1" minW="0">
      <Flex gap="3">
        <Box flexShrink="0" fontFamily="mono" fontSize="13px">
          <Marked text={item.reference} marks={item.referenceMarks} />
        </Box>
        <OneLine flex="1" text={item.title}>
          <Marked text={item.title} marks={item.titleMarks} />
        </OneLine>
      </Flex>
      {item.excerpt && (
        <OneLine color="fg.muted" fontSize="13px" text={item.excerpt.text}>
          {item.excerpt.where && `${item.excerpt.where}: `}
          <Marked text={item.excerpt.text} marks={item.excerpt.marks} />
        </OneLine>
      )}
    </Box>
  );
}

function Marked({ text, marks }: { text: string; marks: readonly [number, number][] }) {
  const parts: React.ReactNode[] = [];
  let at = 0;
  for (const [start, end] of marks) {
    parts.push(
      text.slice(at, start),
      <Box key={start} as="mark" bg="moss.muted" color="inherit" borderRadius="2px">
        {text.slice(start, end)}
      </Box>,
    );
    at = end;
  }
  parts.push(text.slice(at));
  return <>{parts}</>;
}
