import { Box, Button } from '@chakra-ui/react';
import { Link, useRouteError } from 'react-router';
import { EmptyState } from '../shared/ui/feedback';

/** Shown when a page cannot be shown at all: an address that leads nowhere, or a fault. */
export function Broken() {
  const error = useRouteError();
  const missing = typeof error === 'object' && error !== null && 'status' in error && error.status === 404;
  return (
    <Box as="main">
      <EmptyState
        alone
        title={missing ? 'There is nothing at this address' : 'This page could not be shown'}
        action={
          <Button asChild size="sm">
            <Link to="/">To the projects</Link>
          </Button>
        }
      >
        {error instanceof Error ? error.message : 'Go back, or begin at the list of projects. Nothing of your work is lost.'}
      </EmptyState>
    </Box>
  );
}
