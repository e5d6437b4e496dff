import { Box, Flex, Input } from '@chakra-ui/react';
import type { Drawing, DrawingBrief, OutlineReply } from '@coomb/contract';
import { type AllowedLink, counted, figure, findAllowedLinks, phraseAt } from '@coomb/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress, useQuick } from '../../../shared/address';
import { DrawingCanvas, type DrawingControl } from '../../../shared/drawing/DrawingCanvas';
import { findRequirements } from '../../../shared/live/find-requirements';
import { useProject } from '../../../shared/live/project-queries';
import { ofSameLife } from '../../../shared/live/same-life';
import { Choice } from '../../../shared/ui/choice';
import { dropAt, useDropFinder } from '../../../shared/marks/drag-items';
import { heldItem, useAtHand } from '../../../shared/marks/at-hand';
import { notify } from '../../../shared/ui/notices';
import { Page } from '../../../shared/ui/page';
import { Panes } from '../../../shared/ui/panes';
import { useItemAddress } from '../../../shared/ui/reference';
import { KindChoice } from '../../linking/KindChoice';
import { settledKind } from '../../linking/remembered-kinds';
import { useLinksOfCollection, useMakeLink, useUnlink, useUsages } from '../../linking/queries';
import { DragLine, useLinkDrag } from '../../linking/link-drag';
import { BoxChoice } from './BoxChoice';
import { DrawingPlace, DrawingTools } from './DrawingTools';
import { sortWords } from './drawing-words';
import { findDrawnLinks } from './drawn-links';
import { followHand } from './follow-hand';
import { HoverNote } from './HoverNote';
import { LinkedList } from '../../linking/LinkedList';
import { holdsIn, tellApart } from '../../linking/use-lines';
import { UseBar } from '../../linking/UseBar';
import { ShapeOutline } from './ShapeOutline';
import { useBoxes } from './use-boxes';
import { useDrawnLook } from './use-drawn-look';

const address = z.object({
  /** Element of the shape that is chosen. */
  shape: z.string().default(''),
  /** Collection beside the drawing. */
  list: z.string().default(''),
  only: z.enum(['all', 'linked']).default('all'),
});

/** What makes a drawing one of ours: its own bar, and placing by hand. */
export interface Making {
  bar: React.ReactNode;
  /** Buttons of its own before those of any drawing. */
  actions: React.ReactNode;
  /** Dragging moves shapes, instead of linking them. */
  placing: boolean;
  onMove: (shape: number, by: { x: number; y: number }) => void;
  /** Shapes that came since it was last placed. */
  fresh: ReadonlySet<string>;
  keys: Record<string, () => void>;
  /** What is shown is not kept yet. */
  isDraft: boolean;
}

interface Props {
  making?: Making;
  drawing: Pick<Drawing, 'id' | 'item' | 'name' | 'collection' | 'sort' | 'shapes' | 'routes'> & Partial<Pick<Drawing, 'revision' | 'boxes'>>;
  outline: OutlineReply;
  all: readonly DrawingBrief[];
}

