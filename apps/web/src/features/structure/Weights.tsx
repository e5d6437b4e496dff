import { Box, Button, Flex, Input, Popover, Portal } from '@chakra-ui/react';
import { Scale } from 'lucide-react';
import { readWeights, weighedBy, writeWeights } from './address';

interface Props {
  /** What each mark says. */
  phrases: readonly string[];
  /** Fields of the kinds of link that are marked, which hold numbers. */
  fields: readonly { id: string; label: string }[];
  weights: string;
  onChange: (weights: string) => void;
}

/** How much a dependency of each kind weighs; one, where nothing is said. What weighs nothing is no dependency. */
export function Weights({ phrases, fields, weights, onChange }: Props) {
  const read = readWeights(weights);
  const by = weighedBy(weights);
  const set = (mark: number, value: string) => {
    const weight = Number(value);
    if (value.trim() !== '' && Number.isFinite(weight) && weight >= 0 && weight <= 1000) onChange(writeWeights(new Map(read).set(mark, weight)));
  };
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
      <Popover.Trigger asChild>
        <Button size="xs" variant="outline">
          <Scale size={13} />{' '}
          {weights === 'once' ? 'each pair once' : by ? `by ${fields.find(({ id }) => id === by)?.label ?? 'a field'}` : read.size > 0 ? 'weighed' : 'counted'}
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="320px" borderWidth="1px" aria-label="Weights of dependencies">
            <Popover.Body p="3" fontSize="13px" display="flex" flexDirection="column" gap="1.5">
              {phrases.map((phrase, mark) => (
                <Flex key={phrase} align="center" gap="2">
                  <Box flex="1" minW="0" truncate title={phrase}>
                    {phrase}
                  </Box>
                  <Input
                    size="2xs"
                    w="5rem"
                    type="number"
                    min="0"
                    step="0.5"
                    aria-label={`Weight of: ${phrase}`}
                    value={read.get(mark) ?? 1}
                    onChange={(event) => set(mark, event.target.value)}
                  />
                </Flex>
              ))}
              <Flex gap="1.5" wrap="wrap">
                <Button size="2xs" variant="outline" onClick={() => onChange('')}>
                  Count each
                </Button>
                <Button size="2xs" variant="outline" onClick={() => onChange('once')} title="However many links join two things, they weigh one">
                  Each pair once
                </Button>
                {fields.map(({ id, label }) => (
                  <Button key={id} size="2xs" variant="outline" onClick={() => onChange(`field:${id}`)} title="Links that say nothing there weigh one">
                    By {label}
                  </Button>
                ))}
              </Flex>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
