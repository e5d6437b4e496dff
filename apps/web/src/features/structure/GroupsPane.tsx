import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { alignGroups, counted, describeGroups, figure, numberGroups, readStructure } from '@coomb/core';
import { useMemo, useState } from 'react';
import { Choice } from '../../shared/ui/choice';
import { Figures } from './Figures';
import { type MadeGroup, MakeGroups } from './MakeGroups';
import type { Structure } from './things';

interface Props {
  structure: Structure;
  /** Group of each thing; -1 for what stands apart. */
  group: Int32Array;
  shared: readonly number[];
  /** Bits of one group for all, where that is less than what these take. */
  better: number | undefined;
  /** Thing that one stands on. */
  thing: number;
  /** Things whose group was changed by hand. */
  byHand: number;
  onMove: (thing: number, group: number) => void;
  onReset: () => void;
  onShow: (thing: number) => void;
  onKeep: (name: string) => void;
  onLenses: () => void;
  /** Items that are folded into some things. */
  itemsOf: (list: readonly number[]) => MadeGroup['items'];
}

/** Groups that are proposed: what they make of the figures, what would move from where, and what becomes of it by hand. */
export function GroupsPane({ structure, group, shared, better, thing, byHand, onMove, onReset, onShow, onKeep, onLenses, itemsOf }: Props) {
  const { things, edges, ties, today, todayNames } = structure;
  const [name, setName] = useState('');
  const numbered = useMemo(() => numberGroups(group), [group]);
  const figures = useMemo(() => {
    const [before, now] = [readStructure(edges, today), readStructure(edges, numbered.group)];
    return { before, now, bitsBefore: describeGroups(ties, today), bitsNow: describeGroups(ties, numbered.group) };
  }, [edges, ties, today, numbered]);
  const { today: from, moves } = useMemo(() => alignGroups(today, numbered.group, numbered.count), [today, numbered]);
  const moved = new Set(moves);
  const members: number[][] = Array.from({ length: numbered.count }, () => []);
  numbered.group.forEach((one, at) => members[one]!.push(at));
  const isApart = (one: number) => group[members[one]![0]!] === -1;
  const nameOf = (one: number) => (isApart(one) ? 'Apart, used by all' : from[one]! >= 0 ? todayNames[from[one]!]! : `New group ${one + 1}`);
  const { before, now } = figures;
  const kilo = (bits: number) => `${(bits / 1000).toFixed(1)}k`;
  return (
    <>
      <Figures
        figures={[
          { label: 'Groups', before: figure(before.groups), now: figure(now.groups) },
          {
            label: 'Bits to describe it',
            before: kilo(figures.bitsBefore),
            now: kilo(figures.bitsNow),
            title: 'What it takes to say which thing is in which group and then what is tied: the fewer, the more the groups explain',
          },
          { label: 'Dependencies across groups', before: figure(before.across), now: figure(now.across) },
          { label: 'Groups in cycles', before: figure(before.inCycles), now: figure(now.inCycles) },
          {
            label: 'Propagation',
            before: percent(before.propagation),
            now: percent(now.propagation),
            title: 'Share of the pairs of groups of which one reaches the other by dependencies',
          },
          { label: 'Would move', now: counted(moves.length, 'thing') },
        ]}
      />
      {better !== undefined && (
        <Box fontSize="13px" color="fg.warning" mt="1">
          The dependencies do not tell these groups apart: one group for all takes {kilo(better)} bits. Take them as a hint, or fold further.
        </Box>
      )}
      {shared.length > 0 && (
        <Box fontSize="13px" color="fg.muted" mt="1">
          {counted(shared.length, 'thing')} that so many others use stand apart.
        </Box>
      )}
      <Flex gap="1.5" mt="2" align="center" wrap="wrap">
        <Box fontSize="13px" color="fg.muted">
          {things[thing]!.name || things[thing]!.title} into
        </Box>
        <Choice
          label="Move the thing to a group"
          value={String(group[thing])}
          options={[
            ...members.map((one, at) => ({ value: String(group[one[0]!]), label: `${nameOf(at)} (${one.length})` })),
            { value: 'new', label: 'a group of its own' },
          ]}
          onChange={(value) => onMove(thing, value === 'new' ? Math.max(...group) + 1 : Number(value))}
        />
        {byHand > 0 && (
          <Button size="2xs" variant="ghost" onClick={onReset}>
            Take {counted(byHand, 'move')} back
          </Button>
        )}
      </Flex>
      <Flex asChild gap="1.5" mt="2">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) onKeep(name.trim());
            setName('');
          }}
        >
          <Input
            size="xs"
            aria-label="Name of the proposal"
            placeholder="Keep the proposal as…"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button size="xs" type="submit" variant="outline" disabled={!name.trim()}>
            Keep
          </Button>
          <Button size="xs" variant="outline" onClick={onLenses} title="A lens for each group, of its things">
            As lenses
          </Button>
        </form>
      </Flex>
      <Box mt="1.5">
        <MakeGroups
          groups={() => members.map((list, at) => ({ title: nameOf(at), items: itemsOf(list) })).filter(({ items }, at) => items.length > 0 && !isApart(at))}
        />
      </Box>
      {members
        .map((list, at) => ({ list, at }))
        .toSorted((a, b) => b.list.length - a.list.length)
        .map(({ list, at }) => (
          <Box key={at} mt="3" fontSize="13px">
            <Box fontWeight="600">
              {nameOf(at)}{' '}
              <Box as="span" color="fg.muted" fontWeight="400">
                {counted(list.length, 'thing')}
                {list.some((one) => moved.has(one)) && `, ${figure(list.filter((one) => moved.has(one)).length)} would come`}
              </Box>
            </Box>
            {list.slice(0, 200).map((one) => (
              <Flex
                asChild
                key={one}
                w="100%"
                textAlign="left"
                gap="1.5"
                px="1"
                borderRadius="l1"
                bg={one === thing ? 'moss.subtle' : undefined}
                _hover={{ bg: 'bg.subtle' }}
              >
                <button type="button" onClick={() => onShow(one)}>
                  <Box flex="1" minW="0" truncate title={`${things[one]!.name} ${things[one]!.title}`}>
                    {things[one]!.name} {things[one]!.title}
                  </Box>
                  {moved.has(one) && (
                    <Box color="heather.fg" flexShrink={0} maxW="45%" truncate title={`from ${todayNames[today[one]!]}`}>
                      from {todayNames[today[one]!]}
                    </Box>
                  )}
                </button>
              </Flex>
            ))}
          </Box>
        ))}
    </>
  );
}

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
