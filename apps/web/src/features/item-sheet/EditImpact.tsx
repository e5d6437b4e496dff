import { Box } from '@chakra-ui/react';
import type { Kind } from '@coomb/core';
import { Link } from 'react-router';
import { sayImpact, useImpact } from '../../shared/live/use-impact';
import type { Written } from './written';

/** Whether an edit lets the item say something else, so that links at it become suspect. */
export const bearsMeaning = ({ title, html, fields }: Written, kind: Kind) =>
  title !== undefined || html !== undefined || kind.fields.some(({ id, meaning }) => meaning && fields !== undefined && id in fields);

/** What an edit that is not stored yet would touch. */
export function EditImpact({ project, reference, written, kind }: { project: string; reference: string; written: Written; kind: Kind }) {
  const isMeant = bearsMeaning(written, kind);
  const impact = useImpact(project, isMeant ? [reference] : [], [], 1);
  if (Object.keys(written).length === 0) return null;
  return (
    <Box mt="2" fontSize="13px" color="fg.muted" aria-live="polite">
      {!isMeant ? (
        'Once saved, links and evidence stay as they are: what changed bears no meaning.'
      ) : impact.data ? (
        <>
          Once saved, {sayImpact(impact.data)}.{' '}
          <Box asChild color="moss.fg" textDecoration="underline">
            <Link to={`/p/${project}/link/impact?items=${reference}`} title="What is written here is kept">
              All that it touches
            </Link>
          </Box>
        </>
      ) : null}
    </Box>
  );
}
