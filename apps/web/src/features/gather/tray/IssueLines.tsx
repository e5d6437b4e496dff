import { counted } from '@coomb/core';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { Issue } from '@coomb/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { groupIssues, type IssueGroup } from './issue-groups';
import { IssueGlyph } from './IssueGlyph';

const STEP = 200;

/** A line for everything that was doubtful or skipped: what, where in the file, what was done; the worst first, many of a kind behind one line. */
export function IssueLines({ issues, onShow }: { issues: readonly Issue[]; onShow?: (issue: Issue) => void }) {
  const groups = useMemo(() => groupIssues(issues), [issues]);
  return (
    <Box fontSize="13px">
      {groups.map((group) => (
        <Group key={`${group.severity} ${group.code}`} group={group} onShow={onShow} />
      ))}
    </Box>
  );
}

function Group({ group, onShow }: { group: IssueGroup; onShow: ((issue: Issue) => void) | undefined }) {
  const [shown, setShown] = useState(0);
  const { severity, summary, issues } = group;
  if (!summary) return issues.map((issue, index) => <Line key={`${issue.at}${index}`} issue={issue} onShow={onShow} />);
  return (
    <>
      <Flex asChild gap="2" py="0.5" w="100%" textAlign="left" align="center" cursor="pointer" _hover={{ bg: 'bg.muted' }}>
        <button type="button" aria-expanded={shown > 0} onClick={() => setShown(shown > 0 ? 0 : STEP)}>
          <IssueGlyph severity={severity} />
          <Box fontFamily="mono" fontSize="11.5px" color="fg.muted" flexShrink={0} minW="94px">
            {counted(issues.length, 'place')}
          </Box>
          <Box flex="1">{summary}</Box>
          {shown > 0 ? <ChevronDown size={13} aria-hidden /> : <ChevronRight size={13} aria-hidden />}
        </button>
      </Flex>
      {shown > 0 && (
        <Box pl="3" borderLeftWidth="2px" ml="1.5">
          {issues.slice(0, shown).map((issue, index) => (
            <Line key={`${issue.at}${index}`} issue={issue} onShow={onShow} />
          ))}
          {issues.length > shown && (
            <Button size="2xs" variant="outline" my="1" onClick={() => setShown(shown + STEP)}>
              Show {Math.min(STEP, issues.length - shown)} of {issues.length - shown} more
            </Button>
          )}
        </Box>
      )}
    </>
  );
}

function Line({ issue, onShow }: { issue: Issue; onShow: ((issue: Issue) => void) | undefined }) {
  const content = (
    <>
      <Box alignSelf="flex-start" pt="1">
        <IssueGlyph severity={issue.severity} />
      </Box>
      <Box fontFamily="mono" fontSize="11.5px" color="fg.muted" flexShrink={0} minW="94px">
        {issue.at}
      </Box>
      <Box>{issue.message}</Box>
    </>
  );
  const look = { gap: '2', py: '0.5', align: 'baseline', w: '100%', textAlign: 'left' } as const;
  if (!onShow) return <Flex {...look}>{content}</Flex>;
  return (
    <Flex asChild {...look} cursor="pointer" _hover={{ bg: 'bg.muted' }}>
      <button type="button" onClick={() => onShow(issue)}>
        {content}
      </button>
    </Flex>
  );
}
