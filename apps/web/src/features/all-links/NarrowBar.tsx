import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { LinkFilter, linkStates, queryLinks, ReplyOf } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { useNames } from './use-names';

type Counts = ReplyOf<typeof queryLinks>['counts'];
const stateLabels: Record<(typeof linkStates)[number], string> = {
  all: 'in any state',
  suspect: 'suspect',
  sound: 'not suspect',
  withdrawn: 'at what is withdrawn',
  inUse: 'in one use only',
};

/** What is chosen is offered even where no link is left that has it. */
const withChosen = (counts: Counts['kind'], chosen: string) =>
  chosen && !counts.some(({ id }) => id === chosen) ? [{ id: chosen, count: 0 }, ...counts] : counts;

const listOf = (value: string) => (value ? [value] : []);

/** What narrows the list: a sentence of choices, each with how many links it would leave. */
export function NarrowBar({ filter, counts, onNarrow }: { filter: LinkFilter; counts: Counts; onNarrow: (change: Partial<LinkFilter>) => void }) {
  const { collections } = useProject();
  const names = useNames();
  const choices = (of: Counts['kind'], all: string, say: (id: string) => string) => [
    { value: '', label: all },
    ...of.map(({ id, count }) => ({ value: id, label: `${say(id)} (${figure(count)})` })),
  ];
  const sides = (label: string) => [{ value: '', label }, ...collections.map(({ id, name }) => ({ value: id, label: name }))];
  const countOf = (id: string) => counts.state.find((one) => one.id === id)?.count ?? 0;
  const isNarrow = Object.entries(filter).some(([part, value]) => value.length > 0 && !(part === 'state' && value === 'all'));
  return (
    <Flex align="center" gap="1.5" px="4" py="1.5" wrap="wrap" borderBottomWidth="1px" fontSize="13px" color="fg.muted" flexShrink={0}>
      Links that
      <Choice
        label="Kind of link"
        value={filter.kind.join()}
        options={choices(counts.kind, 'read in any way', names.phrase)}
        onChange={(kind) => onNarrow({ kind: listOf(kind) })}
        width="8.8rem"
      />
      <Choice
        label="Layers"
        value={filter.layers}
        options={choices(counts.layers, 'between any layers', names.layers)}
        onChange={(layers) => onNarrow({ layers })}
        width="9.6rem"
      />
      <Choice
        label="One end in"
        value={filter.left.join()}
        options={sides('in any collection')}
        onChange={(left) => onNarrow({ left: listOf(left) })}
        width="8.6rem"
      />
      <Choice
        label="Other end in"
        value={filter.right.join()}
        options={sides('and any other')}
        onChange={(right) => onNarrow({ right: listOf(right) })}
        width="8.6rem"
      />
      <Choice
        label="State"
        value={filter.state}
        options={(Object.keys(stateLabels) as (keyof typeof stateLabels)[]).map((value) => ({
          value,
          label: value === 'all' ? stateLabels.all : `${stateLabels[value]} (${figure(countOf(value))})`,
        }))}
        onChange={(state) => onNarrow({ state: state as LinkFilter['state'] })}
        width="7.6rem"
      />
      <Choice
        label="Origin"
        value={filter.origin.join()}
        options={choices(counts.origin, 'of any origin', names.origin)}
        onChange={(origin) => onNarrow({ origin: listOf(origin) })}
        width="7.6rem"
      />
      <Choice
        label="Confirmed by"
        value={filter.person}
        options={choices(counts.person, 'by anybody', (name) => name)}
        onChange={(person) => onNarrow({ person })}
        width="7.4rem"
      />
      {(counts.use.length > 0 || filter.use) && (
        <Choice
          label="In use"
          value={filter.use}
          options={choices(withChosen(counts.use, filter.use), 'in whatever use', (use) => use)}
          onChange={(use) => onNarrow({ use })}
          width="8.2rem"
        />
      )}
      <Choice
        label="Field of an end"
        value={filter.field}
        options={[{ value: '', label: 'whatever ends say' }, ...names.fields.map(({ id, label }) => ({ value: id, label: `whose ${label} is` }))]}
        onChange={(field) => onNarrow({ field, value: '' })}
        width="9rem"
      />
      {filter.field && (
        <Choice
          label="Value of the field"
          value={filter.value}
          options={choices(withChosen(counts.value, filter.value), 'anything', (value) => value)}
          onChange={(value) => onNarrow({ value })}
          width="8rem"
        />
      )}
      since
      <Input
        size="2xs"
        type="date"
        w="8.6rem"
        value={filter.after}
        onChange={(event) => onNarrow({ after: event.target.value })}
        aria-label="Confirmed since"
      />
      <Box flex="1" />
      {isNarrow && (
        <Button
          size="2xs"
          variant="ghost"
          onClick={() =>
            onNarrow({
              kind: [],
              layers: '',
              left: [],
              right: [],
              state: 'all',
              origin: [],
              person: '',
              words: '',
              use: '',
              field: '',
              value: '',
              after: '',
              before: '',
            })
          }
        >
          All links
        </Button>
      )}
    </Flex>
  );
}
