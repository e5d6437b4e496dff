import { Box, Button, Flex, Input } from '@chakra-ui/react';
import {
  buildPassageHtml,
  findCovered,
  findKind,
  findUnclipped,
  measureClipped,
  type Passage,
  type PassageStep,
  quotePassages,
  type SourceBlock,
  type SourcePlace,
  stepPassages,
  getUsualKind,
  offeredKinds,
  withinSentence,
} from '@coomb/core';
import { useMemo, useRef, useState } from 'react';
import type { Project } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { notify } from '../../shared/ui/notices';
import { Reference } from '../../shared/ui/reference';
import { useKeys } from '../../shared/ui/use-keys';
import { type SourceReading, useClip, useRemoveClipping } from './queries';
import { readSelection } from './selection';
import { SourceText } from './SourceText';
import { OneLine } from '../../shared/ui/one-line';

interface Props {
  project: Project;
  reading: SourceReading;
  blocks: SourceBlock[];
  at: string | undefined;
}

interface Current {
  id: string;
  reference: string;
  title: string;
  kind: string;
}

/** The document at the left, to select in; what the selection becomes at the right. */
export function ClipDesk({ project, reading, blocks, at }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const specifications = project.collections.filter((one) => one.holds === 'specification');
  const [chosen, setCollection] = useState('');
  const [kind, setKind] = useState('');
  const home = project.collections.find((one) => one.id === findKind(project.scheme, kind)?.home);
  // A kind brings its items home, unless somebody says where they go.
  const collection = chosen || (home ?? specifications[0])?.id || '';
  const [current, setCurrent] = useState<Current>();
  const [selected, select] = useState<readonly Passage[]>([]);
  const quote = useMemo(() => quotePassages(blocks, selected), [blocks, selected]);
  const [words, setWords] = useState('shall, must');
  const [field, setField] = useState('text');
  const clip = useClip(project.id, reading.id);
  const remove = useRemoveClipping(project.id);
  const wordList = useMemo(() => words.split(/,\s*/).filter(Boolean), [words]);
  const covered = useMemo(
    () => [
      ...reading.clippings,
      ...findCovered(
        blocks,
        reading.items.map(({ place }) => place as SourcePlace),
        reading.issues,
      ),
    ],
    [blocks, reading],
  );
  const accounted = useMemo(() => measureClipped(blocks, covered, wordList), [blocks, covered, wordList]);
  const open = useMemo(() => findUnclipped(blocks, covered, wordList), [blocks, covered, wordList]);
  const take = () => {
    const found = root.current ? readSelection(root.current) : [];
    if (found.length) select(found);
  };
  const make = (as: 'item' | 'child' | 'field' | 'link') => {
    if (!quote) return notify('Select a passage in the text first.', 'info');
    const passages = selected.map((one) => ({ ...one, quote: quotePassages(blocks, [one]) }));
    clip.mutate(
      {
        passages,
        html: buildPassageHtml(blocks, selected),
        as,
        collection,
        ...(kind && { kind }),
        ...(current && { item: current.id }),
        ...(as === 'field' && { field }),
      },
      {
        onSuccess: ({ item, links, issues }) => {
          select([]);
          root.current?.ownerDocument.getSelection()?.removeAllRanges();
          if (as === 'item' || as === 'child') setCurrent({ id: item.id, reference: item.reference, title: item.title, kind: item.kind });
          notify(
            [
              as === 'link' ? `${links} ${links === 1 ? 'link' : 'links'} from ${item.reference}` : `${item.reference} ${as === 'field' ? 'filled' : 'made'}`,
              ...issues.map((issue) => issue.message),
            ].join('. '),
          );
        },
      },
    );
  };
  const next = () => {
    const from = selected.at(-1);
    const after = open.find((one) => !from || one.block > from.block || (one.block === from.block && one.start > from.start)) ?? open[0];
    if (after) select([{ block: after.block, start: after.start, end: after.end }]);
  };
  const move = (step: PassageStep) => () => {
    root.current?.ownerDocument.getSelection()?.removeAllRanges();
    select(stepPassages(blocks, selected, step));
  };
  useKeys({
    ArrowDown: move('next'),
    ArrowUp: move('previous'),
    'Shift+ArrowDown': move('more'),
    'Shift+ArrowUp': move('less'),
    'Shift+ArrowRight': move('wider'),
    'Shift+ArrowLeft': move('narrower'),
    Escape: () => select([]),
    i: () => make('item'),
    c: () => make('child'),
    f: () => make('field'),
    l: () => make('link'),
    n: next,
  });
  const share = accounted.characters ? (100 * accounted.clipped) / accounted.characters : 0;
  const fields = [
    { value: 'text', label: 'its text' },
    { value: 'title', label: 'its title' },
    ...(findKind(project.scheme, current?.kind ?? getUsualKind(project.scheme).id)?.fields ?? []).map((one) => ({
      value: one.id,
      label: one.label.toLowerCase(),
    })),
  ];
  return (
    <Flex h="100%" direction={{ base: 'column', md: 'row' }}>
      <Box flex="1" minW="0" minH="0" ref={root} onMouseUp={take} onKeyUp={take}>
        <SourceText blocks={blocks} reading={reading} selected={selected} at={at} />
      </Box>
      <Box
        w={{ base: '100%', md: '340px' }}
        maxH={{ base: '40%', md: 'none' }}
        flexShrink={0}
        overflow="auto"
        bg="bg.panel"
        borderLeftWidth={{ md: '1px' }}
        borderTopWidth={{ base: '1px', md: '0' }}
        px="4"
        py="3"
        fontSize="13.5px"
      >
        <Box fontFamily="serif" fontSize="22px" fontWeight="600" lineHeight="1.1">
          {share > 0 && share < 10 ? share.toFixed(1) : Math.floor(share)} %
        </Box>
        <Box color="fg.muted">of the text is accounted for: clipped, or read by a recipe.</Box>
        <Flex mt="3" gap="2" align="center">
          <Box flex="1">
            {accounted.open} of {accounted.binding} sentences with
          </Box>
          <Input size="2xs" w="110px" aria-label="Binding words" value={words} onChange={(event) => setWords(event.target.value)} />
        </Flex>
        <Flex gap="2" align="center" mt="1">
          <Box flex="1">are not accounted for.</Box>
          <Button size="2xs" variant="outline" onClick={next} disabled={open.length === 0} title="Go to the next (N)">
            Next one
          </Button>
        </Flex>
        <Box fontWeight="600" mt="5">
          Selected
        </Box>
        <Box
          fontFamily="serif"
          color={quote ? undefined : 'fg.muted'}
          whiteSpace="pre-line"
          maxH="120px"
          overflow="auto"
          borderLeftWidth="3px"
          borderColor="moss.solid"
          pl="2"
          my="1.5"
        >
          {quote || 'Nothing. Select words with the mouse, or sentences with the arrow keys.'}
        </Box>
        <Flex gap="2" align="center" mb="1.5">
          <Box flex="1">into</Box>
          <Choice
            label="Collection"
            value={collection}
            options={(home && !specifications.includes(home) ? [home, ...specifications] : specifications).map((one) => ({ value: one.id, label: one.name }))}
            onChange={setCollection}
            width="200px"
          />
        </Flex>
        <Flex gap="2" align="center" mb="1.5">
          <Box flex="1">as</Box>
          <Choice
            label="Kind of the new items"
            value={kind}
            options={[
              { value: '', label: 'the collection’s own kind' },
              ...offeredKinds(project.scheme).map((one) => ({ value: one.id, label: withinSentence(one.label) })),
            ]}
            onChange={(next) => {
              setKind(next);
              setCollection('');
            }}
            width="200px"
          />
        </Flex>
        {specifications.length === 0 && <Box color="fg.warning">There is no specification yet: make one in Shape, or import one.</Box>}
        <Flex gap="1.5" wrap="wrap">
          <Button size="xs" onClick={() => make('item')} disabled={!collection || !quote} title="Make an item (I)">
            Make an item
          </Button>
          <Button size="xs" variant="outline" onClick={() => make('child')} disabled={!current || !quote} title="Make an item below the current one (C)">
            Below {current?.reference ?? 'the current'}
          </Button>
        </Flex>
        <Box fontWeight="600" mt="5" mb="1">
          Current item
        </Box>
        {current ? (
          <>
            <Flex gap="2" align="baseline">
              <Reference reference={current.reference} />
              <OneLine text={current.title} />
            </Flex>
            <Flex gap="1.5" mt="2" align="center" wrap="wrap">
              <Button size="xs" variant="outline" onClick={() => make('field')} disabled={!quote} title="Put the passage there (F)">
                Put into
              </Button>
              <Choice label="Field" value={field} options={fields} onChange={setField} width="150px" />
              <Button size="xs" variant="outline" onClick={() => make('link')} disabled={!quote} title="Link it to the references in the passage (L)">
                Link
              </Button>
            </Flex>
          </>
        ) : (
          <Box color="fg.muted">The item clipped last. Click one in the list below to take another.</Box>
        )}
        <Box fontWeight="600" mt="5" mb="1">
          Clipped here: {reading.clippings.length}
        </Box>
        {reading.clippings.map((clipping) => (
          <Flex key={clipping.id} gap="2" align="baseline" py="0.5" borderTopWidth="1px">
            <Button
              size="2xs"
              variant="ghost"
              fontFamily="mono"
              px="1"
              title="Take as the current item"
              onClick={() => {
                setCurrent({ id: clipping.item.id, reference: clipping.item.reference, title: clipping.item.title, kind: clipping.item.kind });
                select([clipping]);
              }}
            >
              {clipping.item.reference}
            </Button>
            <OneLine flex="1" text={clipping.quote} />
            <Button size="2xs" variant="ghost" onClick={() => remove.mutate(clipping.id)} aria-label={`Let go of “${clipping.quote.slice(0, 40)}”`}>
              Let go
            </Button>
          </Flex>
        ))}
        {reading.lost.length > 0 && (
          <>
            <Box fontWeight="600" mt="5" mb="1" color="fg.warning">
              Not found in this version: {reading.lost.length}
            </Box>
            {reading.lost.map((clipping) => (
              <Flex key={clipping.id} gap="2" align="baseline" py="0.5" borderTopWidth="1px">
                <Reference reference={clipping.item.reference} />
                <Box flex="1">{clipping.quote}</Box>
                <Button size="2xs" variant="ghost" onClick={() => remove.mutate(clipping.id)} aria-label={`Let go of “${clipping.quote.slice(0, 40)}”`}>
                  Let go
                </Button>
              </Flex>
            ))}
          </>
        )}
      </Box>
    </Flex>
  );
}
