import { Box, Flex } from '@chakra-ui/react';
import { useOthersAt, useSayWhere } from '../../shared/live/presence';
import { PersonMark } from '../../shared/ui/person-mark';

/** Who else is in this item now. */
export function HereToo({ project, item, writing }: { project: string; item: string; writing: boolean }) {
  useSayWhere(project, item, writing);
  const others = useOthersAt(item);
  if (others.length === 0) return null;
  return (
    <Flex gap="2" align="center" wrap="wrap" fontSize="12.5px" color="fg.muted" py="1" role="status">
      {others.map(({ name, writes }) => (
        <Flex key={name} gap="1" align="center">
          <PersonMark name={name} />
          <Box>
            {name} {writes ? 'is writing here' : 'is here too'}
          </Box>
        </Flex>
      ))}
    </Flex>
  );
}
