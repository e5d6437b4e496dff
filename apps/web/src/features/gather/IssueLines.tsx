import { Box, Button, Flex } from '@chakra-ui/react';
import type { Issue } from '@coomb/core';
import { CircleAlert, Info, TriangleAlert } from 'lucide-react';
import { useMemo, useState } from 'react';

const looks = {
  error: { icon: CircleAlert, colour: 'brick.fg' },
  warning: { icon: TriangleAlert, colour: 'fg.warning' },
  note: { icon: Info, colour: 'fg.muted' },
};
const STEP = 200;
const ORDER = { error: 0, warning: 1, note: 2 };

/** A line for everything that was doubtful or skipped: what, where in the file, what was done; the worst first. */
export function IssueLines({ issues, onShow }: { issues: readonly Issue[]; onShow?: (issue: Issue) => void }) {
  const [shown, setShown] = useState(STEP);
  const sorted = useMemo(() => issues.toSorted((a, b) => ORDER[a.severity] - ORDER[b.severity]), [issues]);
  return (
    <Box fontSize="13px">
      {sorted.slice(0, shown).map((issue, index) => {
        const { icon: Icon, colour } = looks[issue.severity];
        return (
          <Flex key={`${issue.at}${index}`} gap="2" py="0.5" align="baseline" cursor={onShow ? 'pointer' : undefined} onClick={() => onShow?.(issue)}>
            <Box color={colour} alignSelf="center" title={issue.severity}>
              <Icon size={12} />
            </Box>
            <Box fontFamily="mono" fontSize="11.5px" color="fg.muted" flexShrink={0} minW="94px">
              {issue.at}
            </Box>
            <Box>{issue.message}</Box>
          </Flex>
        );
      })}
      {issues.length > shown && (
        <Button size="2xs" variant="outline" my="1" onClick={() => setShown(shown + STEP)}>
          Show {Math.min(STEP, issues.length - shown)} of {issues.length - shown} more
        </Button>
      )}
    </Box>
  );
}
