import { Box, Flex } from '@chakra-ui/react';
import type { OutlineReply, ReplyOf, suggestLinks } from '@coomb/contract';
import { type AllowedLink, findAllowedLinks, phraseAt } from '@coomb/core';
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { rowsOf, useProject } from '../../shared/live/project-queries';
import { ofSameLife } from '../../shared/live/same-life';
import { dropAt } from '../../shared/marks/drag-items';
import { heldItem, useAtHand } from '../../shared/marks/at-hand';
import { notify } from '../../shared/ui/notices';
import { useItemAddress } from '../../shared/ui/reference';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { useSize } from '../../shared/ui/use-size';
import { BenchSide } from './BenchSide';
import { buildThreads, narrowRows, type Thread } from './bench-rows';
import { type BenchPlace, buildAnnouncements, usePointer } from './dragging';
import { ChangeLinksDialog } from '../linking/ChangeLinksDialog';
import { KindChoice } from '../linking/KindChoice';
import { useLinksBetween, useMakeLink, useRefuse, useSuggestions, useUnlink, useUsed } from '../linking/queries';
import { settledKind } from '../linking/remembered-kinds';
import { sayLikelihood, sayReasons } from '../linking/say-reasons';
import { buildUseLines, holdsIn } from '../linking/use-lines';
import { rowHeight, Threads } from './Threads';

interface Props {
  outline: OutlineReply;
  left: string;
  right: string;
  onlyUnlinked: boolean;
  likely: boolean;
  /** Reference of the item on the left that is marked first; empty for none. */
  at?: string;
  /** Kinds of items that a side shows only; empty for all. */
  kinds?: { left: string; right: string };
}

const ALL_KINDS = { left: '', right: '' };

