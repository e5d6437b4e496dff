import { Box, type BoxProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props extends Omit<BoxProps, 'title' | 'children'> {
  /** What stands there, whole: said by a tooltip too, for there may be no room for all of it. */
  text: string;
  /** The same, where parts of it look different. */
  children?: ReactNode;
}

/** One line of text, in its own direction; what does not fit is cut, never silently. */
export function OneLine({ text, children, ...box }: Props) {
  return (
    <Box truncate dir="auto" title={text} {...box}>
      {children ?? text}
    </Box>
  );
}
