import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { linkFilter, linkGroups, linkSorts, type ListedLink, MOST_SOUGHT } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useLens } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { type HeldItem, useAtHand } from '../../shared/marks/at-hand';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notify, notifyError } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { useItemAddress } from '../../shared/ui/reference';
import { unreadKey, unreadPlaces } from '../../shared/ui/unread';
import { useWhile } from '../../shared/ui/use-while';
import { WorkList } from '../../shared/ui/work-list';
import { ReasonDialog } from '../acting/dialogs';
import { useConfirm } from '../acting/queries';
import { ChangeLinksDialog } from '../linking/ChangeLinksDialog';
import { LinkColumns, LinkHeads } from './LinkColumns';
import { buildGroupedRows } from '../../shared/ui/grouped-rows';
import { NarrowBar } from './NarrowBar';
import { fetchLinkIds, useLinkList, useRemove } from './queries';
import { PasteDialog } from './PasteDialog';
import { SaveLinks } from './SaveLinks';
import { useNames } from './use-names';

const address = linkFilter.extend({
  sort: z.enum(linkSorts).default('from'),
  descending: z.enum(['yes', 'no']).default('no'),
  group: z.enum(linkGroups).default('none'),
});
const MOST_AT_ONCE = 5000;

const NOTHING: ReadonlySet<string> = new Set();

