import { counted, figure, offeredKinds } from '@coomb/core';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { Collection, OutlineReply } from '@coomb/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState } from '../../shared/ui/feedback';
import { heldItem, useAtHand } from '../../shared/marks/at-hand';
import { notify } from '../../shared/ui/notices';
import { useItemAddress } from '../../shared/ui/reference';
import { SaveAs, SaveChosen } from '../exports';
import { useKeys } from '../../shared/ui/use-keys';
import type { Split } from '../item-sheet/ItemEditor';
import { useAddItem, useEditItem, useJoinItems, useSetKinds, useSplitItem, useWithdraw } from '../item-sheet/queries';
import { numberOfStep } from '../item-sheet/step-number';
import type { Written } from '../item-sheet/written';
import { chooseRange, toggleChosen } from './choosing';
import { findNext, findPlaceAfter, type MoveWish } from './find-move';
import { NewItem } from './NewItem';
import { MarksSince } from './MarksSince';
import { useMoves } from './use-moves';
import { useReadingMarks, useTexts } from './queries';
import { ReadingRow, type RowActions } from './ReadingRow';

/** `at`: reference to show; `write`: a new item is being written after that one, or at the end; `since`: the change since which differences are marked. */
const address = z.object({ at: z.string().optional(), write: z.string().optional(), since: z.coerce.number().int().min(0).default(0).catch(0) });

interface Props {
  collection: Collection;
  /** What is seen of the project, and the rows of the collection in it. */
  outline: OutlineReply;
  rows: number[];
  /** All of it, where a lens leaves something out: texts are read, and items moved and joined, among all. */
  whole?: { outline: OutlineReply; rows: number[] };
}

/** Stands among the rows for an item that is being written. */
const NEW = -1;

