import { Button, Flex, Input } from '@chakra-ui/react';
import { type Finding, findingStates, MOST_SOUGHT } from '@coomb/contract';
import { counted } from '@coomb/core';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { useOthersByItem } from '../../shared/live/presence';
import { useProject } from '../../shared/live/project-queries';
import { saveFile } from '../../shared/save-file';
import { useAtHand } from '../../shared/marks/at-hand';
import { toCsv } from '../../shared/to-csv';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notify, notifyError } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { useItemAddress } from '../../shared/ui/reference';
import { useWhile } from '../../shared/ui/use-while';
import { readPlaces, unreadKey, unreadPlaces } from '../../shared/ui/unread';
import { WorkList } from '../../shared/ui/work-list';
import { type Act, ActBar } from '../acting/ActBar';
import { AsRegister } from '../acting/AsRegister';
import { useMendFindings } from '../acting/queries';
import { FindingRow } from './FindingRow';
import { fetchFindings, useFindings } from './queries';
import { RuleList } from './RuleList';
import { TrendPanel } from './TrendPanel';

const address = z.object({
  rule: z.string().optional(),
  state: z.enum(findingStates).default('open'),
  collection: z.string().optional(),
  words: z.string().default(''),
  trend: z.literal('yes').optional(),
});

const stateLabels: Record<(typeof findingStates)[number], string> = {
  open: 'open',
  taken: 'in hand',
  mine: 'in my hand',
  waived: 'waived',
  all: 'all of them',
};

/** Findings that are read at once. */
const WINDOW = 1000;

/** Whether a link would mend it: the bench helps there. */
const isOpenEnd = ({ rule }: Finding) => rule.startsWith('gap:') || rule === 'alone-without';

const NOTHING: ReadonlyMap<string, Finding> = new Map();

/** What is found between two items is found at both. */
const isSeenFinding = (found: Finding | undefined, isSeen: (item: string) => boolean) =>
  found === undefined || isSeen(found.item.id) || (found.other !== null && isSeen(found.other.id));