/** Two outlines with threads between. By mouse: drag. By keyboard: arrows, Enter, Delete. */
export function Bench({ outline, left, right, onlyUnlinked, likely, at = '', kinds = ALL_KINDS }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const { scheme } = project;
  const [leftIndex, rightIndex] = [left, right].map((id) => project.collections.findIndex((one) => one.id === id)) as [number, number];
  const links = ofSameLife(outline, useLinksBetween(project.id, left, right).data);
  const make = useMakeLink(project.id);
  const take = useMakeLink(project.id, 'suggested');
  const unlink = useUnlink(project.id);
  const frame = useRef<HTMLDivElement>(null);
  const { height } = useSize(frame);
  const [scroll, setScroll] = useState({ left: 0, right: 0 });
  const [side, setSide] = useState<'left' | 'right'>('left');
  const [marked, setMarked] = useState<{ left?: number; right?: number }>(() => {
    const row = at ? outline.reference.indexOf(at) : -1;
    return row >= 0 ? { left: row } : {};
  });
  /** Which use of the marked item of a side is looked at: its place among the uses, one more; 0 for every one. */
  const [inUse, setInUse] = useState({ left: 0, right: 0 });
  const used = useUsed(project.id).data;
  const usesOf = useMemo(() => buildUseLines(used, new Map(outline.node.map((node, row) => [node, row]))), [used, outline]);
  const [asking, setAsking] = useState<{ left: number; right: number; allowed: AllowedLink[] }>();
  const [dragged, setDragged] = useState<BenchPlace>();
  const [changing, setChanging] = useState<readonly string[]>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));

  const threads = useMemo(() => (links ? buildThreads(outline, links, leftIndex, rightIndex) : []), [outline, links, leftIndex, rightIndex]);
  const linked = useMemo(() => new Set(threads.map((thread) => thread.left)), [threads]);
  const leftRows = useMemo(() => {
    const all = rowsOf(outline, leftIndex);
    const isOfKind = (row: number) => !kinds.left || outline.kinds[outline.kind[row]!] === kinds.left;
    const isWanted = (row: number) => isOfKind(row) && (!onlyUnlinked || !linked.has(row) || row === marked.left);
    return onlyUnlinked || kinds.left ? narrowRows(outline, all, isWanted) : all;
  }, [outline, leftIndex, onlyUnlinked, linked, marked.left, kinds.left]);
  const plainRight = useMemo(() => {
    const all = rowsOf(outline, rightIndex);
    return kinds.right ? narrowRows(outline, all, (row) => outline.kinds[outline.kind[row]!] === kinds.right) : all;
  }, [outline, rightIndex, kinds.right]);
  const suggestions = useSuggestions(
    project.id,
    likely && marked.left !== undefined && !outline.heading[marked.left] ? outline.id[marked.left] : undefined,
    right,
  );
  const refusing = useRefuse(project.id);
  const { rightRows, reasons } = useMemo(
    () => orderRight(outline, plainRight, likely && suggestions.data ? suggestions.data : [], threads, marked.left),
    [outline, plainRight, likely, suggestions.data, threads, marked.left],
  );

  const pointer = usePointer(dragged !== undefined);
  const announcements = useMemo(() => buildAnnouncements((row) => outline.reference[row]!), [outline]);

  const candidates = rightRows.filter((row) => reasons.has(row) && !threads.some((thread) => thread.left === marked.left && thread.right === row));
  const rowAtHand = marked[side];
  useAtHand(rowAtHand === undefined || outline.heading[rowAtHand] ? [] : [heldItem(outline, rowAtHand)]);
  const kindOf = (row: number) => scheme.kinds[outline.kind[row]!]!.id;
  const allowedFor = (a: number, b: number): AllowedLink[] => {
    if (outline.heading[a] || outline.heading[b]) return [];
    const present = threads.filter((thread) => thread.left === a && thread.right === b && holds(thread) !== 'elsewhere');
    return findAllowedLinks(scheme, kindOf(a), kindOf(b)).filter(
      ({ linkKind, reversed }) => !present.some((thread) => scheme.linkKinds[thread.kind]!.id === linkKind.id && thread.leftIsFrom === !reversed),
    );
  };
  const create = (a: number, b: number, { linkKind, reversed }: AllowedLink) => {
    const [from, to] = reversed ? [b, a] : [a, b];
    const [aUse, bUse] = [a === marked.left ? lookedAt('left') : undefined, b === marked.right ? lookedAt('right') : undefined];
    const [fromUse, toUse] = reversed ? [bUse, aUse] : [aUse, bUse];
    const places = { ...(fromUse && { fromUsage: [...fromUse.path] }), ...(toUse && { toUsage: [...toUse.path] }) };
    const by = reasons.has(b) && a === marked.left ? take : make;
    by.mutate([{ linkKind: linkKind.id, from: outline.id[from]!, to: outline.id[to]!, ...places }], {
      onSuccess: () =>
        notify(
          `${outline.reference[a]} ${phraseAt(linkKind, reversed ? 'to' : 'from')} ${outline.reference[b]}${aUse || bUse ? `, only as in ${(aUse ?? bUse)!.says}` : ''}`,
        ),
    });
    setAsking(undefined);
    frame.current?.focus();
  };
  const propose = (a: number | undefined, b: number | undefined) => {
    if (a === undefined || b === undefined) return notify('Mark an item on each side first.', 'info');
    const allowed = allowedFor(a, b);
    if (allowed.length === 0)
      return notify(
        explainRefusal(outline, threads, a, b, (row) => scheme.kinds[outline.kind[row]!]!.label.toLowerCase()),
        'info',
      );
    mark({ left: a, right: b });
    const known = settledKind(project.id, kindOf(a), kindOf(b), allowed);
    if (known) create(a, b, known);
    else setAsking({ left: a, right: b, allowed });
  };
  /** The marked candidate, else the likeliest one. */
  const candidate = candidates.includes(marked.right ?? -1) ? marked.right : candidates[0];
  const accept = () => {
    if (candidate === undefined)
      return notify(likely ? 'Mark an item on the left that has likely ends.' : 'Order the right side by “likeliest first” to see what is likely.', 'info');
    propose(marked.left, candidate);
  };
  const refuse = () => {
    if (candidate === undefined || marked.left === undefined) return notify('There is no likely end to refuse here.', 'info');
    const next = candidates[candidates.indexOf(candidate) + 1] ?? candidates[0];
    refusing.mutate(
      { item: outline.id[marked.left]!, other: outline.id[candidate]! },
      {
        onSuccess: () =>
          notify(`${outline.reference[candidate]} is not suggested for ${outline.reference[marked.left!]} until one of them says something else.`),
      },
    );
    mark({ left: marked.left, ...(next !== undefined && next !== candidate && { right: next }) });
  };
  const removeMarked = () => {
    const joining = threads.filter((thread) => thread.left === marked.left && thread.right === marked.right);
    const found = joining.filter((thread) => holds(thread) === 'here');
    if (found.length === 0)
      return notify(
        joining.some((thread) => holds(thread) === 'everywhere')
          ? 'They are linked in every use. Look at every use to remove that.'
          : 'The two marked items are not linked.',
        'info',
      );
    unlink.mutate(
      found.map((thread) => thread.id),
      { onSuccess: () => notify('Link removed. Undo brings it back.') },
    );
  };
  const lookedAt = (one: 'left' | 'right') => usesOf.get(marked[one] ?? -1)?.[inUse[one] - 1];
  const mark = (next: { left?: number; right?: number }) => {
    setMarked(next);
    setInUse((before) => ({ left: next.left === marked.left ? before.left : 0, right: next.right === marked.right ? before.right : 0 }));
  };
  const holds = (thread: Thread) => {
    const ends = [
      thread.left === marked.left ? holdsIn(lookedAt('left')?.path, thread.leftUse) : 'here',
      thread.right === marked.right ? holdsIn(lookedAt('right')?.path, thread.rightUse) : 'here',
    ];
    return ends.includes('elsewhere') ? 'elsewhere' : ends.includes('everywhere') ? 'everywhere' : 'here';
  };
  const partnersOf = (one: 'left' | 'right') => threads.filter((thread) => thread[one] === marked[one] && holds(thread) !== 'elsewhere');
  /** Rows that are linked with the marked item of a side in other uses only. */
  const awayFrom = (one: 'left' | 'right') => {
    const linkedHere = new Set(partnersOf(one).map((thread) => thread[one === 'left' ? 'right' : 'left']));
    const away = threads.filter((thread) => lookedAt(one) && thread[one] === marked[one] && holds(thread) === 'elsewhere');
    return new Map(
      away.map((thread) => thread[one === 'left' ? 'right' : 'left']).flatMap((row) => (linkedHere.has(row) ? [] : [[row, 'not linked here'] as const])),
    );
  };
  const nextUse = () => {
    const uses = usesOf.get(marked[side] ?? -1) ?? [];
    if (uses.length === 0) return notify('Mark an item that is used in several places and linked in one of them.', 'info');
    setInUse((before) => ({ ...before, [side]: (before[side] + 1) % (uses.length + 1) }));
  };
  const rowsAt = { left: leftRows, right: rightRows };
  const step = (by: number) => {
    const rows = rowsAt[side];
    const at = marked[side] === undefined ? -1 : rows.indexOf(marked[side]!);
    mark({ ...marked, [side]: rows[Math.max(0, Math.min(rows.length - 1, at + by))] });
  };
  const nextUnlinked = () => {
    const at = marked.left === undefined ? -1 : leftRows.indexOf(marked.left);
    const next = [...leftRows.slice(at + 1), ...leftRows.slice(0, at + 1)].find((row) => !outline.heading[row] && !linked.has(row));
    if (next === undefined) return notify('Every item on the left has a link to the right.');
    setSide('left');
    mark({ ...marked, left: next });
  };
  useRestingFocus(frame);
  const open = () => marked[side] !== undefined && void navigate(itemAddress(outline.reference[marked[side]!]!));
  const keys: Record<string, () => void> = {
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    PageDown: () => step(15),
    PageUp: () => step(-15),
    ArrowRight: () => setSide('right'),
    ArrowLeft: () => setSide('left'),
    Enter: () => propose(marked.left, marked.right),
    a: accept,
    x: refuse,
    Delete: removeMarked,
    e: () => {
      const found = threads.filter((thread) => thread.left === marked.left && thread.right === marked.right);
      if (found.length > 0) setChanging(found.map(({ id }) => id));
      else notify('The two marked items are not linked.', 'info');
    },
    n: nextUnlinked,
    o: open,
    u: nextUse,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointer.findUnder}
      accessibility={{ announcements, screenReaderInstructions }}
      onDragStart={({ active }) => {
        const data = active.data.current as BenchPlace;
        setDragged(data);
        mark({ ...marked, [data.side]: data.row });
      }}
      onDragCancel={() => setDragged(undefined)}
      onDragEnd={() => {
        // What lies under the pointer now, not what was measured: rows may have moved since it last did.
        const [from, to, point] = [dragged, pointer.placeUnder(), pointer.point()];
        setDragged(undefined);
        if (from && to && to.side !== from.side) propose(from.side === 'left' ? from.row : to.row, from.side === 'left' ? to.row : from.row);
        else if (from && !to && point) dropAt(outline.reference[from.row]!, point.x, point.y);
      }}
    >
      <Flex
        ref={frame}
        flex="1"
        minW="0"
        tabIndex={0}
        role="group"
        aria-label="Bench: arrows move, Enter links, Delete removes the link"
        outline="none"
        onKeyDown={(event) => {
          const run = event.ctrlKey || event.metaKey || event.altKey ? undefined : keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
          if (!run || asking) return;
          event.preventDefault();
          run();
        }}
      >
        <BenchSide
          side="left"
          label={project.collections[leftIndex]!.name}
          outline={outline}
          rows={leftRows}
          marked={marked.left}
          focused={side === 'left'}
          uses={usesOf.get(marked.left ?? -1) ?? []}
          inUse={inUse.left}
          onUse={(at) => setInUse((before) => ({ ...before, left: at }))}
          dragging={dragged !== undefined}
          partner={partnersOf('right').map((thread) => thread.left)}
          reasons={awayFrom('right')}
          fits={(row) => dragged?.side !== 'right' || allowedFor(row, dragged.row).length > 0}
          onMark={(row) => {
            setSide('left');
            mark({ ...marked, left: row });
            frame.current?.focus();
          }}
          onScroll={(top) => setScroll((before) => ({ ...before, left: top }))}
        />
        <Threads
          threads={threads}
          leftRows={leftRows}
          rightRows={rightRows}
          scroll={scroll}
          height={height}
          marked={marked}
          phrase={(thread: Thread) =>
            `${outline.reference[thread.left]} ${phraseAt(scheme.linkKinds[thread.kind]!, thread.leftIsFrom ? 'from' : 'to')} ${outline.reference[thread.right]}`
          }
          isElsewhere={(thread) => holds(thread) === 'elsewhere'}
          onPick={(thread) => mark({ left: thread.left, right: thread.right })}
        />
        <BenchSide
          side="right"
          label={project.collections[rightIndex]!.name}
          outline={outline}
          rows={rightRows}
          marked={marked.right}
          focused={side === 'right'}
          uses={usesOf.get(marked.right ?? -1) ?? []}
          inUse={inUse.right}
          onUse={(at) => setInUse((before) => ({ ...before, right: at }))}
          dragging={dragged !== undefined}
          partner={partnersOf('left').map((thread) => thread.right)}
          reasons={new Map([...reasons, ...awayFrom('left')])}
          fits={(row) => dragged?.side !== 'left' || allowedFor(dragged.row, row).length > 0}
          onMark={(row) => {
            setSide('right');
            mark({ ...marked, right: row });
            frame.current?.focus();
          }}
          onScroll={(top) => setScroll((before) => ({ ...before, right: top }))}
        />
        <Box srOnly aria-live="polite">
          {marked[side] === undefined ? '' : `${outline.reference[marked[side]!]} \u2068${outline.title[marked[side]!]}\u2069`}
        </Box>
      </Flex>
      <DragOverlay dropAnimation={null}>
        {dragged && (
          <Box bg="moss.solid" color="moss.contrast" px="2" h={`${rowHeight}px`} display="inline-flex" alignItems="center" fontFamily="mono" fontSize="12px">
            {outline.reference[dragged.row]}
          </Box>
        )}
      </DragOverlay>
      {changing && (
        <ChangeLinksDialog
          project={project}
          links={changing}
          onClose={() => setChanging(undefined)}
          onDone={() => {
            setChanging(undefined);
            frame.current?.focus();
          }}
        />
      )}
      {asking && (
        <KindChoice
          left={outline.reference[asking.left]!}
          right={outline.reference[asking.right]!}
          allowed={asking.allowed}
          kinds={[kindOf(asking.left), kindOf(asking.right)]}
          onChoose={(allowed) => create(asking.left, asking.right, allowed)}
          onClose={() => {
            setAsking(undefined);
            frame.current?.focus();
          }}
        />
      )}
    </DndContext>
  );
}

