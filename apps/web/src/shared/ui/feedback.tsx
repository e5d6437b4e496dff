import { Box, Button, Flex, Heading, Spinner, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export function Loading({ what }: { what: string }) {
  return (
    <Flex align="center" justify="center" gap="3" p="8" color="fg.muted" role="status">
      <Spinner size="sm" /> Loading {what}…
    </Flex>
  );
}

/** Says what happened and what to do; never hides what is still there. */
export function ErrorNote({ error, retry }: { error: unknown; retry?: (() => void) | undefined }) {
  return (
    <Flex role="alert" gap="3" align="center" bg="brick.subtle" color="brick.fg" borderLeftWidth="4px" borderColor="brick.solid" px="4" py="2.5" my="2">
      <Text flex="1" whiteSpace="pre-line">
        {error instanceof Error ? error.message : String(error)}
      </Text>
      {retry && (
        <Button size="xs" variant="outline" colorPalette="brick" onClick={retry}>
          Try again
        </Button>
      )}
    </Flex>
  );
}

/** `alone` where it is all that the view shows: then it says what the view is. */
export function EmptyState({ title, children, action, alone = false }: { title: string; children?: ReactNode; action?: ReactNode; alone?: boolean }) {
  return (
    <Box textAlign="center" py="14" px="6" maxW="34rem" mx="auto">
      <svg viewBox="0 0 120 44" width="120" height="44" aria-hidden="true" style={{ margin: '0 auto 14px' }}>
        <path d="M2 8c26 0 34 22 58 22S92 8 118 8" fill="none" stroke="var(--chakra-colors-moss-border)" strokeWidth="3" />
        <path d="M2 20c26 0 34 18 58 18s32-18 58-18" fill="none" stroke="var(--chakra-colors-border-emphasized)" strokeWidth="2" strokeDasharray="4 5" />
      </svg>
      <Heading as={alone ? 'h1' : 'h2'} size="md" fontWeight="600" mb="2">
        {title}
      </Heading>
      <Box color="fg.muted">{children}</Box>
      {action && <Box mt="5">{action}</Box>}
    </Box>
  );
}
