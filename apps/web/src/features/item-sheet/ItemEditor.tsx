import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Item } from '@coomb/contract';
import type { FieldValue, Kind } from '@coomb/core';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { ApiError } from '../../shared/api/client';
import { ErrorNote } from '../../shared/ui/feedback';
import { FieldEditor } from './FieldEditor';
import { useEditItem } from './queries';

const RichTextEditor = lazy(() => import('./RichTextEditor'));

interface Props {
  project: string;
  item: Pick<Item, 'id' | 'title' | 'html' | 'fields' | 'revision' | 'heading' | 'reference'>;
  kind: Kind;
  withFields?: boolean;
  onDone: () => void;
}

/** Edits title, text and fields in place. Ctrl Enter saves, Esc leaves; a clash with somebody else keeps what was typed. */
export function ItemEditor({ project, item, kind, withFields = true, onDone }: Props) {
  const [title, setTitle] = useState(item.title);
  const [html, setHtml] = useState(item.html);
  const [fields, setFields] = useState<Record<string, FieldValue>>(item.fields);
  const [revision, setRevision] = useState(item.revision);
  const edit = useEditItem(project);
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.scrollIntoView({ block: 'center' });
  }, []);
  const save = () => {
    if (!title.trim()) return;
    const cleared = Object.fromEntries(kind.fields.map((field) => [field.id, fields[field.id] ?? null]));
    edit.mutate({ id: item.id, revision, title, html, ...(withFields && { fields: cleared }) }, { onSuccess: onDone });
  };
  const clash = edit.error instanceof ApiError && edit.error.code === 'changed-meanwhile' ? Number(edit.error.details?.revision) : undefined;
  return (
    <Box
      ref={frame}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) save();
        else if (event.key === 'Escape') onDone();
        else return event.stopPropagation();
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <Input
        size="sm"
        aria-label="Title"
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        fontWeight="600"
        mb="2"
        bg="bg.panel"
        maxLength={500}
        autoFocus
      />
      <Suspense fallback={<Box h="100px" />}>
        <RichTextEditor html={item.html} label="Text" onChange={setHtml} />
      </Suspense>
      {withFields &&
        !item.heading &&
        kind.fields.map((field) => (
          <Flex key={field.id} mt="2" gap="3" align="flex-start">
            <Box w="130px" flexShrink={0} color="fg.muted" fontSize="13px" pt="1">
              {field.label}
            </Box>
            <Box flex="1">
              <FieldEditor field={field} value={fields[field.id]} onChange={(value) => setFields({ ...fields, [field.id]: value })} />
            </Box>
          </Flex>
        ))}
      {edit.error ? <ErrorNote error={edit.error} /> : null}
      <Flex gap="2" mt="3">
        <Button size="xs" onClick={save} loading={edit.isPending} disabled={!title.trim()} title="Ctrl Enter">
          Save
        </Button>
        <Button size="xs" variant="ghost" onClick={onDone} title="Esc">
          Leave unchanged
        </Button>
        {clash !== undefined && (
          <Button
            size="xs"
            variant="outline"
            colorPalette="brick"
            onClick={() => {
              setRevision(clash);
              edit.reset();
            }}
          >
            Keep mine
          </Button>
        )}
      </Flex>
    </Box>
  );
}
