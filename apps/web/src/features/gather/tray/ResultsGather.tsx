import { counted } from '@coomb/core';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { ErrorNote } from '../../../shared/ui/feedback';
import { notify } from '../../../shared/ui/notices';
import { Page } from '../../../shared/ui/page';
import { Reference } from '../../../shared/ui/reference';
import { useImport } from '../queries';

interface Props {
  entry: TrayEntry;
  content: Extract<TrayEntry['content'], { type: 'results' }>;
}

const reasons = { property: 'a property names it', reference: 'the name holds its reference', title: 'the name is its title' };

/** A result file: every case with the test it meets and why; unmatched ones first. */
export function ResultsGather({ entry, content }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const start = useImport(project.id, entry.id);
  const [name, setName] = useState(content.name || entry.name);
  const [shown, setShown] = useState('all');
  const unmatched = content.matches.filter((match) => !match.test);
  const rows = [...content.matches]
    .sort((a, b) => Number(a.test !== null) - Number(b.test !== null))
    .filter((match) => shown === 'all' || (shown === 'unmatched' ? !match.test : match.outcome === shown));
  const run = () =>
    start.mutate(
      { runName: name },
      {
        onSuccess: (job) => {
          if (job.state !== 'done') return;
          notify(`Imported ${counted(job.outcome!.results, 'result')}`);
          void navigate(`/p/${project.id}/check`);
        },
      },
    );
  const failure = start.error ?? (start.data && start.data.state !== 'done' ? new Error(start.data.message) : undefined);
  const count = (outcome: string) => content.matches.filter((match) => match.outcome === outcome).length;
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={entry.name}
          lead="A case meets a test case by a property that names it, else by a reference in its name, else by an equal title. What fits more than one is not taken."
          actions={
            <Choice
              label="Show"
              value={shown}
              options={[
                { value: 'all', label: `all ${counted(content.matches.length, 'case')}` },
                { value: 'unmatched', label: `${unmatched.length} without a test case` },
                ...['passed', 'failed', 'broken', 'skipped'].map((outcome) => ({ value: outcome, label: `${count(outcome)} ${outcome}` })),
              ]}
              onChange={setShown}
            />
          }
        >
          <Box as="table" w="100%" css={{ '& td, & th': { borderTopWidth: '1px', padding: '3px 10px 3px 0', textAlign: 'left', verticalAlign: 'top' } }}>
            <thead>
              <tr>
                <th>Reported as</th>
                <th>Outcome</th>
                <th>Test case</th>
                <th>Because</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((match) => (
                <tr key={match.line}>
                  <td>
                    {match.name}
                    <Box color="fg.muted" fontSize="12px">
                      {match.suite} · line {match.line}
                    </Box>
                  </td>
                  <Box as="td" fontWeight="600" color={match.outcome === 'passed' ? 'moss.fg' : match.outcome === 'skipped' ? 'fg.muted' : 'brick.fg'}>
                    {match.outcome}
                    {match.message && (
                      <Box fontWeight="400" color="fg.muted" fontSize="12.5px">
                        {match.message}
                      </Box>
                    )}
                  </Box>
                  <td>
                    {match.test ? (
                      <>
                        <Reference reference={match.test.reference} /> <bdi>{match.test.title}</bdi>
                      </>
                    ) : (
                      <Box color="fg.warning">none</Box>
                    )}
                  </td>
                  <Box as="td" color="fg.muted">
                    {match.reason ? reasons[match.reason] : match.ambiguous ? 'it fits more than one' : 'nothing fits'}
                  </Box>
                </tr>
              ))}
            </tbody>
          </Box>
        </Page>
      </Box>
      <Box bg="bg.panel" borderTopWidth="1px" px="6" py="2">
        {failure && <ErrorNote error={failure} />}
        <Flex align="center" gap="3">
          <Box flex="1">
            {content.matches.length - unmatched.length} of {content.matches.length} cases meet a test case
          </Box>
          <Box color="fg.muted" fontSize="13px">
            as the run
          </Box>
          <Input size="xs" w="220px" aria-label="Name of the run" value={name} onChange={(event) => setName(event.target.value)} bg="bg" />
          <Button size="xs" variant="ghost" onClick={() => void navigate(`/p/${project.id}/gather`)}>
            Leave
          </Button>
          <Button size="sm" onClick={run} loading={start.isPending} disabled={content.matches.length === 0}>
            Import
          </Button>
        </Flex>
      </Box>
    </Flex>
  );
}
