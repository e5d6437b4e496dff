import { useParams } from 'react-router';
import { useProject } from '../../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../../shared/ui/feedback';
import { DocumentGather } from './DocumentGather';
import { ExchangeGather } from './ExchangeGather';
import { ModelGather } from './ModelGather';
import { useTrayEntry } from '../queries';
import { ResultsGather } from './ResultsGather';
import { SheetGather } from './SheetGather';

/** A file in the tray: what it holds and what it would become. Nothing is stored until Import. */
export function TrayPage() {
  const project = useProject();
  const { tray } = useParams();
  const entry = useTrayEntry(project.id, tray!);
  if (entry.error) return <ErrorNote error={entry.error} />;
  if (!entry.data) return <Loading what="the file" />;
  const { content } = entry.data;
  switch (content.type) {
    case 'document':
      return <DocumentGather key={tray} entry={entry.data} content={content} />;
    case 'sheets':
      // Read by another separator it is another sheet: its recipe begins anew.
      return <SheetGather key={`${tray} ${JSON.stringify(content.sheets[0]?.dialect ?? '')}`} entry={entry.data} content={content} />;
    case 'exchange':
      return <ExchangeGather key={tray} entry={entry.data} content={content} />;
    case 'model':
      return <ModelGather key={tray} entry={entry.data} content={content} />;
    case 'results':
      return <ResultsGather key={tray} entry={entry.data} content={content} />;
  }
}
