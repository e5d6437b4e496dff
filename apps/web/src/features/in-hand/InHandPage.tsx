import { Box, Button, Checkbox, Flex } from '@chakra-ui/react';
import { counted, figure } from '@coomb/core';
import { format } from 'date-fns';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { readPerson } from '../../shared/api/person';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { useProject } from '../../shared/live/project-queries';
import { useAtHand } from '../../shared/marks/at-hand';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notify } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { PersonMark } from '../../shared/ui/person-mark';
import { Reference, useItemAddress } from '../../shared/ui/reference';
import { WorkList } from '../../shared/ui/work-list';
import { AsRegister } from '../acting/AsRegister';
import { HandOnDialog } from '../acting/dialogs';
import { useErrands, useGiveErrands, useSettleErrands } from '../acting/queries';
import { errandWords, sayFinding } from './errand-words';

const address = z.object({ whose: z.enum(['mine', 'all', 'given']).default('mine'), done: z.enum(['no', 'all']).default('no') });

/** What people have in hand, whatever list it came from. */
export function InHandPage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ whose, done }, set] = useAddress(address);
  const errands = useErrands(project.id, done);
  const settle = useSettleErrands(project.id);
  const give = useGiveErrands(project.id);
  const [place, setPlace] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [handing, setHanding] = useState(false);
  const me = readPerson();
  const through = useIsSeen();
  const all = (errands.data ?? []).filter(({ owner, giver }) => (whose === 'mine' ? owner === me : whose === 'given' ? giver === me && owner !== me : true));
  const rows = through?.mode === 'only' ? all.filter(({ about }) => through.isSeen(about.id)) : all;
  const marked = Math.max(0, Math.min(place, rows.length - 1));
  const kept = rows.filter(({ id }) => chosen.has(id));
  const targets = kept.length > 0 ? kept : rows[marked] ? [rows[marked]] : [];
  useAtHand(targets.map(({ about }) => about));
  if (errands.error) return <ErrorNote error={errands.error} retry={() => void errands.refetch()} />;
  if (!errands.data) return <Loading what="what is in hand" />;
  const finish = () => {
    if (targets.length === 0) return;
    const isDone = !targets.every((one) => one.done);
    settle.mutate(
      { errands: targets.map(({ id }) => id), done: isDone },
      {
        onSuccess: () => {
          notify(isDone ? `Done: ${counted(targets.length, 'thing')}.` : 'Not done after all.');
          setChosen(new Set());
        },
      },
    );
  };
  const aboutOf = ({ item, link, finding }: (typeof rows)[number]) => ({ item, ...(link && { link }), ...(finding && { finding }) });
  const take = () => {
    // One sort at a time: what is handed on keeps what is to be done.
    const [first] = targets;
    if (!first) return;
    const same = targets.filter(({ sort }) => sort === first.sort);
    give.mutate(
      { sort: first.sort, owner: me, note: first.note, about: same.map(aboutOf) },
      { onSuccess: () => notify(`You have ${counted(same.length, 'thing')} in hand.`) },
    );
  };
  const keys: Record<string, () => unknown> = {
    Enter: () => rows[marked] && navigate(`/p/${project.id}/${errandWords[rows[marked].sort].goesTo(rows[marked])}`),
    o: () => rows[marked] && navigate(itemAddress(rows[marked].about.reference)),
    d: finish,
    t: take,
    h: () => targets.length > 0 && setHanding(true),
  };
  return (
    <Page
      fill
      lead={`${counted(rows.length, 'thing')}${rows.length < all.length ? ` about what is seen through “${through?.name}”, of ${figure(all.length)}` : ''}${kept.length > 0 ? `, ${figure(kept.length)} chosen` : ''}`}
      actions={
        <>
          <Choice
            label="In whose hand"
            value={whose}
            options={[
              { value: 'mine', label: 'in my hand' },
              { value: 'given', label: 'handed on by me' },
              { value: 'all', label: 'in anybody’s hand' },
            ]}
            onChange={(value) => set({ whose: value as 'mine' })}
          />
          <Checkbox.Root size="sm" checked={done === 'all'} onCheckedChange={({ checked }) => set({ done: checked === true ? 'all' : 'no' })}>
            <Checkbox.HiddenInput />
            <Checkbox.Control />
            <Checkbox.Label fontWeight="400" fontSize="13px">
              also what is done
            </Checkbox.Label>
          </Checkbox.Root>
          <AsRegister size="xs" items={[...new Map((kept.length > 0 ? kept : rows).map(({ about }) => [about.id, about])).values()]} />
          <Button size="xs" variant="outline" disabled={targets.length === 0} onClick={take}>
            Take on
          </Button>
          <Button size="xs" variant="outline" disabled={targets.length === 0} onClick={keys.h}>
            Hand on…
          </Button>
          <Button size="xs" disabled={targets.length === 0} loading={settle.isPending} onClick={finish}>
            {targets.length > 0 && targets.every((one) => one.done) ? 'Not done' : 'Done'}
          </Button>
        </>
      }
    >
      <Flex direction="column" h="100%" borderTopWidth="1px" bg="bg.panel">
        {rows.length === 0 ? (
          <EmptyState title={all.length > 0 ? 'Nothing about what is seen' : whose === 'mine' ? 'Nothing is in your hand' : 'Nothing here'}>
            In findings, suspect links, impact or any list behind a number: choose items and hand them on, to others or to yourself. They stand here until they
            are done.
          </EmptyState>
        ) : (
          <WorkList
            label="In hand"
            count={rows.length}
            rowHeight={30}
            keyOf={(index) => rows[index]!.id}
            nameOf={(index) => `${errandWords[rows[index]!.sort].label} ${rows[index]!.about.reference}`}
            marked={marked}
            onMark={setPlace}
            chosen={new Set(kept.map(({ id }) => id))}
            onChoose={setChosen}
            isFaint={through?.mode === 'lit' ? (index) => !through.isSeen(rows[index]!.about.id) : undefined}
            onKey={(key) => {
              void keys[key]?.();
              return key in keys;
            }}
          >
            {(index) => {
              const { sort, about, note, owner, giver, at, done: isDone, finding, stands } = rows[index]!;
              const says = [sayFinding(finding, project.scheme), note].filter(Boolean).join(': ');
              return (
                <>
                  <PersonMark name={owner} />
                  <OneLine flexShrink={0} w="8rem" fontSize="13px" text={owner} />
                  <Box flexShrink={0} w="6.5rem" fontSize="13px" color="fg.muted">
                    {errandWords[sort].label}
                  </Box>
                  <Reference reference={about.reference} flexShrink={0} minW="4.6rem" />
                  <OneLine
                    flex="1 1 34%"
                    minW="0"
                    fontFamily="serif"
                    fontSize="14.5px"
                    textDecoration={isDone ? 'line-through' : undefined}
                    color={isDone ? 'fg.muted' : undefined}
                    text={about.title}
                  />
                  <OneLine flex="1 1 30%" minW="0" fontSize="13px" color="fg.muted" text={says} />
                  {stands === false && !isDone && (
                    <Box flexShrink={0} fontSize="12.5px" fontWeight="600" color="moss.fg">
                      mended
                    </Box>
                  )}
                  <Box flexShrink={0} fontSize="12.5px" color="fg.muted">
                    {giver === owner ? 'taken on' : `from ${giver}`}, {format(new Date(at), 'd MMM')}
                    {isDone && ', done'}
                  </Box>
                </>
              );
            }}
          </WorkList>
        )}
      </Flex>
      {handing && targets[0] && (
        <HandOnDialog
          project={project.id}
          sort={targets[0].sort}
          what="thing"
          note={targets[0].note}
          about={targets.filter(({ sort }) => sort === targets[0]!.sort).map(aboutOf)}
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
