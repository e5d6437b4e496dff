import { Box, Button, Checkbox, Flex, Popover, Portal } from '@chakra-ui/react';
import type { TracePlaceReply } from '@coomb/contract';
import { counted, offeredLinkKinds, stateWords } from '@coomb/core';
import { useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { useAddress, useQuick } from '../../shared/address';
import { FAINT } from '../../shared/ui/faint';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { DrawingCanvas, type DrawingControl } from '../../shared/drawing/DrawingCanvas';
import { findRequirements } from '../../shared/live/find-requirements';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notify } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { useItemAddress } from '../../shared/ui/reference';
import { useKeepDrawing } from '../../shared/drawing/made-queries';
import { AsRegister } from '../acting/AsRegister';
import { AddRelated } from '../linking/AddRelated';
import { useTrace } from './queries';
import { buildTreeDrawing } from './tree-drawing';

const address = z.object({
  up: z.coerce.number().int().min(0).max(9).default(2),
  down: z.coerce.number().int().min(0).max(9).default(2),
  /** Link kinds that are not followed, parted by commas. */
  without: z.string().default(''),
  /** Steps that only follow from what items are made of are shown, too. */
  derived: z.enum(['yes', '']).default(''),
  at: z.string().default(''),
});

/** From one item, everything that traces lead to, as a tree to either side. */
export function TraceTreePage() {
  const project = useProject();
  const outline = useOutline();
  const { item } = useParams();
  if (outline.error) return <ErrorNote error={outline.error} />;
  if (!outline.data) return <Loading what="the trace tree" />;
  const { data } = outline;
  const home = findRequirements(project)?.id;
  const homeIndex = project.collections.findIndex((one) => one.id === home);
  // Without an item named it grows from the requirement that most hangs on.
  const best = data.id.reduce((most, _, row) => {
    if (data.heading[row] || (homeIndex >= 0 && data.collection[row] !== homeIndex)) return most;
    const weight = data.up[row]! + data.down[row]!;
    return most < 0 || weight > data.up[most]! + data.down[most]! ? row : most;
  }, -1);
  const root = item ?? (best < 0 ? undefined : data.reference[best]);
  if (root === undefined)
    return (
      <EmptyState alone title="Nothing to trace yet">
        Gather or write requirements first; their trace grows here.
      </EmptyState>
    );
  return <TraceTree key={root} root={root} />;
}

