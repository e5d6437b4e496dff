import { Box, Button, Checkbox, Flex, Input } from '@chakra-ui/react';
import { counted, figure, findAllowedLinks, findKindOfRole, phraseAt } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { Choice } from '../../shared/ui/choice';
import { useMakeGroups } from './queries';

export interface MadeGroup {
  title: string;
  items: readonly { id: string; kind: string }[];
}

/** Turns the groups into items of a kind, and what is in each into links with it: functions into components that perform them. */
export function MakeGroups({ groups }: { groups: () => MadeGroup[] }) {
  const [found, setFound] = useState<MadeGroup[]>();
  return (
    <>
      <Button size="xs" variant="outline" onClick={() => setFound(groups())} title="An item for each group, linked with what is in it">
        As items…
      </Button>
      {found && <MakeDialog groups={found} onClose={() => setFound(undefined)} />}
    </>
  );
}

function MakeDialog({ groups, onClose }: { groups: readonly MadeGroup[]; onClose: () => void }) {
  const { id: project, scheme } = useProject();
  const make = useMakeGroups(project);
  const kindsIn = [...new Set(groups.flatMap(({ items }) => items.map(({ kind }) => kind)))];
  const kinds = scheme.kinds.filter(({ id, retired }) => !retired && kindsIn.some((one) => findAllowedLinks(scheme, one, id).length > 0));
  const usual = kinds.find(({ id }) => id === findKindOfRole(scheme, 'component')?.id) ?? kinds[0];
  const [kind, setKind] = useState(usual?.id ?? '');
  const ways = new Map(
    kindsIn
      .flatMap((one) => findAllowedLinks(scheme, one, kind))
      .filter(({ linkKind }) => !linkKind.retired)
      .map((one) => [`${one.linkKind.id} ${one.reversed}`, one]),
  );
  // What performs something is what functions are grouped for, where the scheme knows it.
  const first = [...ways].find(([, { linkKind }]) => linkKind.role === 'allocates') ?? [...ways][0];
  const [chosen, setChosen] = useState('');
  const [place, setPlace] = useState<'home' | 'set'>('home');
  const [set, setSet] = useState('Proposed groups');
  const way = ways.get(chosen) ?? first?.[1];
  const [titles, setTitles] = useState(() => groups.map(({ title }) => title));
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set(groups.flatMap(({ items }, at) => (items.length < 2 ? [at] : []))));
  const may = (of: string) =>
    way !== undefined && findAllowedLinks(scheme, of, kind).some((one) => one.linkKind.id === way.linkKind.id && one.reversed === way.reversed);
  // A group of which nothing can be linked so would be an item of nothing.
  const isLeft = (at: number) => left.has(at) || !groups[at]!.items.some((item) => may(item.kind));
  const taken = groups.flatMap((group, at) => (isLeft(at) ? [] : [{ ...group, title: titles[at]!.trim() }]));
  const all = taken.flatMap(({ items }) => items);
  const linked = all.filter((item) => may(item.kind));
  const label = scheme.kinds.find(({ id }) => id === kind);
  const flip = (at: number) => {
    const next = new Set(left);
    if (!next.delete(at)) next.add(at);
    setLeft(next);
  };
  return (
    <AskDialog
      title="Make items of the groups"
      wide
      says={
        way
          ? `${counted(taken.length, 'item')} will be made, with ${counted(linked.length, 'link')}: one change, one undo.${place === 'set' ? ` Each stands in a collection of its own, in the new set; nothing else is moved.` : ''}${
              all.length > linked.length ? ` ${figure(all.length - linked.length)} in the groups may not be linked so and are left out.` : ''
            }`
          : 'No kind of link joins what is in the groups with such an item.'
      }
      verb="Make them"
      busy={make.isPending}
      disabled={!way || linked.length === 0 || taken.some(({ title }) => title === '') || (place === 'set' && set.trim() === '')}
      onDo={() =>
        make.mutate(
          {
            ...{ kind, linkKind: way!.linkKind.id, reversed: way!.reversed, dryRun: false },
            ...(place === 'set' && { set: set.trim() }),
            groups: taken.map(({ title, items }) => ({ title, items: items.map(({ id }) => id) })),
          },
          { onSuccess: onClose },
        )
      }
      onClose={onClose}
    >
      <Flex gap="2">
        <Choice
          label="Kind of the new items"
          value={kind}
          width="100%"
          options={kinds.map(({ id, label: name }) => ({ value: id, label: name }))}
          onChange={setKind}
        />
        <Choice
          label="How they are linked"
          value={way ? `${way.linkKind.id} ${way.reversed}` : ''}
          width="100%"
          options={[...ways].map(([value, { linkKind, reversed }]) => ({
            value,
            label: `what is in it ${phraseAt(linkKind, reversed ? 'to' : 'from')} the ${label?.label.toLowerCase() ?? 'item'}`,
          }))}
          onChange={setChosen}
        />
      </Flex>
      <Flex gap="2">
        <Choice
          label="Where the new items stand"
          value={place}
          width="100%"
          options={[
            { value: 'home', label: 'where such items stand' },
            { value: 'set', label: 'each in a collection of its own, in a new set' },
          ]}
          onChange={(value) => setPlace(value as 'home')}
        />
        {place === 'set' && <Input size="xs" aria-label="Name of the set" value={set} maxLength={120} onChange={(event) => setSet(event.target.value)} />}
      </Flex>
      <Box maxH="300px" overflowY="auto">
        {groups.map(({ items }, at) => (
          <Flex key={at} align="center" gap="2" py="0.5">
            <Checkbox.Root size="sm" checked={!isLeft(at)} onCheckedChange={() => flip(at)} aria-label={`Take group ${at + 1}`}>
              <Checkbox.HiddenInput aria-label={`Take group ${at + 1}`} />
              <Checkbox.Control />
            </Checkbox.Root>
            <Input
              size="2xs"
              aria-label={`Name of group ${at + 1}`}
              value={titles[at]}
              disabled={isLeft(at)}
              maxLength={500}
              onChange={(event) => setTitles(titles.map((title, place) => (place === at ? event.target.value : title)))}
            />
            <Box fontSize="12.5px" color="fg.muted" whiteSpace="nowrap">
              {counted(items.length, 'item')}
            </Box>
          </Flex>
        ))}
      </Box>
    </AskDialog>
  );
}
