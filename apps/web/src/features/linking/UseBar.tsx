import { Box, Flex } from '@chakra-ui/react';
import { counted } from '@coomb/core';
import { Choice } from '../../shared/ui/choice';
import type { UseLine } from './use-lines';

interface Props {
  reference: string;
  uses: readonly UseLine[];
  /** Place of the use that is looked at, one more; 0 for every one. */
  at: number;
  /** Links that hold in other uses only. */
  elsewhere?: number;
  onChoose: (at: number) => void;
}

/** In which use of an item one looks and links: at the foot of what shows it, so that nothing moves. */
export function UseBar({ reference, uses, at, elsewhere = 0, onChoose }: Props) {
  return (
    <Flex position="absolute" bottom="0" insetX="0" gap="2" align="center" px="3" py="1" bg="bg.panel" borderTopWidth="1px" fontSize="12.5px">
      <Box fontFamily="mono" color="moss.fg" flexShrink={0}>
        {reference}
      </Box>
      <Choice
        label={`Use of ${reference}`}
        value={String(at)}
        options={[{ value: '0', label: 'in every use' }, ...uses.map(({ says }, index) => ({ value: String(index + 1), label: `in ${says} only` }))]}
        onChange={(value) => onChoose(Number(value))}
        width="100%"
      />
      {elsewhere > 0 && (
        <Box color="heather.fg" flexShrink={0}>
          not linked here: {counted(elsewhere, 'link')}
        </Box>
      )}
    </Flex>
  );
}
