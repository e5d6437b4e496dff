import { Flex } from '@chakra-ui/react';
import { listPersons } from '@coomb/contract';
import { buildInitials, type personColours } from '@coomb/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/client';

type Colour = (typeof personColours)[number];
const LOOKS: Record<Colour, { bg: string; fg: string }> = {
  moss: { bg: '#4a6a2e', fg: '#ffffff' },
  slate: { bg: '#4f627a', fg: '#ffffff' },
  heather: { bg: '#6b4a77', fg: '#ffffff' },
  ochre: { bg: '#7a5710', fg: '#ffffff' },
  brick: { bg: '#8f3424', fg: '#ffffff' },
  teal: { bg: '#2c6660', fg: '#ffffff' },
  plum: { bg: '#7d3f5b', fg: '#ffffff' },
  sand: { bg: '#d9d1bd', fg: '#23241f' },
};

export function usePersons() {
  return useQuery({ queryKey: ['persons'], queryFn: () => call(listPersons), staleTime: 60_000 });
}

/** Initials of a person on their colour. */
export function PersonMark({ name }: { name: string }) {
  const person = usePersons().data?.find((one) => one.name === name);
  const { bg, fg } = LOOKS[(person?.colour as Colour | undefined) ?? 'sand'] ?? LOOKS.sand;
  return (
    <Flex
      as="span"
      display="inline-flex"
      w="20px"
      h="20px"
      borderRadius="full"
      align="center"
      justify="center"
      fontSize="10px"
      fontWeight="650"
      letterSpacing="0"
      flexShrink={0}
      style={{ background: bg, color: fg }}
      title={name}
      aria-hidden="true"
    >
      {person?.initials || buildInitials(name)}
    </Flex>
  );
}
