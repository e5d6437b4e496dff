import { Box, Button, Flex, IconButton, Input } from '@chakra-ui/react';
import { counted, figure, stateWords } from '@coomb/core';
import { Plus, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { useProject } from '../../shared/live/project-queries';
import { sayImpact, useImpact } from '../../shared/live/use-impact';
import { useAtHand } from '../../shared/marks/at-hand';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { Reference, useItemAddress } from '../../shared/ui/reference';
import { WorkList } from '../../shared/ui/work-list';
import { AsRegister } from '../acting/AsRegister';
import { HandOnDialog } from '../acting/dialogs';
import { buildImpactRows, sayWay } from './impact-rows';
import { ImpactLine } from './ImpactLine';
import { ImpactSection } from './ImpactSection';

const address = z.object({
  items: z.string().default(''),
  kind: z.string().default(''),
  most: z.coerce.number().int().min(1).max(50).optional().catch(undefined),
  shape: z.enum(['list', 'tree', 'section']).default('list'),
});
const referencesIn = (text: string) => [...new Set(text.split(/[\s,;]+/).filter(Boolean))];

/** What a change of some items would touch, before it is made. */
export function ImpactPage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ items: text, kind, most, shape }, set] = useAddress(address);
  const [more, setMore] = useState('');
  const [place, setPlace] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [handing, setHanding] = useState(false);
  const items = useMemo(() => referencesIn(text), [text]);
  const through = useIsSeen();
  const impact = useImpact(project.id, items, kind ? [kind] : [], most);
  const rows = useMemo(
    () => (impact.data && items.length > 0 ? buildImpactRows(impact.data, shape === 'tree' ? 'tree' : 'list') : []),
    [impact.data, items.length, shape],
  );
  const itemAt = (index: number) => {
    const row = rows[index];
    return row && 'affected' in row ? row.affected.item : row && 'stale' in row ? row.stale.item : undefined;
  };
  const marked = itemAt(place)
    ? place
    : Math.max(
        0,
        rows.findIndex((row) => !('head' in row)),
      );
  const ofMarked = itemAt(marked);
  const byKey = new Map(rows.flatMap((_, index) => (itemAt(index) ? [[keyAt(rows, index), itemAt(index)!] as const] : [])));
  const kept = new Set([...chosen].filter((key) => byKey.has(key)));
  const targets = [...new Map((kept.size > 0 ? [...kept].map((key) => byKey.get(key)!) : ofMarked ? [ofMarked] : []).map((item) => [item.id, item])).values()];
  const touched = useMemo(() => (impact.data && items.length > 0 ? itemsTouched(impact.data) : []), [impact.data, items.length]);
  useAtHand(targets);
  const keys: Record<string, () => unknown> = {
    Enter: () => ofMarked && navigate(itemAddress(ofMarked.reference)),
    o: () => ofMarked && navigate(itemAddress(ofMarked.reference)),
    h: () => targets.length > 0 && setHanding(true),
    t: () => set({ shape: shape === 'list' ? 'tree' : 'list' }),
  };
  const add = () => {
    const next = [...new Set([...items, ...referencesIn(more)])];
    set({ items: next.join(',') });
    setMore('');
  };
  return (
    <Page
      fill
      actions={
        <>
          <Choice
            label="Links that are followed"
            value={kind}
            options={[{ value: '', label: 'along all links' }, ...project.scheme.linkKinds.map(({ id, phrase }) => ({ value: id, label: `only “${phrase}”` }))]}
            onChange={(value) => set({ kind: value })}
          />
          <Choice
            label="How far"
            value={String(most ?? '')}
            options={[
              { value: '', label: 'as far as they lead' },
              ...[1, 2, 3, 4, 6].map((steps) => ({ value: String(steps), label: counted(steps, 'link') })),
            ]}
            onChange={(value) => set({ most: value ? Number(value) : undefined })}
          />
          <Choice
            label="Shape"
            value={shape}
            options={[
              { value: 'list', label: 'as a list' },
              { value: 'tree', label: 'as a tree' },
              { value: 'section', label: 'on the section' },
            ]}
            onChange={(value) => set({ shape: value as 'list' })}
          />
          <AsRegister size="xs" items={kept.size > 0 ? targets : touched} />
          {shape !== 'section' && (
            <Button size="xs" variant="outline" disabled={targets.length === 0} onClick={keys.h}>
              {kept.size > 0 ? `Hand ${figure(targets.length)} on…` : 'Hand on…'}
            </Button>
          )}
        </>
      }
    >
      <Flex direction="column" h="100%" borderTopWidth="1px" bg="bg.panel">
        <Flex px="4" py="1.5" gap="2" align="center" wrap="wrap" borderBottomWidth="1px" fontSize="13.5px">
          <Box color="fg.muted">If</Box>
          {items.slice(0, 12).map((item) => (
            <Flex key={item} align="center" borderWidth="1px" borderRadius="l2" pl="1.5" bg="bg.subtle">
              <Reference reference={impact.data?.roots.find(({ id }) => id === item)?.reference ?? item} />
              <IconButton
                aria-label={`Leave ${item} out`}
                title="Leave it out"
                size="2xs"
                variant="plain"
                onClick={() => set({ items: items.filter((one) => one !== item).join(',') })}
              >
                <X size={12} />
              </IconButton>
            </Flex>
          ))}
          {items.length > 12 && <Box color="fg.muted">and {figure(items.length - 12)} more</Box>}
          <Flex
            as="form"
            align="center"
            gap="1"
            onSubmit={(event) => {
              event.preventDefault();
              add();
            }}
          >
            <Input
              size="2xs"
              w="150px"
              aria-label="References of further items"
              placeholder={items.length === 0 ? 'Reference, such as SYS-042' : 'or another'}
              value={more}
              autoFocus={items.length === 0}
              onChange={(event) => setMore(event.target.value)}
            />
            <IconButton type="submit" aria-label="Add" title="Add" size="2xs" variant="outline" disabled={referencesIn(more).length === 0}>
              <Plus size={12} />
            </IconButton>
          </Flex>
          {impact.data && items.length > 0 && (
            <Box color="fg.muted">
              {items.length === 1 ? 'comes' : 'come'} to say something else:{' '}
              <Box as="span" color="fg" fontWeight="600">
                {sayImpact(impact.data)}
              </Box>
              .{shape === 'section' && impact.data.stale.length > 0 && ' Below they are shown as they would be.'}
              {through && shape !== 'section' && ` What is not seen through “${through.name}” is faint, and counts.`}
            </Box>
          )}
        </Flex>
        {impact.error && <ErrorNote error={impact.error} />}
        {items.length === 0 ? (
          <EmptyState title="Which items would change?">
            Write their references above, or open an item and choose “Impact”: everything that rests on it is listed with the way there, before a word of it is
            changed.
          </EmptyState>
        ) : !impact.data ? (
          !impact.error && <Loading what="what it would touch" />
        ) : shape === 'section' ? (
          <ImpactSection impact={impact.data} />
        ) : (
          <WorkList
            label="Impact"
            count={rows.length}
            rowHeight={29}
            keyOf={(index) => keyAt(rows, index)}
            nameOf={(index) => {
              const row = rows[index]!;
              if ('affected' in row) return sayWay(row.affected);
              return 'stale' in row ? `${row.stale.item.reference} becomes ${stateWords[row.stale.becomes].label}` : row.head;
            }}
            marked={marked}
            onMark={setPlace}
            chosen={kept}
            onChoose={setChosen}
            onKey={(key) => {
              void keys[key]?.();
              return key in keys;
            }}
            isHeading={(index) => 'head' in rows[index]!}
            isFaint={through && ((index) => !through.isSeen(itemAt(index)?.id ?? ''))}
          >
            {(index) => <ImpactLine row={rows[index]!} />}
          </WorkList>
        )}
      </Flex>
      {handing && (
        <HandOnDialog
          project={project.id}
          sort="look"
          what="item"
          note={`Impact of ${(impact.data?.roots ?? [])
            .slice(0, 5)
            .map(({ reference }) => reference)
            .join(', ')}`}
          about={targets.map(({ id }) => ({ item: id }))}
          onClose={() => setHanding(false)}
          onDone={() => {
            setHanding(false);
            setChosen(new Set());
          }}
        />
      )}
    </Page>
  );
}

/** All that a change would touch, each once: what lies on either side, and what evidence would say otherwise. */
const itemsTouched = ({ upstream, downstream, stale }: NonNullable<ReturnType<typeof useImpact>['data']>) => [
  ...new Map([...downstream.items, ...upstream.items, ...stale].map(({ item }) => [item.id, item])).values(),
];

/** Names a row: an item may stand in several parts of the list. */
function keyAt(rows: ReturnType<typeof buildImpactRows>, index: number): string {
  const row = rows[index]!;
  if ('affected' in row) return `${row.side} ${row.affected.item.id}`;
  return 'stale' in row ? `stale ${row.stale.item.id}` : row.head;
}