/** The drawing, the list beside it, and the links between the two. */
export function DrawingDesk({ drawing, outline, all, making }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const { scheme } = project;
  const [view, set] = useAddress(address);
  const control = useRef<DrawingControl>(null);
  const finder = useRef<HTMLInputElement>(null);
  const [hover, setHover] = useState<{ shape: number; x: number; y: number }>();
  const [marked, setMarked] = useState<number>();
  const [hoveredRow, setHoveredRow] = useState<number>();
  const [asking, setAsking] = useState<{ a: number; b: number; allowed: AllowedLink[] }>();
  const [wanted, setWanted] = useState('');
  const make = useMakeLink(project.id);
  const unlink = useUnlink(project.id);
  const links = ofSameLife(outline, useLinksOfCollection(project.id, drawing.collection).data);
  const drawn = useMemo(() => findDrawnLinks(scheme, outline, drawing, links), [scheme, outline, drawing, links]);
  const [shapeId, setShape] = useQuick(view.shape, (shape) => set({ shape }));
  const selected = useMemo(() => (shapeId ? drawing.shapes.findIndex((shape) => shape.id === shapeId) : -1), [drawing.shapes, shapeId]);
  const select = (shape: number) => setShape(shape < 0 ? '' : drawing.shapes[shape]!.id);
  const { collections } = project;
  const listId = collections.some((one) => one.id === view.list) ? view.list : (findRequirements(project)?.id ?? collections[0]!.id);

  const [inUse, setInUse] = useState({ shape: -1, at: 0 });
  const rowOfShape = (shape: number) => drawn.rowOf[shape] ?? -1;
  const ownRow = drawing.item ? outline.id.indexOf(drawing.item.id) : -1;
  const chosenRow = selected >= 0 ? rowOfShape(selected) : ownRow;
  const chosenItem = chosenRow >= 0 && selected >= 0 ? outline.id[chosenRow]! : undefined;
  useDropFinder(
    () => document.querySelector('[aria-roledescription="drawing"]'),
    (x, y) => outline.reference[rowOfShape(control.current?.shapeAt(x, y) ?? -1)],
  );
  const usages = useUsages(project.id, chosenItem);
  useAtHand(chosenItem ? [heldItem(outline, chosenRow)] : []);
  const uses = useMemo(() => tellApart((usages ?? []).map(({ path, says }) => ({ path: path.map(({ id }) => id), says }))), [usages]);
  const useAt = inUse.shape === selected ? Math.min(inUse.at, uses.length) : 0;
  const use = uses[useAt - 1];
  const chosen = useMemo(() => {
    const all = drawn.of.get(chosenRow) ?? [];
    return all.filter((link) => holdsIn(use?.path, link.usagePath) !== 'elsewhere');
  }, [drawn, chosenRow, use]);
  const elsewhere = (drawn.of.get(chosenRow) ?? []).length - chosen.length;
  const linkedRows = useMemo(() => new Set(chosen.map((link) => link.other)), [chosen]);
  const lit = useMemo(() => {
    const found = new Set<number>();
    const add = (row: number | undefined) => {
      for (const shape of row === undefined ? [] : (drawn.shapesOf.get(row) ?? [])) found.add(shape);
    };
    // The other ends that are drawn here themselves, and whatever the row under the hand is linked with.
    if (selected >= 0) for (const row of linkedRows) add(row);
    const row = hoveredRow ?? marked;
    if (row !== undefined) {
      add(row);
      for (const [other, list] of drawn.of) if (list.some((link) => link.other === row)) add(other);
    }
    drawing.shapes.forEach((shape, index) => {
      if (making?.fresh.has(shape.id)) found.add(index);
    });
    found.delete(selected);
    return found;
  }, [drawn, linkedRows, hoveredRow, marked, selected, drawing.shapes, making?.fresh]);
  const boxes = useBoxes(drawing, drawn, outline, making?.isDraft !== true);
  const drawnLook = useDrawnLook(drawing, drawn.rowOf, outline, boxes.ownerOf);
  const { strengths } = drawnLook;
  const marks = useMemo(() => {
    const isThere = (shape: number) => strengths?.[shape] !== 0;
    return { counts: new Map([...drawn.counts].filter(([shape]) => isThere(shape))), lit: new Set([...lit].filter(isThere)) };
  }, [drawn.counts, lit, strengths]);

  const kindOf = (row: number) => scheme.kinds[outline.kind[row]!]!.id;
  const propose = (a: number, b: number) => {
    if (a < 0 || b < 0) return notify('Choose a shape that is an item, and mark a row of the list.', 'info');
    if (outline.heading[b] || a === b) return notify('Headings are not linked; mark an item.', 'info');
    const known = a === chosenRow ? chosen : (drawn.of.get(a) ?? []);
    const present = known.filter((link) => link.other === b).map((link) => link.phrase);
    const allowed = findAllowedLinks(scheme, kindOf(a), kindOf(b)).filter(
      ({ linkKind, reversed }) => !present.includes(phraseAt(linkKind, reversed ? 'to' : 'from')),
    );
    if (allowed.length === 0)
      return notify(
        present.length > 0
          ? `${outline.reference[a]} and ${outline.reference[b]} are linked already.`
          : `No link kind joins ${labelOf(a)} ${outline.reference[a]} with ${labelOf(b)} ${outline.reference[b]}.`,
        'info',
      );
    const settled = settledKind(project.id, kindOf(a), kindOf(b), allowed);
    if (settled) create(a, b, settled);
    else setAsking({ a, b, allowed });
  };
  const labelOf = (row: number) => scheme.kinds[outline.kind[row]!]!.label.toLowerCase();
  const create = (a: number, b: number, { linkKind, reversed }: AllowedLink) => {
    const [from, to] = reversed ? [b, a] : [a, b];
    const own = a === chosenRow ? use : undefined;
    const place = own && (reversed ? { toUsage: [...own.path] } : { fromUsage: [...own.path] });
    make.mutate([{ linkKind: linkKind.id, from: outline.id[from]!, to: outline.id[to]!, ...place }], {
      onSuccess: () =>
        notify(`${outline.reference[a]} ${phraseAt(linkKind, reversed ? 'to' : 'from')} ${outline.reference[b]}${own ? `, only as in ${own.says}` : ''}`),
    });
    setAsking(undefined);
    control.current?.focus();
  };
  const drag = useLinkDrag({
    shapeAt: (x, y) => control.current?.shapeAt(x, y) ?? -1,
    onLeave: ({ shape, row = rowOfShape(shape ?? -1) }, x, y) => {
      if (row >= 0) dropAt(outline.reference[row]!, x, y);
    },
    onLink: (shape, row) => {
      if (shape < 0) {
        // Dropped on the ground of the drawing: on the drawing itself.
        if (ownRow >= 0) propose(ownRow, row);
        else notify('Drop it on a shape.', 'info');
        return;
      }
      if (rowOfShape(shape) < 0) return notify('This shape is no item: its sort stays in the file. The recipe of the model can make items of it.', 'info');
      select(shape);
      propose(rowOfShape(shape), row);
    },
  });

  const at = all.findIndex((one) => one.id === drawing.id);
  const go = (by: number) => {
    const next = all[at + by];
    if (next) void navigate(`/p/${project.id}/shape/drawings/${next.id}${view.list ? `?list=${view.list}` : ''}`);
  };
  const open = (shape: number) => {
    const row = rowOfShape(shape);
    if (row >= 0) void navigate(itemAddress(outline.reference[row]!));
    else notify('This shape is no item: its sort stays in the file. The recipe of the model can make items of it.', 'info');
  };
  const found = useMemo(() => findShapes(drawing, wanted).filter((shape) => strengths?.[shape] !== 0), [drawing, wanted, strengths]);
  const step = (list: readonly number[]) => {
    if (list.length === 0) return;
    const next = list.find((shape) => shape > selected) ?? list[0]!;
    select(next);
    control.current?.reveal(next);
  };
  const count = drawing.shapes.length;
  const name = drawing.name || 'Unnamed drawing';
  const describe = useCallback(
    (shape: number) => {
      const row = drawn.rowOf[shape] ?? -1;
      const one = drawing.shapes[shape];
      const kind = row >= 0 ? `, ${scheme.kinds[outline.kind[row]!]!.label.toLowerCase()} ${outline.reference[row]}` : '';
      return `${one?.keyword ?? ''} ${one?.name ?? ''}${kind}, ${counted(drawn.counts.get(shape) ?? 0, 'link')}`;
    },
    [drawing, drawn, outline, scheme],
  );
  return (
    <Page
      fill
      title={name}
      lead={`${sortWords[drawing.sort]}, ${strengths ? `${figure(drawing.shapes.filter((_, shape) => strengths[shape] === 1).length)} of ` : ''}${figure(drawing.shapes.length)} shapes${strengths ? ' are seen through the lens' : ''}`}
      actions={
        <>
          {making?.actions}
          <BoxChoice wish={boxes.wish} onChange={boxes.set} onKeep={boxes.keep} />
          <DrawingPlace project={project.id} at={at} count={all.length} onGo={go} />
          <Input
            ref={finder}
            size="2xs"
            w="150px"
            aria-label="Find in the drawing"
            placeholder="Find in the drawing"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') step(found);
              if (event.key === 'Escape') control.current?.focus();
            }}
          />
          {wanted && (
            <Box fontSize="12.5px" color="fg.muted" aria-live="polite">
              {found.length === 0 ? 'nothing' : `${found.indexOf(selected) + 1 || '–'} of ${found.length}`}
            </Box>
          )}
          <DrawingTools name={name} control={control} />
        </>
      }
    >
      <Flex direction="column" h="100%">
        {making?.bar}
        <Box minH="0" flex="1" borderTopWidth="1px">
          <Panes
            id="drawing"
            panes={[
              {
                id: 'drawing',
                size: 68,
                least: 260,
                content: (
                  <Box
                    h="100%"
                    position="relative"
                    onKeyDownCapture={(event) => {
                      const by = making?.placing && selected >= 0 && (event.ctrlKey || event.metaKey) ? NUDGES[event.key] : undefined;
                      if (!by) return;
                      event.preventDefault();
                      event.stopPropagation();
                      making!.onMove(selected, by);
                    }}
                  >
                    <DrawingCanvas
                      control={control}
                      steady={making !== undefined}
                      shapes={boxes.shapes}
                      routes={boxes.routes}
                      label={name}
                      marks={marks}
                      {...drawnLook}
                      selected={selected}
                      onSelect={(shape) => select(shape >= count ? boxes.ownerOf[shape - count]! : shape)}
                      onOpen={(shape) => open(shape >= count ? boxes.ownerOf[shape - count]! : shape)}
                      onDrag={(shape, event, taken) => {
                        const scale = control.current?.scale() ?? 1;
                        if (shape >= count) return followHand(event, taken, scale, (by) => boxes.move(shape - count, by));
                        if (making?.placing) return followHand(event, taken, scale, (by) => making.onMove(shape, by));
                        drag.fromShape(shape, event);
                      }}
                      mayDrag={(shape) => shape >= count || (making?.placing ?? drawing.shapes[shape]!.item !== null)}
                      onHover={(at) => setHover(at && at.shape >= count ? undefined : at)}
                      describe={describe}
                      keys={{
                        f: () => finder.current?.focus(),
                        l: () => step([...marks.counts.keys()].toSorted((a, b) => a - b)),
                        o: () => selected >= 0 && open(selected),
                        '[': () => go(-1),
                        ']': () => go(1),
                        ...making?.keys,
                        b: () => boxes.set({ ...boxes.wish, shown: boxes.wish.shown === 'all' ? [] : 'all' }),
                        t: () => boxes.toggle(selected),
                        Enter: () => propose(chosenRow, marked ?? -1),
                        u: () =>
                          uses.length > 0
                            ? setInUse({ shape: selected, at: (useAt + 1) % (uses.length + 1) })
                            : notify('Choose a shape that is used in several places.', 'info'),
                      }}
                    />
                    {chosenItem && uses.length > 0 && (
                      <UseBar
                        reference={outline.reference[chosenRow]!}
                        uses={uses}
                        at={useAt}
                        elsewhere={elsewhere}
                        onChoose={(at) => setInUse({ shape: selected, at })}
                      />
                    )}
                    <ShapeOutline drawing={drawing} describe={describe} strengths={strengths} />
                    {hover && !drag.line && <HoverNote at={hover} drawing={drawing} outline={outline} drawn={drawn} />}
                  </Box>
                ),
              },
              {
                id: 'list',
                size: 32,
                least: 240,
                content: (
                  <LinkedList
                    outline={outline}
                    collection={listId}
                    choice={
                      <Choice
                        label="List beside the drawing"
                        value={listId}
                        options={collections.map((one) => ({ value: one.id, label: one.name }))}
                        onChange={(list) => set({ list })}
                      />
                    }
                    about={selected >= 0 ? drawing.shapes[selected]!.name || 'this shape' : name}
                    onlyLinked={view.only === 'linked'}
                    setOnlyLinked={(only) => set({ only: only ? 'linked' : 'all' })}
                    links={chosen}
                    onCollection={(list) => set({ list })}
                    marked={marked}
                    onMark={setMarked}
                    onHover={setHoveredRow}
                    onDrag={drag.fromRow}
                    onOpen={(row) => void navigate(itemAddress(outline.reference[row]!))}
                    onLink={(row) => propose(chosenRow, row)}
                    onUnlink={(ids) => unlink.mutate([...ids], { onSuccess: () => notify('Link removed. Undo brings it back.') })}
                  />
                ),
              },
            ]}
          />
        </Box>
      </Flex>
      {drag.line && (
        <DragLine line={drag.line} says={drag.line.row === undefined ? (drawing.shapes[drag.line.shape!]?.name ?? '') : outline.reference[drag.line.row]!} />
      )}
      {asking && (
        <KindChoice
          left={outline.reference[asking.a]!}
          right={outline.reference[asking.b]!}
          allowed={asking.allowed}
          kinds={[kindOf(asking.a), kindOf(asking.b)]}
          onChoose={(allowed) => create(asking.a, asking.b, allowed)}
          onClose={() => {
            setAsking(undefined);
            control.current?.focus();
          }}
        />
      )}
    </Page>
  );
}

/** How far a key moves what is placed by hand. */
const NUDGES: Record<string, { x: number; y: number }> = {
  ArrowLeft: { x: -10, y: 0 },
  ArrowRight: { x: 10, y: 0 },
  ArrowUp: { x: 0, y: -10 },
  ArrowDown: { x: 0, y: 10 },
};

/** Shapes whose words hold all that is looked for. */
function findShapes(drawing: Pick<Drawing, 'shapes'>, wanted: string): number[] {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  return drawing.shapes.flatMap((shape, index) => {
    const text = `${shape.keyword ?? ''} ${shape.name} ${(shape.parts ?? []).flatMap(({ lines }) => lines).join(' ')}`.toLowerCase();
    return words.every((word) => text.includes(word)) ? [index] : [];
  });
}
