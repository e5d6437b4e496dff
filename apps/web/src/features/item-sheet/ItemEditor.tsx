import { Link } from 'react-router';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { editConflictSchema, type Item } from '@coomb/contract';
import type { FieldValue, Kind } from '@coomb/core';
import { format } from 'date-fns';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { ApiError } from '../../shared/api/client';
import { lineIsOpen } from '../../shared/live/use-live';
import { dropDraft, keepDraft, readDrafts } from '../../shared/drafts/drafts';
import { lookAsOf, useMoment } from '../../shared/moment/moment';
import { ErrorNote } from '../../shared/ui/feedback';
import { notify } from '../../shared/ui/notices';
import { ConflictChoice } from './ConflictChoice';
import { HereToo } from './HereToo';
import { EditImpact } from './EditImpact';
import { FieldEditor } from './FieldEditor';
import { findWritten, type Written } from './written';

const RichTextEditor = lazy(() => import('../../shared/editor/RichTextEditor'));

/** Whose value holds where two changed the same, at the revision at which that was seen. */
export interface Settled {
  revision: number;
  fields: Record<string, 'mine' | 'theirs'>;
}

interface Props {
  project: string;
  item: Pick<Item, 'title' | 'html' | 'fields' | 'revision' | 'heading' | 'reference'>;
  /** Under which an unfinished text is kept: the item's id, or `new` and where it goes. */
  draftId: string;
  /** Address below the project's at which the writing is taken up again. */
  path: string;
  kind: Kind;
  withFields?: boolean;
  /** Stores what was written, based on a revision. Never called when nothing was. */
  onStore: (written: Written, revision: number, settled?: Settled) => Promise<unknown>;
  onDone: () => void;
  /** Stores, then goes on with the next item. */
  onNext?: (() => void) | undefined;
  /** Makes two items of one: what stands before the caret, and what stands behind it. */
  onSplit?: ((split: Split) => Promise<unknown>) | undefined;
}

export interface Split {
  written: Written;
  revision: number;
  before: string;
  behind: string;
}

/**
 * Edits title, text and fields in place. Ctrl Enter saves; Esc leaves, and keeps what was begun in this browser, as do Back, another view
 * and a reload; a clash with somebody else keeps what was typed. Storing without a change stores nothing. Alt Enter stores and goes on with
 * the next, Ctrl Shift Enter splits the item at the caret.
 */
export function ItemEditor(props: Props) {
  const moment = useMoment(props.project);
  if (!moment) return <Editor {...props} />;
  return (
    <Flex align="center" gap="2" bg="bg.subtle" px="2" py="1.5" fontSize="13px">
      <Box flex="1">You look at it as of {moment.says}: nothing can be written there.</Box>
      <Button size="2xs" variant="outline" onClick={() => lookAsOf(props.project, undefined)}>
        Back to now
      </Button>
      <Button size="2xs" variant="ghost" onClick={props.onDone}>
        Leave
      </Button>
    </Flex>
  );
}

