import type { TrayEntry } from '@coomb/contract';
import type { ComponentType } from 'react';
import { useParams } from 'react-router';
import { useProject } from '../../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../../shared/ui/feedback';
import { useTrayEntry } from '../queries';
import { shows } from './shows';

interface Show {
  View: ComponentType<{ entry: TrayEntry; content: TrayEntry['content'] }>;
  keyOf?: (content: TrayEntry['content']) => string;
}

/** A file in the tray: what it holds and what it would become. Nothing is stored until Import. */
export function TrayPage() {
  const project = useProject();
  const { tray } = useParams();
  const entry = useTrayEntry(project.id, tray!);
  if (entry.error) return <ErrorNote error={entry.error} />;
  if (!entry.data) return <Loading what="the file" />;
  const { content } = entry.data;
  // View and content are of one sort; the compiler does not follow a choice by a name.
  const { View, keyOf } = shows[content.type] as Show;
  return <View key={`${tray} ${keyOf?.(content) ?? ''}`} entry={entry.data} content={content} />;
}
