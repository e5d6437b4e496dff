import { Box, Button, Flex } from '@chakra-ui/react';
import type { SchemeEdit } from '@coomb/contract';
import { labelOf, type SchemePart, sortWords } from '@coomb/core';
import { nameOf } from './scheme-draft';

/** What is in use no more, to be taken back. */
export function Retired({ parts, onChoose, onBack }: { parts: readonly SchemeEdit[]; onChoose: (part: string) => void; onBack: (part: SchemeEdit) => void }) {
  const retired = parts.filter((part) => part.retired);
  if (retired.length === 0) return null;
  return (
    <Flex px="3" py="3" gap="2" wrap="wrap" align="center" fontSize="13px" borderTopWidth="1px">
      <Box color="fg.muted">In use no more:</Box>
      {retired.map((part) => (
        <Button
          key={nameOf(part)}
          size="2xs"
          variant="outline"
          onClick={() => (part.sort === 'field' ? onBack({ ...part, retired: false }) : onChoose(nameOf(part)))}
          {...(part.sort === 'field' && { title: 'Take the field back in use' })}
        >
          {sortWords[part.sort].one} {labelOf(part as SchemePart)}
        </Button>
      ))}
    </Flex>
  );
}
