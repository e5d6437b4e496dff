import { Box } from '@chakra-ui/react';
import type { Issue } from '@coomb/core';
import { IssueLines } from './IssueLines';

/** Below an outline: a line for everything that was doubtful or skipped. Nothing when there is nothing to say. */
export function RemarksPanel({ issues, beside = false, onShow }: { issues: readonly Issue[]; beside?: boolean; onShow?: (issue: Issue) => void }) {
  if (issues.length === 0) return null;
  const place = beside ? { w: '40%', borderLeftWidth: '1px' } : { maxH: '35%', borderTopWidth: '1px' };
  return (
    <Box {...place} overflow="auto" px="3" py="1.5" bg="bg.subtle" role="region" aria-label="Remarks">
      <IssueLines issues={issues} {...(onShow && { onShow })} />
    </Box>
  );
}
