import { Box, Button, Flex } from '@chakra-ui/react';
import type { SchemeEdit } from '@coomb/contract';
import { counted, labelOf, type SchemeIssue, type SchemePart, sortWords } from '@coomb/core';
import { ApiError } from '../../shared/api/client';
import { ErrorNote } from '../../shared/ui/feedback';
import { Effects } from './Effects';
import { useChangeScheme, usePreview } from './queries';
import { nameOf, type SchemeDraft, toWish } from './scheme-draft';

interface Props {
  project: string;
  draft: SchemeDraft;
  parts: readonly SchemeEdit[];
  issues: readonly SchemeIssue[];
  onAnswer: (effect: string, choice: string) => void;
  onChoose: (part: string) => void;
  onDone: () => void;
  onDrop: () => void;
}

/** What was changed and not kept yet, what it would do, and keeping or dropping it. */
export function KeepBar({ project, draft, parts, issues, onAnswer, onChoose, onDone, onDrop }: Props) {
  const wish = toWish(draft);
  const preview = usePreview(project, wish);
  const keep = useChangeScheme(project);
  if (draft.edits.length === 0) return null;
  const errors = issues.filter((issue) => issue.severity === 'error');
  const changedMeanwhile = preview.error instanceof ApiError && preview.error.code === 'changed-meanwhile';
  return (
    <Box
      as="section"
      aria-label="Changes not kept yet"
      borderTopWidth="2px"
      borderColor="moss.solid"
      bg="bg.panel"
      px="4"
      py="2"
      maxH="48%"
      overflowY="auto"
      flexShrink={0}
      tabIndex={0}
    >
      <Flex align="center" gap="2" wrap="wrap">
        <Box fontWeight="600" flex="1" whiteSpace="nowrap">
          {counted(draft.edits.length, 'part')} changed, not kept yet
        </Box>
        <Button
          size="xs"
          disabled={errors.length > 0 || preview.isPending || changedMeanwhile}
          loading={keep.isPending}
          onClick={() => keep.mutate(wish, { onSuccess: onDone })}
        >
          Keep
        </Button>
        <Button size="xs" variant="outline" onClick={onDrop}>
          Drop
        </Button>
      </Flex>
      {errors.map((issue) => (
        <Flex asChild key={`${issue.sort} ${issue.key} ${issue.message}`} color="brick.fg" fontSize="13px" py="0.5" textAlign="left" w="100%">
          <button type="button" onClick={() => onChoose(`${issue.sort} ${issue.key}`)}>
            {issue.message}
          </button>
        </Flex>
      ))}
      {preview.error && <ErrorNote error={preview.error} retry={changedMeanwhile ? onDrop : () => void preview.refetch()} />}
      {errors.length === 0 && preview.data && (
        <>
          <Box fontSize="13px" color="fg.muted" py="1">
            {preview.data.differences.map((one) => `${one.isNew ? 'new ' : ''}${sortWords[one.sort].one} ${one.label}`).join(', ')}
          </Box>
          {preview.data.effects.length === 0 ? (
            <Box fontSize="13px" color="moss.fg" pb="1">
              Nothing that is there would be otherwise.
            </Box>
          ) : (
            <Effects project={project} wish={wish} effects={preview.data.effects} onAnswer={onAnswer} />
          )}
        </>
      )}
      {errors.length > 0 && (
        <Box fontSize="12.5px" color="fg.muted">
          {draft.edits
            .map((edit) => parts.find((part) => nameOf(part) === nameOf(edit)))
            .map((part) => part && labelOf(part as SchemePart))
            .filter(Boolean)
            .join(', ')}
        </Box>
      )}
    </Box>
  );
}
