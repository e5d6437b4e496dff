import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { useRoom } from './use-room';
import { useView } from '../view';
import { useWindowTitle } from './window-title';

/** A page below the frame: its title is that of its view unless it says another; a quiet heading line with what can be done at its right, then the content, which scrolls by itself. */
export function Page({
  title: own,
  lead,
  actions,
  children,
  fill = false,
}: {
  title?: string;
  lead?: ReactNode;
  actions?: ReactNode;
  children?: ReactNode;
  fill?: boolean;
}) {
  const view = useView();
  const title = own ?? view?.name ?? '';
  const room = useRoom();
  useWindowTitle(title);
  return (
    <Flex direction="column" h="100%" minH="0">
      <Flex
        align="baseline"
        columnGap="4"
        rowGap="1"
        px={{ base: '3', md: '6' }}
        pt={{ base: '1.5', lg: '3' }}
        pb={{ base: '1', lg: '2' }}
        flexShrink={0}
        wrap="wrap"
      >
        <Heading as="h1" {...(fill && actions && room.low && { srOnly: true })} fontSize={{ base: '16px', lg: '19px' }} fontWeight="650" lineHeight="1.3">
          {title}
        </Heading>
        {lead && (
          <Text color="fg.muted" fontSize="13px" flex="1 1 0" minW="14rem" display={{ base: fill ? 'none' : 'block', lg: 'block' }}>
            {lead}
          </Text>
        )}
        {actions && (
          <Flex gap={{ base: '1', lg: '2' }} align="center" ml="auto" wrap="wrap" css={{ '& select': { maxWidth: { base: '8.5rem', lg: 'none' } } }}>
            {actions}
          </Flex>
        )}
      </Flex>
      <Box flex="1" minH="0" overflow={fill ? 'hidden' : 'auto'} px={fill ? '0' : { base: '3', md: '6' }} pb={fill ? '0' : '6'}>
        {children}
      </Box>
    </Flex>
  );
}
