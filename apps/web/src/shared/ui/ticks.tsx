import { Box, Checkbox, Flex } from '@chakra-ui/react';

interface TicksProps {
  title: string;
  options: readonly { id: string; label: string }[];
  chosen: readonly string[];
  onFlip: (id: string) => void;
}

/** Some of a few, by ticking them. */
export function Ticks({ title, options, chosen, onFlip }: TicksProps) {
  return (
    <Flex direction="column" gap="0.5" role="group" aria-label={title}>
      <Box color="fg.muted" fontSize="12px">
        {title}
      </Box>
      {options.map(({ id, label }) => (
        <Checkbox.Root key={id} size="sm" checked={chosen.includes(id)} onCheckedChange={() => onFlip(id)}>
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">{label}</Checkbox.Label>
        </Checkbox.Root>
      ))}
    </Flex>
  );
}