function TraceTree({ root }: { root: string }) {
  const project = useProject();
  const { scheme } = project;
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const control = useRef<DrawingControl>(null);
  const [view, set] = useAddress(address);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [adding, setAdding] = useState(false);
  const keep = useKeepDrawing(project.id);
  const without = useMemo(() => new Set(view.without.split(',').filter(Boolean)), [view.without]);
  const kinds = offeredLinkKinds(scheme);
  const trace = useTrace(project.id, {
    item: root,
    kinds: kinds.filter(({ id }) => !without.has(id)).map(({ id }) => id),
    ...{ up: view.up, down: view.down, derived: view.derived === 'yes', opened: [...opened], closed: [...closed] },
  });
  const labels = useMemo(() => new Map(scheme.kinds.map((kind) => [kind.id, kind.label.toLowerCase()])), [scheme]);
  const drawing = useMemo(() => trace.data && buildTreeDrawing(trace.data, (kind) => labels.get(kind) ?? kind), [trace.data, labels]);
  const [chosen, choose] = useQuick(view.at, (at) => set({ at }));
  const selected = drawing
    ? Math.max(
        0,
        drawing.shapes.findIndex((shape) => shape.id === chosen),
      )
    : 0;
  const marks = useMemo(() => {
    const counts = new Map<number, string>();
    const lit = new Set<number>();
    const item = drawing?.placeOf[selected]?.item.id;
    drawing?.placeOf.forEach((place, index) => {
      if (place.hidden > 0) counts.set(index, `+${place.hidden}`);
      if (index !== selected && place.item.id === item) lit.add(index);
    });
    return { counts, lit };
  }, [drawing, selected]);
  const through = useIsSeen();
  /** Nothing of a trace is left out: what is not seen leads on to what is. */
  const strengths = useMemo(
    () => through && drawing && Float32Array.from(drawing.placeOf, ({ item }) => (through.isSeen(item.id) ? 1 : FAINT)),
    [through, drawing],
  );
  if (trace.error) return <ErrorNote error={trace.error} />;
  if (!trace.data || !drawing) return <Loading what="the trace" />;
  const place = drawing.placeOf[selected]!;
  const toggle = () => {
    if (place.again >= 0) return toFirst();
    const next = (before: ReadonlySet<string>, add: boolean) => {
      const after = new Set(before);
      if (add) after.add(place.key);
      else after.delete(place.key);
      return after;
    };
    if (place.hidden > 0) {
      setOpened((before) => next(before, true));
      setClosed((before) => next(before, false));
    } else {
      setClosed((before) => next(before, true));
      setOpened((before) => next(before, false));
    }
  };
  const toFirst = () => {
    if (place.again < 0) return notify('It is shown once only.', 'info');
    const first = drawing.placeOf.findIndex((one) => one.item.id === place.item.id && one.again < 0);
    if (first < 0) return;
    choose(drawing.shapes[first]!.id);
    control.current?.reveal(first);
  };
  const describe = (index: number) => {
    const one = drawing.placeOf[index]!;
    return `${one.phrase}${sayThrough(one)} ${one.item.reference} ${one.item.title}, ${stateWords[one.item.state].label.toLowerCase()}${one.again >= 0 ? ', shown before' : one.hidden > 0 ? `, ${one.hidden} more not shown` : ''}`;
  };
  const derive = () => set({ derived: view.derived ? '' : 'yes' });
  const count = trace.data.upstream.length + trace.data.downstream.length - 2;
  const levels = Array.from({ length: 7 }, (_, at) => ({ value: String(at), label: at === 1 ? '1 level' : `${at} levels` }));
  return (
    <Page
      fill
      title={`Trace of ${drawing.placeOf[0]!.item.reference}`}
      lead={`${drawing.placeOf[0]!.item.title}: ${counted(count, 'place')}${trace.data.isCut ? ', cut where there would be too many; follow fewer kinds or levels' : ''}${through ? `; what is not seen through “${through.name}” is faint` : ''}`}
      actions={
        <>
          <Box color="fg.muted" fontSize="13px">
            upstream
          </Box>
          <Choice label="Levels upstream" value={String(view.up)} options={levels} onChange={(up) => set({ up: Number(up) })} />
          <Box color="fg.muted" fontSize="13px">
            downstream
          </Box>
          <Choice label="Levels downstream" value={String(view.down)} options={levels} onChange={(down) => set({ down: Number(down) })} />
          <Button
            size="2xs"
            variant={view.derived ? 'subtle' : 'outline'}
            aria-pressed={view.derived === 'yes'}
            title="Also what only follows from parts, values and steps inside an item; drawn dashed  D"
            onClick={derive}
          >
            through parts
          </Button>
          <Popover.Root positioning={{ placement: 'bottom-end' }} lazyMount unmountOnExit>
            <Popover.Trigger asChild>
              <Button size="2xs" variant="outline">
                {without.size === 0 ? 'along every link' : `along ${kinds.length - without.size} of ${kinds.length} kinds`}
              </Button>
            </Popover.Trigger>
            <Portal>
              <Popover.Positioner>
                <Popover.Content width="260px" fontSize="13px">
                  <Popover.Body p="3">
                    {kinds.map((kind) => (
                      <Checkbox.Root
                        key={kind.id}
                        size="sm"
                        display="flex"
                        py="0.5"
                        checked={!without.has(kind.id)}
                        onCheckedChange={({ checked }) => {
                          const next = new Set(without);
                          if (checked === true) next.delete(kind.id);
                          else next.add(kind.id);
                          set({ without: [...next].join(',') });
                        }}
                      >
                        <Checkbox.HiddenInput />
                        <Checkbox.Control />
                        <Checkbox.Label fontWeight="400">{kind.phrase}</Checkbox.Label>
                      </Checkbox.Root>
                    ))}
                  </Popover.Body>
                </Popover.Content>
              </Popover.Positioner>
            </Portal>
          </Popover.Root>
        </>
      }
    >
      <Flex direction="column" h="100%" borderTopWidth="1px">
        <Flex px="4" py="1" gap="3" align="center" borderBottomWidth="1px" bg="bg.panel" fontSize="13px" wrap="wrap">
          <Box fontFamily="mono" fontSize="12px" color="moss.fg">
            {place.item.reference}
          </Box>
          <OneLine fontFamily="serif" maxW="46ch" text={place.item.title} />
          <Box color="fg.muted">
            {place.phrase && `${place.phrase}${sayThrough(place)}${place.suspect ? ', suspect' : ''}${place.usage ? `, in ${place.usage} only` : ''}`}
          </Box>
          <Flex ml="auto" gap="1">
            {place.again >= 0 ? (
              <Button size="2xs" variant="outline" onClick={toFirst}>
                To its first place
              </Button>
            ) : (
              <Button size="2xs" variant="outline" onClick={toggle}>
                {place.hidden > 0 ? `Show ${place.hidden} more` : 'Fold'}
              </Button>
            )}
            <Button
              size="2xs"
              variant="outline"
              loading={keep.isPending}
              title="Keep this tree as a drawing, where its places can be moved by hand"
              onClick={() => {
                const { item } = drawing.placeOf[0]!;
                const definition = {
                  ...{ sort: 'trace' as const, about: item.id, levels: view.down, up: view.up, detail: ['reference' as const] },
                  ...{ without: [...without], derived: view.derived === 'yes', opened: [...opened], closed: [...closed] },
                };
                keep.mutate(
                  { name: `Trace of ${item.reference}`, definition, hand: {} },
                  {
                    onSuccess: ({ drawing: id }) => {
                      notify('Kept as a drawing. It stays current by itself.');
                      void navigate(`/p/${project.id}/shape/drawings/${id}`);
                    },
                  },
                );
              }}
            >
              Keep as a drawing
            </Button>
            <AsRegister items={[...new Map(drawing.placeOf.map(({ item }) => [item.id, item])).values()]} />
            <Button size="2xs" variant="outline" onClick={() => setAdding(true)}>
              Add a related item…
            </Button>
            <Button
              size="2xs"
              variant="ghost"
              disabled={selected === 0}
              onClick={() => void navigate(`/p/${project.id}/link/tree/${encodeURIComponent(place.item.reference)}`)}
            >
              Grow from here
            </Button>
          </Flex>
        </Flex>
        <Box flex="1" minH="0">
          <DrawingCanvas
            control={control}
            steady
            shapes={drawing.shapes}
            routes={drawing.routes}
            label={`Trace of ${drawing.placeOf[0]!.item.reference}`}
            marks={marks}
            {...(strengths && { strengths })}
            selected={selected}
            onSelect={(shape) => choose(shape < 0 ? '' : drawing.shapes[shape]!.id)}
            onOpen={(shape) => void navigate(itemAddress(drawing.placeOf[shape]!.item.reference))}
            describe={describe}
            keys={{
              ' ': toggle,
              g: toFirst,
              d: derive,
              a: () => setAdding(true),
              o: () => void navigate(itemAddress(place.item.reference)),
              r: () => void navigate(`/p/${project.id}/link/tree/${encodeURIComponent(place.item.reference)}`),
            }}
          />
        </Box>
      </Flex>
      {adding && <AddRelated item={place.item} onClose={() => setAdding(false)} />}
    </Page>
  );
}

/** What a step goes through that only follows from what lies inside. */
function sayThrough({ through }: TracePlaceReply): string {
  if (!through) return '';
  return ` (through ${through.slice(0, 3).join(', ')}${through.length > 3 ? ` and ${through.length - 3} more` : ''})`;
}
