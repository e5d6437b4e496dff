import { Box } from '@chakra-ui/react';
import type { Readiness } from '@coomb/contract';
import { figure } from '@coomb/core';
import { Link } from 'react-router';
import { coverageLooks } from '../../shared/ui/states';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { useProject } from '../../shared/live/project-queries';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useReadinessAt } from './queries';

interface Line {
  id: string;
  label: string;
  before: number | undefined;
  after: number | undefined;
}

/** Every figure of both moments, beside each other: those that differ first said, each leading to its items and its trend. */
export function ComparedFigures({ since }: { since: number }) {
  const { id: project } = useProject();
  const { part, says } = useFiguresLens();
  const [then, now] = [useReadinessAt(project, part.lens, since), useReadinessAt(project, part.lens)];
  const error = then.error ?? now.error;
  if (error) return <ErrorNote error={error} />;
  if (!then.data || !now.data) return <Loading what="the figures" />;
  const lines = figuresOf(then.data, now.data);
  const moved = lines.filter((line) => line.before !== line.after);
  return (
    <>
      {says && (
        <Box fontSize="13px" color="fg.muted" mb="2">
          {says}
        </Box>
      )}
      {moved.length === 0 && <EmptyState title="No figure is different">All {figure(lines.length)} figures of readiness are what they were.</EmptyState>}
      {moved.length > 0 && (
        <Box
          asChild
          w="100%"
          maxW="760px"
          fontSize="14px"
          css={{ '& td, & th': { padding: '4px 8px', textAlign: 'right' }, '& td:first-of-type, & th:first-of-type': { textAlign: 'left' } }}
        >
          <table aria-label="Figures that are different">
            <thead>
              <Box asChild fontSize="12.5px" color="fg.muted">
                <tr>
                  <th>Figure</th>
                  <th>then</th>
                  <th>now</th>
                  <th>by</th>
                </tr>
              </Box>
            </thead>
            <tbody>
              {moved.map(({ id, label, before, after }) => (
                <Box asChild key={id} borderTopWidth="1px" fontVariantNumeric="tabular-nums">
                  <tr>
                    <td>
                      <Box asChild textDecoration="underline" textUnderlineOffset="3px" textDecorationColor="border.emphasized">
                        <Link to={`/p/${project}/check/figure/${id}?trend=yes`}>{label}</Link>
                      </Box>
                    </td>
                    <td>{say(before)}</td>
                    <td>{say(after)}</td>
                    <td>{before === undefined || after === undefined ? '' : `${after > before ? '+' : '−'}${figure(Math.abs(after - before))}`}</td>
                  </tr>
                </Box>
              ))}
            </tbody>
          </table>
        </Box>
      )}
      <Box mt="3" fontSize="12.5px" color="fg.muted">
        {figure(lines.length - moved.length)} more figures are what they were.
      </Box>
    </>
  );
}

const say = (count: number | undefined) => (count === undefined ? '–' : figure(count));

/** Figures of both moments in the order of readiness; one that there was not, or is not any more, has nothing on that side. */
export function figuresOf(then: Readiness, now: Readiness): Line[] {
  const lines = new Map<string, Line>();
  const take = (readiness: Readiness, side: 'before' | 'after') => {
    const put = (id: string, label: string, count: number) => {
      const line = lines.get(id) ?? { id, label, before: undefined, after: undefined };
      lines.set(id, { ...line, [side]: count });
    };
    for (const { rule, label, counts } of readiness.rules)
      for (const [state, count] of Object.entries(counts))
        if (state !== 'notApplicable') put(`rule:${rule}:${state}`, `${label}: ${coverageLooks[state as keyof typeof counts].label.toLowerCase()}`, count);
    const { states, results, links, scheme, testsPerRequirement, requirementsPerTest } = readiness;
    for (const { id, label, count } of [...states, ...results, ...links, ...scheme, ...testsPerRequirement, ...requirementsPerTest]) put(id, label, count);
  };
  take(now, 'after');
  take(then, 'before');
  return [...lines.values()];
}
