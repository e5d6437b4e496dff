import { Box } from '@chakra-ui/react';
import { figure } from '@coomb/core';
import { Link } from 'react-router';
import { useMoments } from '../../shared/live/use-moments';
import { Choice } from '../../shared/ui/choice';
import type { useReadingMarks } from './queries';

interface Props {
  project: string;
  since: number;
  marks: ReturnType<typeof useReadingMarks>;
  onChange: (since: number) => void;
}

/** Since which moment what is different is marked in the text; what went stands in no text and is told. */
export function MarksSince({ project, since, marks, onChange }: Props) {
  const { options } = useMoments(project);
  if (options.length === 0 && since === 0) return null;
  const known = since === 0 || options.some(({ value }) => value === String(since));
  return (
    <>
      {marks?.error && <Box color="brick.fg">{marks.error.message}</Box>}
      {marks && marks.went > 0 && (
        <Box asChild textDecoration="underline" textUnderlineOffset="3px">
          <Link to={`/p/${project}/changes/between?since=${since}&entity=item`}>{figure(marks.went)} went</Link>
        </Box>
      )}
      <Box maxW="13rem">
        <Choice
          label="Mark what is different since"
          width="100%"
          value={since === 0 ? '' : String(since)}
          options={[
            { value: '', label: 'no marks' },
            ...(known ? [] : [{ value: String(since), label: `since change ${since}` }]),
            ...options.map(({ value, label }) => ({ value, label: `since ${label}` })),
          ]}
          onChange={(value) => onChange(Number(value))}
        />
      </Box>
    </>
  );
}
