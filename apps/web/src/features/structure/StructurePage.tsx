import { Box, Button, Flex } from '@chakra-ui/react';
import { counted, figure, readStructure, sayWay } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAddress } from '../../shared/address';
import { useSeenOutline } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { useKeepView } from '../../shared/saved-views/queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notify, notifyError } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { useItemAddress } from '../../shared/ui/reference';
import { writeMarks } from '../matrix/address';
import { glyphsOf } from '../matrix/glyphs';
import { MarksBar } from '../matrix/MarksBar';
import { isItemLine } from '../matrix/matrix-sides';
import { AsRegister } from '../acting/AsRegister';
import { SideForm } from '../matrix/SideForm';
import { Weights } from './Weights';
import { structureAddress } from './address';
import { Figures } from './Figures';
import { GroupsPane } from './GroupsPane';
import { CellPane, OrderPane } from './OrderPane';
import { type StructureBlock, StructureMatrix } from './StructureMatrix';
import { numberFields } from './weigh';
import { useStructure } from './use-structure';
import { levelOptions } from '../matrix/use-fold';
import { MOST_THINGS } from '@coomb/contract';
import { blocksOf, feedbackIn, orderByGroups } from './things';
import { NotDone, Working } from './Working';

/** Design structure matrix: what depends on what at any fold, ordered so that cycles stand out, or in groups that are proposed. */
export function StructurePage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const outline = useSeenOutline();
  const [asked, set] = useAddress(structureAddress);
  const {
    chosen,
    scope,
    marks,
    reply,
    joined,
    sides,
    fold: folding,
    structure,
    isAskable,
    kept,
    order,
    proposal,
    numbers,
    shownGroups,
  } = useStructure(outline.data, asked);
  const [cursor, setCursor] = useState({ row: 0, column: 0 });
  const [hand, setHand] = useState<{ of: unknown; moves: ReadonlyMap<number, number> }>();
  const keep = useKeepView(project.id);
  const { collections, scheme } = project;
  const moves = hand?.of === shownGroups?.of ? hand?.moves : undefined;
  const group = useMemo(() => shownGroups?.group.map((one, thing) => moves?.get(thing) ?? one), [shownGroups, moves]);
  const glyphs = useMemo(() => glyphsOf(joined?.marks ?? []), [joined]);
  if (outline.error ?? reply.error ?? numbers.error) return <ErrorNote error={outline.error ?? reply.error ?? numbers.error} />;
  if (collections.length === 0)
    return (
      <EmptyState alone title="Nothing is gathered yet">
        Import a model, or anything whose items are linked with each other.
      </EmptyState>
    );
  if (!outline.data || !sides || !structure || !joined) return <Loading what="the structure" />;
  const data = outline.data;
  const { things } = structure;
  const found = asked.by === 'order' && order.data?.order.length === things.length ? order.data : undefined;
  const sequence = found ? found.order : group ? orderByGroups(group) : [...things.keys()];
  const blocks: StructureBlock[] = found
    ? found.blocks.map(({ start, size }) => ({ start, size, look: 'cycle' }))
    : blocksOf(sequence, group ?? structure.today).map((block) => ({ ...block, look: 'group' }));
  const at = { row: Math.min(cursor.row, things.length - 1), column: Math.min(cursor.column, things.length - 1) };
  const [one, other] = [sequence[at.row] ?? 0, sequence[at.column] ?? 0];
  const placeOf = (thing: number) => sequence.indexOf(thing);
  const flip = (id: string) => folding.flip([id]);
  const open = (reference: string) => void navigate(itemAddress(reference));
  const unfold = (thing: number) => (things[thing]!.isFolded ? flip(things[thing]!.id) : notify('Nothing is folded into it.', 'info'));
  const fold = (thing: number) => (things[thing]!.parent ? flip(things[thing]!.parent!) : notify('It is a part of nothing that is shown.', 'info'));
  const enter = (thing: number) => {
    folding.reset();
    set({ below: things[thing]!.id, level: '' }, { replace: false });
  };
  const press = (key: string): boolean => {
    if (things.length === 0) return false;
    if (key === 'o' && things[one]!.name) open(things[one]!.name);
    else if (key === '+') unfold(one);
    else if (key === '-' || key === '−') fold(one);
    else if (key === 'i') enter(one);
    else return false;
    return true;
  };
  const itemsOf = (list: readonly number[]) =>
    list.flatMap((thing) =>
      structure
        .rowsOf(thing)
        .filter((row) => !data.heading[row])
        .map((row) => ({ id: data.id[row]!, reference: data.reference[row]!, kind: data.kinds[data.kind[row]!]! })),
    );
  const block = blocks.find(({ start, size }) => at.row >= start && at.row < start + size);
  const blockItems = block && block.size > 1 ? itemsOf(sequence.slice(block.start, block.start + block.size)) : [];
  const groupsOfThings = () => {
    const members = new Map<number, number[]>();
    group!.forEach((number, thing) => members.set(number, [...(members.get(number) ?? []), thing]));
    return [...members.values()];
  };
  const keepGroups = (name: string) => {
    const body = {
      ...asked,
      collections: chosen.join(),
      by: 'groups',
      kept: '',
      result: JSON.stringify({ groups: groupsOfThings().map((list) => list.map((thing) => things[thing]!.id)) }),
    };
    keep.mutate({ sort: 'structure', name, body });
  };
  const keepLenses = async () => {
    const lists = groupsOfThings().filter((list) => list.length > 1);
    for (const [place, list] of lists.entries()) {
      const first = things[list[0]!]!;
      const lens = {
        kinds: [],
        others: 'hidden',
        conditions: [],
        match: 'all',
        pinned: itemsOf(list)
          .slice(0, 5000)
          .map(({ id }) => id),
        leftOut: [],
      };
      await keep.mutateAsync({
        sort: 'lens',
        name: `Group ${place + 1}: ${first.title}`.slice(0, 80),
        body: { lens: JSON.stringify(lens), note: 'Proposed as a group of the structure' },
      });
    }
    notify(`${counted(lists.length, 'lens', 'lenses')} kept: look through them beside the project's name.`);
  };
  const below = scope.below[0] ? data.id.indexOf(scope.below[0]) : -1;
  const today = readStructure(structure.edges, structure.today);
  const kinds = [...new Set([...sides.row.rows].filter((_, line) => isItemLine(data, sides.row, line)).map((row) => data.kinds[data.kind[row]!]!))];
  const phrases = joined.marks.map(({ way }) => sayWay(scheme, way));
  return (
    <Page
      lead={`${counted(things.length, 'thing')}, ${counted(structure.edges.from.length, 'dependency', 'dependencies')}${structure.unlinked > 0 ? `; ${figure(structure.unlinked)} without any left out` : ''}`}
      fill
      actions={
        <>
          <SideForm
            name="Of"
            outline={data}
            asked={{ collections: chosen, kinds: scope.kinds, below: asked.below }}
            onChange={(next) => set({ collections: next.collections.join(), kinds: next.kinds.join(), below: next.below, kept: '' })}
          />
          <Choice
            label="How deep it is unfolded"
            value={asked.level}
            options={levelOptions('4', 'every item')}
            onChange={(value) => {
              folding.reset();
              set({ level: value as '' });
            }}
          />
          <Choice
            label="How it is ordered"
            value={asked.by}
            options={[
              { value: 'outline', label: 'as it is today' },
              { value: 'order', label: 'with the least feedback' },
              { value: 'groups', label: 'in proposed groups' },
            ]}
            onChange={(value) => set({ by: value as 'outline', kept: '' }, { replace: false })}
          />
          <KeptViews project={project.id} sort="structure" body={{ ...asked, collections: chosen.join(), kept: '', result: '' }} />
        </>
      }
    >
      <Flex direction="column" h="100%">
        <MarksBar
          isEvery={marks.length === 0}
          marks={joined.marks}
          glyphs={glyphs}
          kinds={{ rows: kinds, columns: kinds }}
          onChange={(next) => set({ marks: writeMarks(next), weights: '', kept: '' })}
        >
          <Choice
            label="Which things"
            value={asked.show}
            options={[
              { value: 'linked', label: 'with dependencies only' },
              { value: 'all', label: 'everything' },
            ]}
            onChange={(value) => set({ show: value as 'all', kept: '' })}
          />
          <Weights phrases={phrases} fields={numberFields(scheme, joined.marks)} weights={asked.weights} onChange={(weights) => set({ weights, kept: '' })} />
          <Choice
            label="How large"
            value={asked.size}
            options={[
              { value: 'names', label: 'with names' },
              { value: 'whole', label: 'the whole' },
            ]}
            onChange={(value) => set({ size: value as 'names' })}
          />
          {below >= 0 && (
            <Button size="2xs" variant="outline" onClick={() => set({ below: '' })}>
              in {data.title[below]} only: leave
            </Button>
          )}
        </MarksBar>
        <Flex flex="1" minH="0">
          {things.length === 0 ? (
            <Box flex="1" borderTopWidth="1px">
              <EmptyState
                title={structure.unlinked > 0 ? 'None of these depends on another' : 'No item is in what was chosen'}
                action={
                  <Flex gap="2" justify="center">
                    {structure.unlinked > 0 && (
                      <Button size="xs" variant="outline" onClick={() => set({ show: 'all' })}>
                        Show them all the same
                      </Button>
                    )}
                    {below >= 0 && (
                      <Button size="xs" variant="outline" onClick={() => set({ below: '' })}>
                        Leave {data.title[below]}
                      </Button>
                    )}
                  </Flex>
                }
              >
                {structure.unlinked > 0
                  ? `${counted(structure.unlinked, 'thing')} ${structure.unlinked === 1 ? 'is' : 'are'} left out: what they depend on lies outside, or is not marked.`
                  : 'Choose other collections, kinds or sections.'}
              </EmptyState>
            </Box>
          ) : (
            <StructureMatrix
              structure={structure}
              order={sequence}
              blocks={blocks}
              isOrdered={found !== undefined}
              isWhole={asked.size === 'whole'}
              cursor={at}
              onCursor={setCursor}
              onKey={press}
            />
          )}
          <Box w="330px" flexShrink={0} overflowY="auto" borderLeftWidth="1px" borderTopWidth="1px" p="3">
            {things.length > MOST_THINGS && asked.by !== 'outline' && (
              <Box fontSize="13px">
                {figure(things.length)} things are too many to be ordered at once; at most {figure(MOST_THINGS)} are. Fold them first.
              </Box>
            )}
            {asked.by === 'outline' && (
              <Figures
                figures={[
                  {
                    label: 'Marks above the diagonal',
                    now: figure(feedbackIn(structure, sequence)),
                    title: 'Dependencies on what stands after, in the order of the outline',
                  },
                  { label: 'Groups of today', now: figure(today.groups), title: 'What the things are parts of' },
                  { label: 'Dependencies across groups', now: figure(today.across) },
                  { label: 'Groups in cycles', now: figure(today.inCycles) },
                  {
                    label: 'Propagation',
                    now: `${(today.propagation * 100).toFixed(1)} %`,
                    title: 'Share of the pairs of groups of which one reaches the other by dependencies',
                  },
                ]}
              />
            )}
            {asked.by === 'order' && isAskable && (
              <>
                {order.isFetching ? (
                  <Working says="Ordering…" most={Number(asked.seconds)} onCancel={order.cancel} />
                ) : found ? (
                  <OrderPane structure={structure} found={found} onCell={(from, to) => setCursor({ row: placeOf(from), column: placeOf(to) })} />
                ) : (
                  <NotDone error={order.error} onAgain={() => void order.refetch()} />
                )}
                {found && found.bound < found.weight && asked.seconds !== '120' && (
                  <Button size="2xs" variant="outline" mt="2" onClick={() => set({ seconds: asked.seconds === '10' ? '30' : '120' })}>
                    Give it {asked.seconds === '10' ? '30' : '120'} seconds
                  </Button>
                )}
              </>
            )}
            {asked.by === 'groups' &&
              isAskable &&
              (proposal.isFetching && !kept ? (
                <Working says="Looking for groups…" most={10} onCancel={proposal.cancel} />
              ) : group && shownGroups ? (
                <>
                  {kept && (
                    <Box fontSize="13px" mb="2">
                      As kept{kept.missing(structure) > 0 && `; ${counted(kept.missing(structure), 'thing')} of then are not shown any more`}.
                    </Box>
                  )}
                  <GroupsPane
                    structure={structure}
                    group={group}
                    shared={shownGroups.shared}
                    better={shownGroups.better}
                    thing={one}
                    byHand={moves?.size ?? 0}
                    onMove={(thing, to) => setHand({ of: shownGroups.of, moves: new Map([...(moves ?? []), [thing, to]]) })}
                    onReset={() => setHand(undefined)}
                    onShow={(thing) => setCursor({ row: placeOf(thing), column: at.column })}
                    onKeep={keepGroups}
                    onLenses={() => void keepLenses().catch(notifyError)}
                    itemsOf={itemsOf}
                  />
                </>
              ) : (
                <NotDone error={proposal.error} onAgain={() => void proposal.refetch()} />
              ))}
            <Box mt="3">
              <AsRegister items={itemsOf([...things.keys()])} label="All as a register" />
            </Box>
            {things.length > 0 && (
              <Box mt="4" borderTopWidth="1px" pt="2">
                <Box fontSize="13px" fontWeight="600" aria-live="polite">
                  {things[one]!.name || things[one]!.title} {one !== other && `on ${things[other]!.name || things[other]!.title}`}
                </Box>
                {one !== other && (
                  <CellPane
                    structure={structure}
                    from={one}
                    to={other}
                    phrases={phrases}
                    referenceOf={(row) => data.reference[row]!}
                    titleOf={(row) => data.title[row]!}
                    onOpen={open}
                  />
                )}
                <Flex gap="1" mt="2" wrap="wrap">
                  {blockItems.length > 0 && (
                    <AsRegister items={blockItems} label={block!.look === 'cycle' ? 'Its cycle as a register' : 'Its group as a register'} />
                  )}
                  {things[one]!.name && (
                    <Button size="2xs" variant="outline" title="O" onClick={() => open(things[one]!.name)}>
                      Open
                    </Button>
                  )}
                  {things[one]!.isFolded && (
                    <>
                      <Button size="2xs" variant="outline" title="+" onClick={() => unfold(one)}>
                        Unfold
                      </Button>
                      <Button size="2xs" variant="outline" title="I" onClick={() => enter(one)}>
                        Look into it only
                      </Button>
                    </>
                  )}
                  {things[one]!.parent && (
                    <Button size="2xs" variant="outline" title="−" onClick={() => fold(one)}>
                      Fold into what it is a part of
                    </Button>
                  )}
                </Flex>
              </Box>
            )}
          </Box>
        </Flex>
      </Flex>
    </Page>
  );
}