/** Findings of all sorts in one list, to be worked off. */
export function FindingsPage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ rule, state, collection, words, trend }, set] = useAddress(address);
  const [marked, setMarked] = useState(0);
  const [asking, setAsking] = useState<Act>();
  const { part, says } = useFiguresLens();
  const through = useIsSeen();
  const wish = { rule, state, collection, words, lens: part.lens };
  // What was chosen of another list may not be in sight: nothing is done with it unseen.
  const [known, setKnown] = useWhile<ReadonlyMap<string, Finding>>(NOTHING, JSON.stringify(wish));
  const { head, total, rowAt, onSight, error } = useFindings(project.id, wish);
  const others = useOthersByItem();
  const mend = useMendFindings(project.id);
  const chosen = new Set(known.keys());
  const at = Math.min(marked, Math.max(0, total - 1));
  const ofMarked = rowAt(at);
  const targets = known.size > 0 ? [...known.values()] : ofMarked ? [ofMarked] : [];
  useAtHand(targets.map(({ item }) => item));
  const choose = async (keys: ReadonlySet<string>) => {
    const next = new Map([...known].filter(([key]) => keys.has(key)));
    for (let index = 0; index < total; index++) {
      const found = rowAt(index);
      if (found && keys.has(found.key)) next.set(found.key, found);
    }
    try {
      // Rows that were never in sight are read before anything is done with them.
      const unread = await readPlaces(unreadPlaces(keys), WINDOW, async (offset, limit) => (await fetchFindings(project.id, wish, offset, limit)).findings);
      for (const one of unread) next.set(one.key, one);
      setKnown(next);
    } catch (failure) {
      notifyError(failure);
    }
  };
  const done = () => {
    setAsking(undefined);
    setKnown(new Map());
  };
  const mendFirst = () => {
    const able = targets.filter(({ mendings }) => mendings.length > 0);
    const [first] = able;
    if (!first) return notify('For this there is no single step. Open the item, or link it on the bench.', 'info');
    const { sort, label } = first.mendings[0]!;
    const same = able.flatMap(({ key, mendings }) => (mendings[0]!.sort === sort ? [{ key, sort, at: 0 }] : []));
    mend.mutate(same, {
      onSuccess: () => {
        notify(`${label}: ${counted(same.length, 'finding')}. Undo takes it back.`);
        done();
      },
    });
  };
  const open = () => ofMarked && void navigate(itemAddress(ofMarked.item.reference));
  /** Where what is missing can be linked: the collection that holds what the rule looks for, the likeliest first. */
  const toBench = () => {
    const gap = ofMarked?.rule.startsWith('gap:') ? project.scheme.rules.find(({ id }) => `gap:${id}` === ofMarked.rule) : undefined;
    if (!ofMarked || !isOpenEnd(ofMarked)) return notify('The bench helps where something is not linked: mark such a finding.', 'info');
    const facing = project.collections.find(({ id, kind }) => id !== ofMarked.item.collection && gap?.reach.kinds.includes(kind) === true);
    const wish = new URLSearchParams({ left: ofMarked.item.collection, ...(facing && { right: facing.id }), order: 'likely', at: ofMarked.item.reference });
    void navigate(`/p/${project.id}/link?${wish}`);
  };
  const keys: Record<string, () => void> = {
    b: toBench,
    Enter: () => open(),
    o: () => open(),
    m: mendFirst,
    w: () => setAsking('waive'),
    h: () => setAsking('hand'),
    e: () => setAsking('field'),
    c: () => setAsking('confirm'),
  };
  const save = async () => {
    const rows: string[][] = [];
    for (let offset = 0; offset < total; offset += WINDOW)
      for (const { item, says, rule: of, waiver, errand } of (await fetchFindings(project.id, wish, offset, WINDOW)).findings)
        rows.push([
          item.reference,
          item.title,
          head?.rules.find(({ id }) => id === of)?.label ?? of,
          says,
          errand?.owner ?? '',
          waiver?.reason ?? '',
          waiver?.person ?? '',
          waiver?.approver ?? '',
          waiver?.until ?? '',
        ]);
    const heads = ['Reference', 'Title', 'Rule', 'Finding', 'In hand', 'Waived because', 'Waived by', 'Agreed by', 'Until'];
    saveFile('Findings.csv', new Blob([toCsv([heads, ...rows])], { type: 'text/csv' }));
  };
  if (error) return <ErrorNote error={error} />;
  if (!head) return <Loading what="the findings" />;
  const ruleOf = head.rules.find(({ id }) => id === rule);
  return (
    <Page
      fill
      lead={[ruleOf?.explains, says].filter(Boolean).join(' ') || undefined}
      actions={
        <>
          <Choice
            label="Which findings"
            value={state}
            options={findingStates.map((value) => ({ value, label: stateLabels[value] }))}
            onChange={(value) => set({ state: value as 'open' })}
          />
          <Choice
            label="Collection"
            value={collection ?? ''}
            options={[{ value: '', label: 'all collections' }, ...project.collections.map((one) => ({ value: one.id, label: one.name }))]}
            onChange={(value) => set({ collection: value || undefined })}
          />
          <Input
            size="xs"
            w="150px"
            bg="bg.panel"
            aria-label="Filter by words"
            placeholder="Filter by words"
            maxLength={MOST_SOUGHT}
            value={words}
            onChange={(event) => set({ words: event.target.value })}
          />
          <Button size="xs" variant="outline" aria-pressed={trend === 'yes'} onClick={() => set({ trend: trend ? undefined : 'yes' })}>
            Trend
          </Button>
          <Button
            size="xs"
            variant="outline"
            disabled={total === 0}
            onClick={() => void save().catch(notifyError)}
            title="Save these rows to be read elsewhere"
          >
            <Download size={13} /> Save
          </Button>
        </>
      }
    >
      <Flex h="100%" borderTopWidth="1px">
        <RuleList
          rules={head.rules}
          state={state}
          chosen={rule}
          onChoose={(next) => {
            set({ rule: next });
            setMarked(0);
            setKnown(new Map());
          }}
        />
        <Flex direction="column" flex="1" minW="0" bg="bg.panel">
          {trend && <TrendPanel project={project.id} lens={part.lens} />}
          <ActBar
            project={project.id}
            total={total}
            chosen={known.size}
            what="finding"
            items={[...new Map(targets.map(({ item }) => [item.id, item])).values()]}
            findings={targets.map(({ key }) => key)}
            sort="mend"
            about={targets.map(({ key, item, links }) => ({ item: item.id, finding: key, ...(links[0] && { link: links[0] }) }))}
            act={asking}
            setAct={setAsking}
            onDone={done}
          >
            <Button
              size="2xs"
              variant="outline"
              disabled={!targets.some(({ mendings }) => mendings.length > 0) || mend.isPending}
              onClick={mendFirst}
              title="M"
            >
              {targets.find(({ mendings }) => mendings.length > 0)?.mendings[0]?.label ?? 'Mend'}
            </Button>
            <Button size="2xs" variant="outline" disabled={!ofMarked || !isOpenEnd(ofMarked)} onClick={toBench} title="B">
              On the bench
            </Button>
            <AsRegister items={[...new Map(targets.map(({ item }) => [item.id, item])).values()]} />
          </ActBar>
          {total === 0 ? (
            <EmptyState title={state === 'open' && !words ? 'Nothing found' : 'Nothing of this sort'}>
              {words ? 'No finding holds these words.' : part.lens ? says : ruleOf ? ruleOf.explains : 'Rules were asked, and found nothing that is wrong.'}
            </EmptyState>
          ) : (
            <WorkList
              label="Findings"
              count={total}
              rowHeight={30}
              keyOf={(index) => rowAt(index)?.key ?? unreadKey(index)}
              nameOf={(index) => {
                const found = rowAt(index);
                return found ? `${found.item.reference} ${found.says}` : 'a finding that is being read';
              }}
              marked={at}
              onMark={setMarked}
              chosen={chosen}
              onChoose={(next) => void choose(next)}
              onKey={(key) => {
                keys[key]?.();
                return key in keys;
              }}
              onSight={onSight}
              isFaint={through?.mode === 'lit' ? (index) => !isSeenFinding(rowAt(index), through.isSeen) : undefined}
            >
              {(index) => (
                <FindingRow
                  finding={rowAt(index)}
                  others={others.get(rowAt(index)?.item.id ?? '')}
                  label={rule ? undefined : head.rules.find(({ id }) => id === rowAt(index)?.rule)?.label}
                />
              )}
            </WorkList>
          )}
        </Flex>
      </Flex>
    </Page>
  );
}