/** Linked and likely rows first, the others in outline order, when likeliest first is asked. */
function orderRight(
  outline: OutlineReply,
  rows: number[],
  suggestions: ReplyOf<typeof suggestLinks>,
  threads: Thread[],
  left: number | undefined,
): { rightRows: number[]; reasons: Map<number, string> } {
  const reasons = new Map<number, string>();
  if (suggestions.length === 0) return { rightRows: rows, reasons };
  const rowOf = new Map(rows.map((row) => [outline.id[row]!, row]));
  const likely = suggestions.flatMap(({ item, reasons: why, likelihood }) => {
    const row = rowOf.get(item.id);
    if (row === undefined) return [];
    reasons.set(row, [sayLikelihood(likelihood), sayReasons(why)].filter(Boolean).join(' · '));
    return [row];
  });
  const already = threads.filter((thread) => thread.left === left).map((thread) => thread.right);
  const first = [...new Set([...already, ...likely])];
  const chosen = new Set(first);
  return { rightRows: [...first, ...rows.filter((row) => !chosen.has(row))], reasons };
}

const screenReaderInstructions = {
  draggable: 'To link by keyboard, mark an item on each side with the arrow keys and press Enter.',
};

function explainRefusal(outline: OutlineReply, threads: Thread[], a: number, b: number, kind: (row: number) => string): string {
  if (outline.heading[a] || outline.heading[b]) return 'Headings are not linked; mark an item.';
  if (threads.some((thread) => thread.left === a && thread.right === b)) return `${outline.reference[a]} and ${outline.reference[b]} are linked already.`;
  return `No link kind joins ${kind(a)} ${outline.reference[a]} with ${kind(b)} ${outline.reference[b]}.`;
}
