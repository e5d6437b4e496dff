import { counted } from '@coomb/core';
import { Box, Button, Checkbox, Flex, Input, Textarea } from '@chakra-ui/react';
import { getReportDocument } from '@coomb/contract';
import { format } from 'date-fns';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { useKept } from '../../shared/drafts/use-kept';
import { PartsChoice } from './PartsChoice';
import { usePublish, useReports } from './queries';
import { asParts, type PartChoice } from './report-parts';
import { OneLine } from '../../shared/ui/one-line';
import { addressOf } from '../../shared/api/client';
import { useColours } from '../../shared/colour-key/fills';

export function ReportsPage() {
  const project = useProject();
  const reports = useReports(project.id);
  const publish = usePublish(project.id);
  const navigate = useNavigate();
  const [title, setTitle] = useKept(project.id, 'report title', 'Verification status');
  const [note, setNote, dropNote] = useKept(project.id, 'report note');
  const [choices, setChoices] = useState<Record<string, PartChoice>>({});
  const collections = project.collections.filter((one) => !one.withdrawn);
  const parts = asParts(collections, choices);
  const isEmpty = parts.collections?.length === 0;
  const colours = useColours(project.id);
  const key = colours?.data?.about === 'items' ? colours : undefined;
  const [isColoured, setColoured] = useState(true);
  const publishNow = () =>
    publish.mutate(
      { title, note, ...parts, ...(key && isColoured && { key: key.key }) },
      {
        onSuccess: ({ id }) => {
          dropNote();
          void navigate(`/p/${project.id}/publish/${id}`);
        },
      },
    );
  return (
    <Page>
      <Box bg="bg.panel" borderWidth="1px" p="4" maxW="760px" mb="5">
        <Flex gap="3" align="center">
          <Input size="sm" aria-label="Title of the report" value={title} onChange={(event) => setTitle(event.target.value)} maxLength={200} bg="bg" />
          <Button size="sm" disabled={!title.trim() || isEmpty} loading={publish.isPending} onClick={publishNow}>
            Publish now
          </Button>
        </Flex>
        <Textarea
          size="sm"
          mt="2"
          rows={2}
          aria-label="Note for the cover"
          placeholder="A note for the cover: what readers should know"
          value={note}
          onChange={(event) => setNote(event.target.value)}
          maxLength={5000}
          bg="bg"
        />
        <PartsChoice project={project} choices={choices} onChange={setChoices} />
        {key && (
          <Checkbox.Root size="sm" mt="2" checked={isColoured} onCheckedChange={({ checked }) => setColoured(checked === true)}>
            <Checkbox.HiddenInput />
            <Checkbox.Control />
            <Checkbox.Label fontWeight="400">References coloured by “{key.data?.name}”, with what it stands for</Checkbox.Label>
          </Checkbox.Root>
        )}
        {isEmpty && (
          <Box color="fg.muted" mt="2">
            Choose at least one collection.
          </Box>
        )}
      </Box>
      {reports.error && <ErrorNote error={reports.error} />}
      {reports.isPending && <Loading what="reports" />}
      {reports.data?.length === 0 && <Box color="fg.muted">No report yet. Publish the first; the next will say what changed since.</Box>}
      {reports.data?.map((report) => (
        <Flex key={report.id} py="1.5" borderTopWidth="1px" gap="4" maxW="960px" align="baseline">
          <Box w="2.5em" textAlign="right" color="fg.muted">
            {report.number}
          </Box>
          <Box asChild flex="1" fontFamily="serif" fontSize="16px" _hover={{ textDecoration: 'underline' }}>
            <Link to={`/p/${project.id}/publish/${report.id}`}>{report.title}</Link>
          </Box>
          <Box color="fg.muted">{format(new Date(report.at), 'd MMM yyyy, HH:mm')}</Box>
          <OneLine color="fg.muted" w="10em" text={report.person} />
          <Box w="9em" color={report.stale ? 'fg.warning' : 'moss.fg'}>
            {report.stale ? `${counted(project.seq - report.seq, 'change')} since` : 'up to date'}
          </Box>
          <Box asChild textDecoration="underline">
            <a href={addressOf(getReportDocument, { project: project.id, report: report.id })}>.docx</a>
          </Box>
        </Flex>
      ))}
    </Page>
  );
}
