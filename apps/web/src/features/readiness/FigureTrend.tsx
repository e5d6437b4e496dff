import { Box, Flex } from '@chakra-ui/react';
import { figure as say } from '@coomb/core';
import { format } from 'date-fns';
import { useRef } from 'react';
import { Link } from 'react-router';
import { CartesianGrid, Line, LineChart, Tooltip, XAxis, YAxis } from 'recharts';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote } from '../../shared/ui/feedback';
import { useSize } from '../../shared/ui/use-size';
import { type Part, useFigureTrend } from './queries';

const axis = { fill: 'var(--chakra-colors-fg-muted)', fontSize: 12 };

/** What a figure was after some of the changes, and which of them moved it. */
export function FigureTrend({ figure, part }: { figure: string; part: Part }) {
  const { id: project } = useProject();
  const trend = useFigureTrend(project, figure, part);
  const frame = useRef<HTMLDivElement>(null);
  const { width } = useSize(frame);
  const points = trend.data?.points ?? [];
  const moved = points.flatMap((point, at) => {
    const before = points[at - 1];
    return before && before.count !== null && point.count !== null && before.count !== point.count ? [{ before, point, by: point.count - before.count }] : [];
  });
  return (
    <Flex
      ref={frame}
      px="4"
      py="2"
      gap="5"
      borderTopWidth="1px"
      flexShrink={0}
      bg="bg.panel"
      role="group"
      aria-label="How the figure came to be"
      aria-busy={trend.isPending}
    >
      {trend.error ? (
        <ErrorNote error={trend.error} />
      ) : (
        <>
          <LineChart
            width={Math.max(280, Math.round(width * 0.55))}
            height={150}
            data={points}
            margin={{ left: 0, right: 12, top: 8, bottom: 0 }}
            accessibilityLayer={false}
          >
            <CartesianGrid stroke="var(--chakra-colors-border-muted)" vertical={false} />
            <XAxis dataKey="seq" type="number" domain={['dataMin', 'dataMax']} tickLine={false} tick={axis} tickFormatter={(seq: number) => `change ${seq}`} />
            <YAxis width={40} tickLine={false} axisLine={false} allowDecimals={false} tick={axis} />
            <Tooltip
              isAnimationActive={false}
              contentStyle={{ background: 'var(--chakra-colors-bg-panel)', border: '1px solid var(--chakra-colors-border)', fontSize: 12.5 }}
              labelFormatter={(seq) => {
                const point = points.find((one) => one.seq === seq);
                return point ? `After change ${seq}, ${format(new Date(point.at), 'd MMM yyyy')}: ${point.action}` : '';
              }}
            />
            <Line dataKey="count" name="items" stroke="var(--chakra-colors-moss-solid)" strokeWidth={2} dot={{ r: 2.5 }} isAnimationActive={false} />
          </LineChart>
          <Box flex="1" minW="0" maxH="150px" overflowY="auto" fontSize="13px">
            <Box fontWeight="600">What moved it</Box>
            {trend.data && moved.length === 0 && <Box color="fg.muted">It stayed what it is.</Box>}
            {moved.toReversed().map(({ before, point, by }) => (
              <Flex key={point.seq} gap="2">
                <Box w="4em" textAlign="right" fontVariantNumeric="tabular-nums" flexShrink={0}>
                  {by > 0 ? '+' : '−'}
                  {say(Math.abs(by))}
                </Box>
                <Box asChild truncate textDecoration="underline" textDecorationColor="border.emphasized" title={point.action}>
                  {point.seq - before.seq === 1 ? (
                    <Link to={`/p/${project}/changes/${point.seq}`}>
                      change {point.seq}: {point.action}
                    </Link>
                  ) : (
                    <Link to={`/p/${project}/changes/between?since=${before.seq}&asOf=${point.seq}`}>
                      changes {before.seq + 1} to {point.seq}
                    </Link>
                  )}
                </Box>
              </Flex>
            ))}
          </Box>
        </>
      )}
    </Flex>
  );
}
