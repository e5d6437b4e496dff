import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import type { SchemeEdit } from '@coomb/contract';
import { counted, sortWords } from '@coomb/core';
import { useMemo, useState } from 'react';
import { Tick } from './form-parts';
import type { Comparison } from './queries';

interface Props {
  name: string;
  comparison: Comparison;
  onTake: (edits: SchemeEdit[]) => void;
  onLeave: () => void;
}

type Entry = Comparison['entries'][number];
const nameOf = ({ sort, key }: Pick<Entry, 'sort' | 'key'>) => `${sort} ${key}`;

/** The scheme of a file beside the project's: what is new in it, what it says otherwise, and what to take over of it. */
export function SchemeComparison({ name, comparison, onTake, onLeave }: Props) {
  const differing = comparison.entries.filter((entry) => entry.state !== 'same');
  const [taken, setTaken] = useState<ReadonlySet<string>>(() => new Set(differing.filter((entry) => entry.state === 'new').map(nameOf)));
  // What is taken brings what it names.
  const whole = useMemo(() => {
    const all = new Set(taken);
    for (const entry of comparison.entries) if (taken.has(nameOf(entry))) for (const need of entry.needs) all.add(need);
    return all;
  }, [taken, comparison]);
  const same = comparison.entries.length - differing.length;
  const set = (names: readonly string[], on: boolean) =>
    setTaken((before) => {
      const next = new Set(before);
      for (const one of names)
        if (on) next.add(one);
        else next.delete(one);
      return next;
    });
  const chosen = comparison.entries.filter((entry) => whole.has(nameOf(entry)) && entry.state !== 'same');
  return (
    <Box px="4" py="3">
      <Flex align="baseline" gap="2" mb="1">
        <Heading as="h2" fontSize="16px" flex="1" minW="0" overflowWrap="anywhere">
          {name}
        </Heading>
        <Button size="2xs" variant="ghost" onClick={onLeave}>
          Close
        </Button>
      </Flex>
      <Box color="fg.muted" fontSize="13px" mb="2">
        {differing.length === 0 ? 'Says the same as the scheme of this project.' : `${counted(differing.length, 'part')} new or different, ${same} the same.`}
        {comparison.onlyHere.length > 0 &&
          ` ${counted(comparison.onlyHere.length, 'part')} only here ${comparison.onlyHere.length === 1 ? 'stays' : 'stay'} as they are.`.replace(
            '1 part only here stays as they are',
            '1 part only here stays as it is',
          )}
      </Box>
      {(['new', 'changed'] as const).map((state) => {
        const entries = differing.filter((entry) => entry.state === state);
        if (entries.length === 0) return null;
        const names = entries.map(nameOf);
        return (
          <Box key={state} mb="3">
            <Flex align="baseline" gap="2" py="1">
              <Box fontWeight="600" fontSize="13px" flex="1">
                {state === 'new' ? 'New in the file' : 'Said otherwise in the file'}
              </Box>
              <Button size="2xs" variant="ghost" onClick={() => set(names, true)}>
                Take all
              </Button>
              <Button size="2xs" variant="ghost" onClick={() => set(names, false)}>
                Leave all
              </Button>
            </Flex>
            {entries.map((entry) => (
              <Line
                key={nameOf(entry)}
                entry={entry}
                taken={taken.has(nameOf(entry))}
                needed={!taken.has(nameOf(entry)) && whole.has(nameOf(entry))}
                onTake={(on) => set([nameOf(entry)], on)}
              />
            ))}
          </Box>
        );
      })}
      <Button size="xs" disabled={chosen.length === 0} onClick={() => onTake(chosen.map((entry) => entry.edit))}>
        Take {counted(chosen.length, 'part')} over
      </Button>
      <Box color="fg.muted" fontSize="12.5px" mt="1">
        Nothing is changed yet: what it would do is shown before you keep it.
      </Box>
    </Box>
  );
}

function Line({ entry, taken, needed, onTake }: { entry: Entry; taken: boolean; needed: boolean; onTake: (on: boolean) => void }) {
  return (
    <Box borderTopWidth="1px" py="1">
      <Tick label={`${sortWords[entry.sort].one}: ${entry.label}${needed ? ' (needed by what is taken)' : ''}`} checked={taken || needed} onChange={onTake} />
      {entry.state === 'changed' && (
        <Box pl="6" fontSize="12.5px" color="fg.muted">
          {entry.facts.map((fact) => (
            <Box key={fact.name}>
              {fact.name}: {fact.before || 'nothing'} → {fact.after || 'nothing'}
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
