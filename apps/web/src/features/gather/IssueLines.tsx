import { Box, Flex } from '@chakra-ui/react';
import type { Issue } from '@coomb/core';
import { CircleAlert, Info, TriangleAlert } from 'lucide-react';

const looks = {
  error: { icon: CircleAlert, colour: 'brick.fg' },
  warning: { icon: TriangleAlert, colour: 'fg.warning' },
  note: { icon: Info, colour: 'fg.muted' },
};
const SHOWN = 200;

/** A line for everything that was doubtful or skipped: what, where in the file, what was done. */
export function IssueLines({ issues, onShow }: { issues: readonly Issue[]; onShow?: (issue: Issue) => void }) {
  return (
    <Box fontSize="13px">
      {issues.slice(0, SHOWN).map((issue, index) => {
        const { icon: Icon, colour } = looks[issue.severity];
        return (
          <Flex key={`${issue.at}${index}`} gap="2" py="0.5" align="baseline" cursor={onShow ? 'pointer' : undefined} onClick={() => onShow?.(issue)}>
            <Box color={colour} alignSelf="center" title={issue.severity}>
              <Icon size={12} />
            </Box>
            <Box fontFamily="mono" fontSize="11.5px" color="fg.muted" flexShrink={0}>
              {issue.at}
            </Box>
            <Box>{issue.message}</Box>
          </Flex>
        );
      })}
      {issues.length > SHOWN && <Box color="fg.muted">and {issues.length - SHOWN} more</Box>}
    </Box>
  );
}