/** Every link of the project in one list. */
export function AllLinksPage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const names = useNames();
  const [{ sort, descending, group, ...filter }, set] = useAddress(address);
  const lens = useLens();
  const wish = { filter: { ...filter, lens: lens?.mode === 'only' && !lens.error ? lens.lens : '' }, sort, descending, group };
  const { head, total, rowAt, onSight, error } = useLinkList(project.id, wish);
  const [marked, setMarked] = useState(0);
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  // What was chosen of another list may not be in sight: nothing is done with it unseen.
  const [chosen, setChosen] = useWhile<ReadonlySet<string>>(NOTHING, JSON.stringify(wish.filter));
  const [asking, setAsking] = useState<'confirm' | 'change' | 'paste'>();
  const [held, setHeld] = useState<HeldItem>();
  useAtHand(held ? [held] : []);
  const confirm = useConfirm(project.id);
  const remove = useRemove(project.id);
  const rows = useMemo(() => buildGroupedRows(total, head?.groups ?? [], closed), [total, head?.groups, closed]);
  if (error) return <ErrorNote error={error} />;
  if (!head) return <Loading what="the links" />;
  const linkAt = (index: number): ListedLink | undefined => {
    const row = index < rows.count ? rows.rowAt(index) : undefined;
    return row && 'link' in row ? rowAt(row.link) : undefined;
  };
  const last = Math.max(0, rows.count - 1);
  const isGroup = (index: number) => index < rows.count && 'group' in rows.rowAt(index);
  const at = isGroup(Math.min(marked, last)) ? Math.min(marked + 1, last) : Math.min(marked, last);
  const ofMarked = linkAt(at);
  const targets = chosen.size > 0 ? [...chosen] : ofMarked ? [ofMarked.id] : [];
  const done = () => {
    setAsking(undefined);
    setChosen(new Set());
  };
  const narrow = (change: Parameters<typeof set>[0]) => {
    set(change);
    setMarked(0);
  };
  /** Rows that were never in sight are chosen by their places in the list. */
  const choose = (keys: ReadonlySet<string>) => {
    const places = unreadPlaces(keys);
    if (places.length === 0) return setChosen(keys);
    fetchLinkIds(project.id, wish).then((ids) => {
      const listed = new Set(ids);
      const known = [...keys].filter((key) => listed.has(key));
      setChosen(new Set([...known, ...places.flatMap((place) => ids[place] ?? [])]));
    }, notifyError);
  };
  const hold = (reason = '') =>
    confirm.mutate(
      { links: targets, reason },
      {
        onSuccess: () => {
          notify(`Confirmed: ${counted(targets.length, 'link')}.`);
          done();
        },
      },
    );
  const tooMany = targets.length > MOST_AT_ONCE;
  const within = (run: () => void) => () =>
    tooMany ? notify(`At most ${figure(MOST_AT_ONCE)} links are changed at once. Narrow the list first.`, 'info') : targets.length > 0 && run();
  const keys: Record<string, () => unknown> = {
    Enter: () => ofMarked && navigate(itemAddress(ofMarked.from.reference)),
    o: () => ofMarked && navigate(itemAddress(ofMarked.from.reference)),
    t: () => ofMarked && navigate(itemAddress(ofMarked.to.reference)),
    c: within(() => (targets.length > 1 ? setAsking('confirm') : hold())),
    e: within(() => setAsking('change')),
    p: () => setAsking('paste'),
    Delete: within(() =>
      remove.mutate(targets, {
        onSuccess: () => {
          notify(`${counted(targets.length, 'link')} removed. Undo brings ${targets.length === 1 ? 'it' : 'them'} back.`);
          done();
        },
      }),
    ),
  };
  return (
    <Page
      fill
      lead={`${figure(total)} of ${counted(head.all, 'link')}${wish.filter.lens ? `, of which an end is seen through “${lens?.seen?.name ?? 'the lens'}”` : ''}`}
      actions={
        <>
          <Choice
            label="Group"
            value={group}
            options={[
              { value: 'none', label: 'not grouped' },
              { value: 'kind', label: 'by kind' },
              { value: 'layers', label: 'by layers' },
              { value: 'collections', label: 'by collections' },
              { value: 'origin', label: 'by origin' },
              { value: 'person', label: 'by person' },
            ]}
            onChange={(value) => narrow({ group: value as 'none' })}
          />
          <Input
            size="xs"
            w="180px"
            bg="bg.panel"
            aria-label="Find in the links"
            placeholder="Find in the links"
            maxLength={MOST_SOUGHT}
            value={filter.words}
            onChange={(event) => narrow({ words: event.target.value })}
          />
          <Button
            size="xs"
            variant="outline"
            onClick={() => setAsking('paste')}
            title="From cells of a spreadsheet: two columns of references, or a matrix with marks (P)"
          >
            Paste…
          </Button>
          <SaveLinks wish={wish} total={total} />
        </>
      }
    >
      <Flex direction="column" h="100%" borderTopWidth="1px" bg="bg.panel">
        <NarrowBar filter={filter} counts={head.counts} onNarrow={narrow} />
        <Flex align="center" gap="2" px="4" h="34px" flexShrink={0} borderBottomWidth="1px" fontSize="13px">
          <Box fontWeight="600">{chosen.size > 0 ? `${figure(chosen.size)} chosen` : 'None chosen'}</Box>
          <OneLine color="fg.muted" flex="1" minW="0" text={chosen.size === 0 ? 'What is done, is done to the marked link.' : ''} />
          <Button size="2xs" variant="outline" disabled={targets.length === 0} loading={confirm.isPending} onClick={keys.c}>
            {targets.length > 1 ? `${figure(targets.length)} hold…` : 'It holds'}
          </Button>
          <Button size="2xs" variant="outline" disabled={targets.length === 0} onClick={keys.e}>
            Change…
          </Button>
          <Button size="2xs" variant="outline" disabled={targets.length === 0 || remove.isPending} onClick={keys.Delete}>
            Remove
          </Button>
        </Flex>
        <LinkHeads
          sort={sort}
          descending={descending}
          onSort={(next) => narrow({ sort: next, descending: next === sort && descending === 'no' ? 'yes' : 'no' })}
        />
        {total === 0 ? (
          <EmptyState
            title={head.all === 0 ? 'Nothing is linked yet' : 'No link is so'}
            action={
              head.all > 0 && (
                <Button size="xs" variant="outline" onClick={() => void navigate(`/p/${project.id}/link/all`)}>
                  Show all links
                </Button>
              )
            }
          >
            {head.all === 0
              ? 'Link on the bench, in the matrix or on a drawing: every link stands here then.'
              : 'None of the links answers to all that is asked above.'}
          </EmptyState>
        ) : (
          <WorkList
            label="All links"
            count={rows.count}
            rowHeight={28}
            keyOf={(index) => {
              const row = rows.rowAt(index);
              return 'link' in row ? (rowAt(row.link)?.id ?? unreadKey(row.link)) : `group ${row.group}`;
            }}
            nameOf={(index) => {
              const link = linkAt(index);
              return link ? `${link.from.reference} ${names.phrase(link.kind)} ${link.to.reference}` : 'a link that is being read';
            }}
            marked={at}
            onMark={(index) => {
              setMarked(index);
              setHeld(linkAt(index)?.from);
            }}
            chosen={chosen}
            onChoose={choose}
            onKey={(key) => {
              void keys[key]?.();
              return key in keys;
            }}
            onSight={(first, last) => {
              if (rows.count === 0) return;
              const places = [first, Math.min(last, rows.count - 1)].map((index) => {
                const row = rows.rowAt(index);
                const next = index + 1 < rows.count ? rows.rowAt(index + 1) : row;
                return 'link' in row ? row.link : 'link' in next ? next.link : 0;
              });
              onSight(Math.min(...places), Math.max(...places));
            }}
            isHeading={isGroup}
          >
            {(index) => {
              const row = rows.rowAt(index);
              if ('link' in row) return <LinkColumns link={rowAt(row.link)} names={names} />;
              const isClosed = closed.has(row.group);
              return (
                <Button
                  size="2xs"
                  variant="plain"
                  px="0"
                  fontSize="13px"
                  fontWeight="600"
                  aria-expanded={!isClosed}
                  onClick={() => setClosed(new Set(isClosed ? [...closed].filter((one) => one !== row.group) : [...closed, row.group]))}
                >
                  {isClosed ? '▸' : '▾'} {names.group(group, row.group)}
                  <Box as="span" fontWeight="400" color="fg.muted">
                    {figure(row.count)}
                  </Box>
                </Button>
              );
            }}
          </WorkList>
        )}
      </Flex>
      {asking === 'confirm' && (
        <ReasonDialog
          title={`${counted(targets.length, 'link')} hold`}
          says="They will be confirmed by you against what both ends say now; those that are suspect are so no more. Should a text have moved on meanwhile, none of them is."
          verb={`Confirm ${counted(targets.length, 'link')}`}
          busy={confirm.isPending}
          onDo={hold}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking === 'paste' && <PasteDialog project={project} onClose={() => setAsking(undefined)} />}
      {asking === 'change' && <ChangeLinksDialog project={project} links={targets} sample={ofMarked} onClose={() => setAsking(undefined)} onDone={done} />}
    </Page>
  );
}
