import { Box, Button, Flex } from '@chakra-ui/react';
import { counted, figure } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notify } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { useItemAddress } from '../../shared/ui/reference';
import { WorkList } from '../../shared/ui/work-list';
import { AsRegister } from '../acting/AsRegister';
import { HandOnDialog, ReasonDialog } from '../acting/dialogs';
import { useConfirm } from '../acting/queries';
import { DifferencePane } from './DifferencePane';
import { useRemove, useSuspects } from './queries';
import { GroupRow, LinkRow } from './rows';
import { buildSuspectRows, nearestLink } from './suspect-rows';

/** Suspect links by the change that made them so: read what changed on the right, judge on the left. */
export function SuspectsPage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const { part, says } = useFiguresLens();
  const through = useIsSeen();
  const suspects = useSuspects(project.id, part);
  const confirm = useConfirm(project.id);
  const remove = useRemove(project.id);
  const [place, setPlace] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [asking, setAsking] = useState<'confirm' | 'hand'>();
  const rows = useMemo(() => buildSuspectRows(suspects.data?.groups ?? []), [suspects.data]);
  if (suspects.error) return <ErrorNote error={suspects.error} retry={() => void suspects.refetch()} />;
  if (!suspects.data) return <Loading what="the suspect links" />;
  const marked = nearestLink(rows, place);
  const row = rows[marked];
  const present = new Map(rows.flatMap(({ group, link }) => (link ? [[link.id, { group, link }] as const] : [])));
  const kept = new Set([...chosen].filter((id) => present.has(id)));
  const targets = kept.size > 0 ? [...kept] : row?.link ? [row.link.id] : [];
  const done = () => {
    setAsking(undefined);
    setChosen(new Set());
  };
  const hold = (reason = '') =>
    confirm.mutate(
      { links: targets, reason },
      {
        onSuccess: () => {
          notify(targets.length === 1 ? 'It still holds. Undo makes it suspect again.' : `${counted(targets.length, 'link')} still hold. Undo takes it back.`);
          done();
        },
      },
    );
  const judge = () => (targets.length > 1 ? setAsking('confirm') : targets.length === 1 && hold());
  const open = () => row?.link && void navigate(itemAddress(row.link.other.reference));
  const keys: Record<string, () => void> = {
    c: judge,
    g: () => row && setChosen(new Set([...kept, ...row.group.links.map(({ id }) => id)])),
    Enter: open,
    o: open,
    h: () => targets.length > 0 && setAsking('hand'),
    Delete: () =>
      targets.length > 0 &&
      remove.mutate(targets, {
        onSuccess: () => {
          notify(`${counted(targets.length, 'link')} removed. Undo brings ${targets.length === 1 ? 'it' : 'them'} back.`);
          done();
        },
      }),
  };
  const { links, total, groups } = suspects.data;
  if (links === 0 && part.lens !== undefined)
    return (
      <EmptyState alone title="No link of what is seen is suspect">
        Links of which neither end is seen through the lens are not listed. Look at everything to see whether one of them is.
      </EmptyState>
    );
  if (links === 0)
    return (
      <EmptyState alone title="No link is suspect">
        Whatever links join says what it said when they were last confirmed. When an end comes to say something else, its links wait here, each change with all
        of its links.
      </EmptyState>
    );
  /** What the links join that are chosen, or all that are listed; each once. */
  const endsOf = (only: ReadonlySet<string> | undefined) => [
    ...new Map(
      [...present].filter(([id]) => !only || only.has(id)).flatMap(([, { group, link }]) => [group.item, link.other].map((item) => [item.id, item] as const)),
    ).values(),
  ];
  /** Of a link that is kept for its one end, or lit for it, the other is faint where it is not seen. */
  const faintRow = (index: number) => {
    const { link } = rows[index]!;
    return through !== undefined && link !== undefined && !through.isSeen(link.other.id);
  };
  const touched = new Set(targets.map((id) => present.get(id)?.group.item.reference));
  return (
    <Page
      fill
      lead={`${counted(links, 'link')} from ${counted(total, 'change')}${total > groups.length ? `; the newest ${figure(groups.length)} are listed` : ''}${part.lens ? `, of which an end is seen through “${through?.name ?? 'the lens'}”` : says ? `. ${says}` : ''}`}
      actions={
        <>
          <AsRegister size="xs" items={endsOf(kept.size > 0 ? kept : undefined)} />
          <Button size="xs" variant="outline" disabled={!row} onClick={keys.g}>
            All of this change
          </Button>
          <Button size="xs" variant="outline" disabled={targets.length === 0} onClick={keys.h}>
            Hand on…
          </Button>
          <Button size="xs" variant="outline" disabled={targets.length === 0 || remove.isPending} onClick={keys.Delete}>
            Remove
          </Button>
          <Button size="xs" disabled={targets.length === 0} loading={confirm.isPending} onClick={judge}>
            {targets.length > 1 ? `${figure(targets.length)} still hold…` : 'It still holds'}
          </Button>
        </>
      }
    >
      <Flex h="100%" borderTopWidth="1px">
        <Box flex="1 1 52%" minW="0" h="100%" bg="bg.panel">
          <WorkList
            label="Suspect links"
            count={rows.length}
            rowHeight={31}
            keyOf={(index) => rows[index]!.link?.id ?? `change ${rows[index]!.group.seq} ${rows[index]!.group.item.id}`}
            nameOf={(index) => {
              const { group, link } = rows[index]!;
              return `${group.item.reference} ${link?.phrase} ${link?.other.reference} ${link?.other.title}`;
            }}
            marked={marked}
            onMark={setPlace}
            chosen={kept}
            onChoose={setChosen}
            onKey={(key) => {
              keys[key]?.();
              return key in keys;
            }}
            isHeading={(index) => rows[index]!.link === undefined}
            isFaint={through && faintRow}
          >
            {(index) => {
              const { group, link } = rows[index]!;
              return link ? <LinkRow link={link} /> : <GroupRow group={group} />;
            }}
          </WorkList>
        </Box>
        <DifferencePane project={project.id} row={row} />
      </Flex>
      {asking === 'confirm' && (
        <ReasonDialog
          title={`${counted(targets.length, 'link')} still hold`}
          says={`They will be confirmed by you against what both ends say now: links of ${[...touched].slice(0, 4).join(', ')}${touched.size > 4 ? ` and ${touched.size - 4} more` : ''}. Should a text have moved on meanwhile, none of them is.`}
          verb={`Confirm ${counted(targets.length, 'link')}`}
          busy={confirm.isPending}
          onDo={hold}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking === 'hand' && (
        <HandOnDialog
          project={project.id}
          sort="judge"
          what="link"
          about={targets.flatMap((id) => {
            const found = present.get(id);
            return found ? [{ item: found.group.item.id, link: id, finding: `suspect:${id}` }] : [];
          })}
          onClose={() => setAsking(undefined)}
          onDone={done}
        />
      )}
    </Page>
  );
}