function Editor({ project, item, draftId, path, kind, withFields = true, onStore, onDone, onNext, onSplit }: Props) {
  const begun = useMemo(() => readDrafts(project)[draftId], [project, draftId]);
  const [text, setText] = useState(() => ({ title: begun?.title ?? item.title, html: begun?.html ?? item.html, fields: begun?.fields ?? item.fields }));
  const [revision, setRevision] = useState(begun?.revision ?? item.revision);
  const [error, setError] = useState<unknown>();
  const [storing, setStoring] = useState(false);
  const [round, setRound] = useState(0);
  const frame = useRef<HTMLDivElement>(null);
  const written = findWritten(item, text, withFields ? kind : undefined);
  const isWritten = Object.keys(written).length > 0;
  useEffect(() => {
    frame.current?.scrollIntoView({ block: 'center' });
  }, []);
  const change = (part: Partial<typeof text>) => {
    const next = { ...text, ...part };
    setText(next);
    if (Object.keys(findWritten(item, next, withFields ? kind : undefined)).length === 0) dropDraft(project, draftId);
    else keepDraft(project, draftId, { ...next, revision, about: item.reference, path, at: new Date().toISOString() });
  };
  const save = async (settled?: Settled, then = onDone) => {
    if (storing) return;
    if (!text.title.trim()) return setError(new Error('Give it a title first: it is how people will call it.'));
    if (!isWritten) {
      dropDraft(project, draftId);
      return then();
    }
    setStoring(true);
    try {
      await onStore(written, revision, settled);
      dropDraft(project, draftId);
      then();
    } catch (cause) {
      setError(cause);
      setStoring(false);
    }
  };
  const split = async (before: string, behind: string) => {
    if (storing) return;
    if (!behind) return setError(new Error('Nothing stands behind the caret. Put it before what shall be an item of its own.'));
    if (!before) return setError(new Error('Nothing stands before the caret. Put it behind what shall stay.'));
    setStoring(true);
    try {
      await onSplit?.({ written, revision, before, behind });
      dropDraft(project, draftId);
    } catch (cause) {
      setError(cause);
      setStoring(false);
    }
  };
  // A text that could not be sent goes by itself as soon as there is a line again.
  const waits = error instanceof ApiError && error.code === 'unreachable';
  const again = useRef(save);
  again.current = save;
  useEffect(() => {
    if (!waits) return;
    const send = () => void again.current();
    window.addEventListener(lineIsOpen, send);
    return () => window.removeEventListener(lineIsOpen, send);
  }, [waits]);
  const throwAway = () => {
    dropDraft(project, draftId);
    onDone();
  };
  const leave = () => {
    if (isWritten) notify('Not stored yet. What you wrote is kept here; the strip below leads back to it.', 'info');
    onDone();
  };
  const told = error instanceof ApiError && error.code === 'changed-meanwhile' ? editConflictSchema.safeParse(error.details) : undefined;
  const clash = told?.success ? told.data : undefined;
  // What the history no longer tells of cannot be joined: then only the whole can be kept.
  const blunt = error instanceof ApiError && error.code === 'changed-meanwhile' && !clash ? Number(error.details?.revision) : undefined;
  return (
    <Box
      ref={frame}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && event.shiftKey) return event.stopPropagation();
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void save();
        else if (event.key === 'Enter' && event.altKey && onNext) void save(undefined, onNext);
        else if (event.key === 'Escape') leave();
        else return event.stopPropagation();
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      {item.revision > 0 && <HereToo project={project} item={draftId} writing />}
      {begun && round === 0 && (
        <Flex bg="bg.subtle" px="2" py="1" mb="2" fontSize="13px" align="center" gap="2">
          <Box flex="1">You began this on {format(new Date(begun.at), 'd MMM, HH:mm')}.</Box>
          <Button
            size="2xs"
            variant="outline"
            onClick={() => {
              dropDraft(project, draftId);
              setText({ title: item.title, html: item.html, fields: item.fields });
              setRevision(item.revision);
              setRound(1);
            }}
          >
            Begin anew
          </Button>
        </Flex>
      )}
      <Input
        size="sm"
        dir="auto"
        aria-label="Title"
        placeholder={item.heading ? 'Title of the section' : 'Title'}
        value={text.title}
        onChange={(event) => change({ title: event.target.value })}
        fontWeight="600"
        mb="2"
        bg="bg.panel"
        maxLength={500}
        autoFocus
      />
      <Suspense fallback={<Box h="100px" />}>
        <RichTextEditor
          key={round}
          html={text.html}
          label="Text"
          onChange={(html) => change({ html })}
          onSplit={onSplit && ((before, behind) => void split(before, behind))}
        />
      </Suspense>
      {withFields &&
        !item.heading &&
        kind.fields.map((field) => (
          <Flex key={field.id} mt="2" gap="3" align="flex-start">
            <Box w="130px" flexShrink={0} color="fg.muted" fontSize="13px" pt="1">
              {field.label}
            </Box>
            <Box flex="1">
              <FieldEditor
                key={round}
                field={field}
                value={text.fields[field.id]}
                onChange={(value: FieldValue) => change({ fields: { ...text.fields, [field.id]: value } })}
              />
            </Box>
          </Flex>
        ))}
      {clash ? (
        <ConflictChoice
          clash={clash}
          storing={storing}
          onSettle={(fields) => {
            setError(undefined);
            void save({ revision: clash.revision, fields });
          }}
        />
      ) : (
        error !== undefined && (
          <ErrorNote error={waits ? new Error('Coomb cannot be reached. What you wrote is kept here, and saved by itself as soon as it can be.') : error} />
        )
      )}
      {item.revision > 0 && item.reference && !item.heading && <EditImpact project={project} reference={item.reference} written={written} kind={kind} />}
      <Flex gap="2" mt="3">
        <Button size="xs" onClick={() => void save()} loading={storing} title="Ctrl Enter">
          Save
        </Button>
        {onNext && (
          <Button size="xs" variant="outline" onClick={() => void save(undefined, onNext)} disabled={storing} title="Alt Enter">
            Save and write the next
          </Button>
        )}
        <Button size="xs" variant="ghost" onClick={throwAway} title={isWritten ? 'Throw away what was written' : 'Esc'}>
          {item.revision === 0 ? 'Throw away' : 'Leave unchanged'}
        </Button>
        {item.revision > 0 && item.reference && (
          <Button asChild size="xs" variant="ghost">
            <Link to={`/p/${project}/link/impact?items=${item.reference}`} title="What a change of its words would touch; what is written here is kept">
              Impact
            </Link>
          </Button>
        )}
        {blunt !== undefined && (
          <Button
            size="xs"
            variant="outline"
            colorPalette="brick"
            onClick={() => {
              setRevision(blunt);
              setError(undefined);
            }}
          >
            Keep mine
          </Button>
        )}
      </Flex>
    </Box>
  );
}
