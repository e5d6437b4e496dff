import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { createBaseline, listBaselines, listChanges } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { History } from 'lucide-react';
import { useMemo, useState } from 'react';
import { call } from '../shared/api/client';
import { projectKey } from '../shared/api/keys';
import { useChange } from '../shared/live/use-change';
import { lookAsOf, useMoment } from '../shared/moment/moment';
import { OneLine } from '../shared/ui/one-line';
import { useKeys } from '../shared/ui/use-keys';
import { LookButton } from './LookButton';

const sayAt = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');

/** As of when the project is looked at: now, a baseline, a change, a day. */
export function MomentChoice({ project }: { project: string }) {
  const moment = useMoment(project);
  const [name, setName] = useState('');
  const [day, setDay] = useState('');
  const baselines = useQuery({ queryKey: [...projectKey(project), 'baselines'], queryFn: () => call(listBaselines, { params: { project } }) });
  const changes = useQuery({ queryKey: [...projectKey(project), 'moments'], queryFn: () => call(listChanges, { params: { project }, query: { most: 200 } }) });
  const keep = useChange(
    project,
    (body: { name: string; seq?: number }) => call(createBaseline, { params: { project }, body: { ...body, note: '' } }),
    'This moment has a name now.',
  );
  const keys = useMemo(() => ({ 'Alt+n': () => lookAsOf(project, undefined) }), [project]);
  useKeys(keys, moment !== undefined);
  const goTo = (seq: number, says: string) => lookAsOf(project, { seq, says });
  const goToDay = async (wanted: string) => {
    const end = new Date(`${wanted}T23:59:59.999`).getTime();
    let before: number | undefined;
    for (;;) {
      const page = await call(listChanges, { params: { project }, query: { most: 200, ...(before !== undefined && { before }) } });
      const found = page.find(({ at }) => new Date(at).getTime() <= end);
      if (found) return goTo(found.seq, `the end of ${format(new Date(end), 'd MMM yyyy')}`);
      if (page.length < 200) return;
      before = page.at(-1)!.seq;
    }
  };
  return (
    <LookButton
      says={moment ? `as of ${moment.says}` : 'now'}
      isOn={moment !== undefined}
      loud={moment !== undefined}
      icon={<History size={13} />}
      title="As of when"
      label="Moments"
    >
      {moment && (
        <Button size="xs" w="100%" mb="2" onClick={() => lookAsOf(project, undefined)}>
          Back to now (Alt N)
        </Button>
      )}
      <Flex
        as="form"
        gap="1.5"
        mb="2"
        onSubmit={(event) => {
          event.preventDefault();
          if (day) void goToDay(day);
        }}
      >
        <Input size="xs" type="date" aria-label="Day" value={day} onChange={(event) => setDay(event.target.value)} />
        <Button type="submit" size="xs" variant="outline" disabled={!day} flexShrink={0}>
          As of its end
        </Button>
      </Flex>
      <Box fontWeight="600" px="1">
        Baselines
      </Box>
      {(baselines.data ?? []).length === 0 && (
        <Box color="fg.muted" px="1">
          No moment has a name yet.
        </Box>
      )}
      {(baselines.data ?? []).map((one) => (
        <Moment key={one.id} isOn={moment?.seq === one.seq} label={one.name} aside={sayAt(one.at)} onGo={() => goTo(one.seq, one.name)} />
      ))}
      <Flex
        as="form"
        gap="1.5"
        my="2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) keep.mutate({ name: name.trim(), ...(moment && { seq: moment.seq }) }, { onSuccess: () => setName('') });
        }}
      >
        <Input
          size="xs"
          aria-label="Name for this moment"
          placeholder={moment ? 'Name this moment…' : 'Name how things stand now…'}
          value={name}
          maxLength={200}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" size="xs" variant="outline" disabled={!name.trim()} loading={keep.isPending}>
          Name it
        </Button>
      </Flex>
      <Box fontWeight="600" px="1">
        Changes
      </Box>
      <Box maxH="260px" overflowY="auto">
        {(changes.data ?? []).map(({ seq, action, at }) => (
          <Moment key={seq} isOn={moment?.seq === seq} label={`${seq}  ${action}`} aside={sayAt(at)} onGo={() => goTo(seq, `change ${seq}, ${sayAt(at)}`)} />
        ))}
      </Box>
    </LookButton>
  );
}

function Moment({ isOn, label, aside, onGo }: { isOn: boolean; label: string; aside: string; onGo: () => void }) {
  return (
    <Box
      asChild
      display="flex"
      w="100%"
      gap="2"
      px="1"
      py="0.5"
      borderRadius="l2"
      textAlign="left"
      fontWeight={isOn ? '600' : '400'}
      _hover={{ bg: 'bg.subtle' }}
    >
      <button type="button" aria-pressed={isOn} onClick={onGo}>
        <OneLine flex="1" minW="0" text={label} />
        <Box color="fg.muted" fontSize="12px" flexShrink={0}>
          {aside}
        </Box>
      </button>
    </Box>
  );
}