/** The running text of a collection: one row per item, edited in place, walked by keyboard. */
export function Specification({ collection, outline, rows, whole: all }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ at, write, since }, setAddress] = useAddress(address);
  const frame = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState<string>();
  const [editing, setEditing] = useState<string>();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const add = useAddItem(project.id);
  const edit = useEditItem(project.id);
  const withdraw = useWithdraw(project.id);
  const split = useSplitItem(project.id);
  const join = useJoinItems(project.id);
  const kinds = useSetKinds(project.id);
  // Where a new item is being written: it is stored, and counted, when it has been.
  const newAt = useMemo(() => (write === undefined ? undefined : findPlaceAfter(outline, rows, write)), [write, outline, rows]);
  const lines = useMemo(() => (newAt === undefined ? rows : rows.toSpliced(newAt, 0, NEW)), [rows, newAt]);
  const lineOf = (position: number) => (newAt !== undefined && position >= newAt ? position + 1 : position);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => frame.current,
    estimateSize: (line) => (lines[line] === NEW ? 260 : outline.heading[lines[line]!] ? 56 : 104),
    overscan: 6,
    getItemKey: (line) => (lines[line] === NEW ? 'new' : outline.id[lines[line]!]!),
  });
  const shown = virtual.getVirtualItems();
  const whole = useMemo(() => all ?? { outline, rows }, [all, outline, rows]);
  const placeOf = useMemo(() => new Map(whole.rows.map((row, place) => [whole.outline.id[row]!, place])), [whole]);
  const places = shown.flatMap(({ index }) => (lines[index] === NEW ? [] : [placeOf.get(outline.id[lines[index]!]!) ?? 0]));
  const textAt = useTexts(project.id, collection.id, places);
  const idsOf = useMemo(() => whole.rows.map((row) => whole.outline.id[row]!), [whole]);
  const marks = useReadingMarks(project.id, since, idsOf, places);
  const positionOf = useMemo(() => new Map(rows.map((row, position) => [outline.id[row]!, position])), [rows, outline]);
  const scrolled = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (!at || scrolled.current === at) return;
    const position = rows.findIndex((row) => outline.reference[row] === at);
    if (position < 0) return;
    scrolled.current = at;
    setActive(outline.id[rows[position]!]);
    virtual.scrollToIndex(position, { align: 'start' });
  }, [at, rows, outline, virtual]);

  const position = active === undefined ? undefined : positionOf.get(active);
  const go = (by: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, (position ?? -1) + by));
    setActive(outline.id[rows[next]!]);
    virtual.scrollToIndex(lineOf(next), { align: 'auto' });
    return next;
  };
  const chooseActive = () => position !== undefined && setChosen(toggleChosen(outline, rows, chosen, position));
  const chooseOnwards = (by: number) => setChosen(chooseRange(outline, rows, chosen, Math.max(0, position ?? 0), go(by)));
  const choose = (id: string, isRange: boolean) => {
    const to = positionOf.get(id)!;
    setChosen(isRange && position !== undefined ? chooseRange(outline, rows, chosen, position, to) : toggleChosen(outline, rows, chosen, to));
    setActive(id);
  };
  const present = useMemo(() => [...chosen].filter((id) => positionOf.has(id)), [chosen, positionOf]);
  const atHand = present.length > 0 ? present : active ? [active] : [];
  useAtHand(atHand.flatMap((id) => rows[positionOf.get(id) ?? -1] ?? []).flatMap((row) => (outline.heading[row] ? [] : [heldItem(outline, row)])));
  const addAfter = (after: string | null) => setAddress({ write: after ?? 'end' }, { replace: false });
  useEffect(() => {
    if (newAt !== undefined) virtual.scrollToIndex(newAt, { align: 'center' });
  }, [newAt, virtual]);
  const stored = useRef<string | undefined>(undefined);
  const storeNew = async (written: Written) => {
    const item = await add.mutateAsync({ collection: collection.id, title: '', ...written, after: write === 'end' ? null : (write ?? null) });
    setActive(item.id);
    stored.current = item.id;
  };
  /** The item that follows the marked one at its level, else the first below it: what is joined to it. */
  const joinNext = (id: string) => {
    const next = findNext(whole.outline, whole.rows, placeOf.get(id) ?? -1);
    if (next === undefined) return notify('No item follows that could be joined to it.', 'info');
    join.mutate({ item: id, other: next });
  };
  const splitAt = async (id: string, parts: Split) => {
    const { item } = await split.mutateAsync({ id, ...parts });
    setEditing(undefined);
    setActive(item.id);
  };
  const move = useMoves(project.id, { ...whole, placeOf });
  const tryMove = (wish: MoveWish) => active && move(active, wish);
  const withdrawChosen = () => {
    if (present.length > 0) withdraw.mutate(present, { onSuccess: () => setChosen(new Set()) });
    else if (active) withdraw.mutate([active]);
  };
  const keys = {
    ArrowDown: () => go(1),
    ArrowUp: () => go(-1),
    Enter: () => active && setEditing(active),
    a: () => addAfter(active ?? null),
    j: () => active && joinNext(active),
    o: () => position !== undefined && void navigate(itemAddress(outline.reference[rows[position]!]!)),
    Delete: () => withdrawChosen(),
    ' ': () => chooseActive(),
    'Shift+ArrowDown': () => chooseOnwards(1),
    'Shift+ArrowUp': () => chooseOnwards(-1),
    'Control+a': () => setChosen(new Set(rows.map((row) => outline.id[row]!))),
    ...(chosen.size > 0 && { Escape: () => setChosen(new Set<string>()) }),
    'Alt+ArrowUp': () => tryMove('up'),
    'Alt+ArrowDown': () => tryMove('down'),
    'Alt+ArrowRight': () => tryMove('in'),
    'Alt+ArrowLeft': () => tryMove('out'),
  };
  const latest = useRef({ addAfter, tryMove, choose, joinNext, splitAt, withdraw: withdraw.mutate, edit: edit.mutateAsync });
  useEffect(() => {
    latest.current = { addAfter, tryMove, choose, joinNext, splitAt, withdraw: withdraw.mutate, edit: edit.mutateAsync };
  });
  const actions = useMemo(
    (): RowActions => ({
      activate: setActive,
      choose: (id, isRange) => latest.current.choose(id, isRange),
      edit: setEditing,
      store: (id, written, revision, settled) => latest.current.edit({ id, revision, ...written, ...(settled && { settled }) }),
      done: () => setEditing(undefined),
      next: (id) => {
        setEditing(undefined);
        latest.current.addAfter(id);
      },
      split: (id, parts) => latest.current.splitAt(id, parts),
      join: (id) => latest.current.joinNext(id),
      add: (id) => latest.current.addAfter(id),
      move: (wish) => latest.current.tryMove(wish),
      withdraw: (id) => latest.current.withdraw([id]),
    }),
    [],
  );
  useKeys(keys, editing === undefined && write === undefined);
  return (
    <Flex direction="column" h="100%">
      <Box ref={frame} flex="1" overflow="auto" bg="bg.panel">
        {lines.length === 0 && (
          <EmptyState
            title={`${collection.name} is empty`}
            action={
              <Button size="sm" onClick={() => addAfter(null)}>
                Write the first item
              </Button>
            }
          >
            Write here, or gather a document into it.
          </EmptyState>
        )}
        <Box position="relative" mx="auto" maxW="980px" style={{ height: virtual.getTotalSize() }} mt="3" mb="16">
          {shown.map(({ index, start, key }) => {
            const row = lines[index]!;
            const id = outline.id[row]!;
            const place = {
              'data-index': index,
              ref: virtual.measureElement,
              position: 'absolute',
              w: '100%',
              style: { transform: `translateY(${start}px)` },
            } as const;
            if (row === NEW)
              return (
                <Box key={key} {...place}>
                  <NewItem
                    key={write}
                    collection={collection}
                    path={`shape/${collection.id}?write=${write}`}
                    onStore={storeNew}
                    onDone={() => setAddress({ write: undefined })}
                    onNext={() => setAddress({ write: stored.current ?? write })}
                  />
                </Box>
              );
            return (
              <Box key={key} {...place}>
                <ReadingRow
                  outline={outline}
                  row={row}
                  number={numberOfStep(project.scheme, whole.outline, whole.rows[placeOf.get(id) ?? -1] ?? row)}
                  item={textAt(placeOf.get(id) ?? 0)}
                  depth={depthOf(outline, row)}
                  active={id === active}
                  chosen={chosen.has(id)}
                  editing={id === editing}
                  actions={actions}
                  mark={marks?.byId?.get(id)}
                />
              </Box>
            );
          })}
        </Box>
      </Box>
      <Flex
        borderTopWidth="1px"
        px={{ base: '2', md: '6' }}
        py="1"
        align="center"
        wrap="wrap"
        columnGap="3"
        rowGap="1"
        color="fg.muted"
        fontSize="12.5px"
        bg="bg.panel"
      >
        {present.length > 0 ? (
          <>
            <Box color="fg" fontWeight="600" role="status">
              {present.length} chosen
            </Box>
            <Button size="2xs" variant="ghost" onClick={() => setChosen(new Set())} title="Let go of them (Esc)">
              Let go
            </Button>
            <Button size="2xs" variant="ghost" loading={withdraw.isPending} onClick={withdrawChosen} title="Withdraw them (Delete)">
              <Trash2 size={12} /> Withdraw
            </Button>
            <Choice
              label="Make them of another kind"
              value=""
              options={[
                { value: '', label: 'Make them…' },
                ...offeredKinds(project.scheme).map(({ id, label }) => ({ value: id, label: label.toLowerCase() })),
              ]}
              onChange={(kind) => kind && kinds.mutate({ items: present, kind })}
            />
            <Box ml="auto" />
            <SaveChosen project={project.id} items={present} />
          </>
        ) : (
          <>
            <Box>
              {rows.length < whole.rows.length && `${figure(rows.length)} of ${figure(whole.rows.length)} rows are seen through the lens. `}
              {counted(collection.items, 'item')}.{' '}
              <Box as="span" display={{ base: 'none', md: 'inline' }}>
                Double-click or Enter edits, Space chooses.
              </Box>
            </Box>
            <Box ml="auto" />
            <MarksSince project={project.id} since={since} marks={marks} onChange={(next) => setAddress({ since: next })} />
            <SaveAs project={project.id} collection={collection.id} count={whole.rows.length} />
          </>
        )}
        <Button
          size="2xs"
          variant="outline"
          disabled={newAt !== undefined}
          onClick={() => addAfter(active ?? outline.id[rows.filter((row) => outline.parent[row]! < 0).at(-1) ?? -1] ?? null)}
        >
          <Plus size={12} /> Add an item {active ? 'after the marked one' : 'at the end'}
        </Button>
      </Flex>
    </Flex>
  );
}

function depthOf(outline: OutlineReply, row: number): number {
  let depth = 0;
  for (let up = outline.parent[row]!; up >= 0; up = outline.parent[up]!) depth++;
  return depth;
}
