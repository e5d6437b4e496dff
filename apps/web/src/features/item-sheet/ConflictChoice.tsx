import { Box, Button, Flex } from '@chakra-ui/react';
import type { EditConflicts } from '@coomb/contract';
import { useEffect, useRef, useState } from 'react';
import { RichText } from '../../shared/ui/rich-text';

type Side = 'mine' | 'theirs';
type Value = EditConflicts['conflicts'][number]['mine'];

/** What two people said of the same at once, side by side: which of both holds, field by field. Everything else of both goes together by itself. */
export function ConflictChoice({ clash, onSettle, storing }: { clash: EditConflicts; onSettle: (fields: Record<string, Side>) => void; storing: boolean }) {
  const [chosen, setChosen] = useState<Record<string, Side>>({});
  const frame = useRef<HTMLDivElement>(null);
  // It comes up below a long text, perhaps out of sight.
  useEffect(() => frame.current?.scrollIntoView({ block: 'center' }), []);
  const open = clash.conflicts.filter(({ field }) => chosen[field] === undefined).length;
  return (
    <Box ref={frame} role="alert" aria-label="Changed by two at once" borderLeftWidth="4px" borderColor="brick.solid" bg="bg.subtle" px="3" py="2" my="2">
      <Box fontWeight="600" mb="1">
        {clash.by} changed the same while you did. Which holds?
      </Box>
      {clash.conflicts.map((conflict) => (
        <Box key={conflict.field} py="1.5" borderTopWidth="1px">
          <Box fontSize="13px" color="fg.muted" mb="1">
            {conflict.label}
          </Box>
          <Flex gap="2" role="radiogroup" aria-label={conflict.label} direction={{ base: 'column', md: 'row' }}>
            {(['mine', 'theirs'] as const).map((side) => (
              <Version
                key={side}
                name={side === 'mine' ? 'Yours' : `By ${clash.by}`}
                value={conflict[side]}
                chosen={chosen[conflict.field] === side}
                onChoose={() => setChosen({ ...chosen, [conflict.field]: side })}
              />
            ))}
          </Flex>
        </Box>
      ))}
      <Flex gap="2" mt="2" align="center">
        <Button size="xs" disabled={open > 0} loading={storing} onClick={() => onSettle(chosen)}>
          Save what holds
        </Button>
        <Box fontSize="12.5px" color="fg.muted">
          {open > 0 ? 'Choose a side for each.' : 'The other version stays in the history of the item.'}
        </Box>
      </Flex>
    </Box>
  );
}

function Version({ name, value, chosen, onChoose }: { name: string; value: Value; chosen: boolean; onChoose: () => void }) {
  return (
    <Box
      asChild
      flex="1"
      minW="0"
      textAlign="left"
      p="2"
      borderWidth="2px"
      borderColor={chosen ? 'moss.solid' : 'border'}
      bg={chosen ? 'moss.subtle' : 'bg.panel'}
    >
      <button type="button" role="radio" aria-checked={chosen} onClick={onChoose}>
        <Box fontSize="12.5px" fontWeight="600" mb="0.5">
          {name}
        </Box>
        {typeof value === 'string' && value.startsWith('<') ? <RichText className="rich" html={value} /> : <Box dir="auto">{say(value)}</Box>}
      </button>
    </Box>
  );
}

function say(value: Value): string {
  if (value === null || value === '') return 'empty';
  return Array.isArray(value) ? value.join(', ') : value === true ? 'yes' : value === false ? 'no' : String(value);
}
