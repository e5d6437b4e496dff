import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface Figure {
  label: string;
  /** What it is now; and before, where there is a proposal to compare it with. */
  now: ReactNode;
  before?: ReactNode;
  /** What it means, told when pointed at. */
  title?: string;
}

/** Figures one below the other, with what they were before in front. */
export function Figures({ figures }: { figures: readonly Figure[] }) {
  return (
    <Box as="dl" fontSize="13px">
      {figures.map(({ label, now, before, title }) => (
        <Flex key={label} gap="2" py="0.5" borderBottomWidth="1px" borderColor="border.muted" title={title}>
          <Box as="dt" flex="1" color="fg.muted">
            {label}
          </Box>
          <Box as="dd" fontVariantNumeric="tabular-nums">
            {before !== undefined && (
              <Box as="span" color="fg.muted">
                {before} →{' '}
              </Box>
            )}
            <b>{now}</b>
          </Box>
        </Flex>
      ))}
    </Box>
  );
}
