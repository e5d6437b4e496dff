import { counted } from '@coomb/core';
import { Box, Button } from '@chakra-ui/react';
import { getReportDocument, getReportPage } from '@coomb/contract';
import { format } from 'date-fns';
import { Download, ExternalLink } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { useReport } from './queries';
import { addressOf } from '../../shared/api/client';

/** A report as published, shown as readers get it. */
export function ReportPage() {
  const project = useProject();
  const { report: id } = useParams();
  const report = useReport(project.id, id!);
  if (report.error)
    return (
      <Box p="6">
        <ErrorNote error={report.error} />
      </Box>
    );
  if (!report.data) return <Loading what="the report" />;
  const params = { project: project.id, report: id! };
  const page = addressOf(getReportPage, params);
  return (
    <Page
      title={`${report.data.title}, report ${report.data.number}`}
      lead={`${format(new Date(report.data.at), 'd MMMM yyyy, HH:mm')} · ${report.data.person}${report.data.stale ? ` · ${counted(project.seq - report.data.seq, 'change')} since` : ''}`}
      fill
      actions={
        <>
          <Button asChild size="xs" variant="ghost">
            <Link to={`/p/${project.id}/publish`}>All reports</Link>
          </Button>
          <Button asChild size="xs" variant="outline">
            <a href={page} target="_blank" rel="noreferrer">
              <ExternalLink size={13} /> Web page
            </a>
          </Button>
          <Button asChild size="xs">
            <a href={addressOf(getReportDocument, params)}>
              <Download size={13} /> .docx
            </a>
          </Button>
        </>
      }
    >
      <iframe src={page} title="The report" style={{ width: '100%', height: '100%', border: 0, background: '#f6f3ec' }} />
    </Page>
  );
}
