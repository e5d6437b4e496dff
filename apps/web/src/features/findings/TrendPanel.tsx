import { Box, Flex } from '@chakra-ui/react';
import { trendGroups } from '@coomb/contract';
import { figure } from '@coomb/core';
import { format } from 'date-fns';
import { useRef } from 'react';
import { Link } from 'react-router';
import { CartesianGrid, Line, LineChart, Tooltip, XAxis, YAxis } from 'recharts';
import { ErrorNote } from '../../shared/ui/feedback';
import { useSize } from '../../shared/ui/use-size';
import { useFindingTrend } from './queries';

const looks = {
  coverage: { label: 'what must be covered', colour: 'var(--chakra-colors-moss-solid)', dash: '' },
  evidence: { label: 'evidence', colour: 'var(--chakra-colors-brick-solid)', dash: '6 3' },
  links: { label: 'links', colour: 'var(--chakra-colors-fg-warning)', dash: '2 3' },
} as const;

/** How many findings were open after some of the changes, group by group; told by line as well as by colour. */
export function TrendPanel({ project, lens }: { project: string; lens: string | undefined }) {
  const trend = useFindingTrend(project, lens, true);
  const frame = useRef<HTMLDivElement>(null);
  const { width } = useSize(frame);
  const points = (trend.data ?? []).map(({ seq, open }) => ({ seq, ...open }));
  const last = trend.data?.at(-1);
  return (
    <Box ref={frame} px="4" pt="2" pb="1" borderBottomWidth="1px" flexShrink={0}>
      <Flex gap="4" fontSize="12.5px" color="fg.muted" wrap="wrap">
        <Box fontWeight="600" color="fg">
          Open after each change
        </Box>
        {trendGroups.map((group) => (
          <Flex key={group} align="center" gap="1.5">
            <svg width="22" height="6" aria-hidden>
              <line x1="0" y1="3" x2="22" y2="3" stroke={looks[group].colour} strokeWidth="2" strokeDasharray={looks[group].dash} />
            </svg>
            {looks[group].label}
            {last && ` ${figure(last.open[group] ?? 0)}`}
          </Flex>
        ))}
        <Box flex="1" />
        {last && (
          <Box asChild textDecoration="underline">
            <Link to={`/p/${project}/changes`}>which changes</Link>
          </Box>
        )}
      </Flex>
      {trend.error ? (
        <ErrorNote error={trend.error} />
      ) : (
        <Box h="132px" aria-busy={trend.isPending}>
          {points.length > 0 && (
            <LineChart
              width={Math.max(300, width - 32)}
              height={130}
              data={points}
              margin={{ left: 0, right: 12, top: 8, bottom: 0 }}
              accessibilityLayer={false}
            >
              <CartesianGrid stroke="var(--chakra-colors-border-muted)" vertical={false} />
              <XAxis
                dataKey="seq"
                type="number"
                domain={['dataMin', 'dataMax']}
                tickLine={false}
                tick={{ fill: 'var(--chakra-colors-fg-muted)', fontSize: 12 }}
                tickFormatter={(seq: number) => `change ${seq}`}
              />
              <YAxis width={36} tickLine={false} axisLine={false} allowDecimals={false} tick={{ fill: 'var(--chakra-colors-fg-muted)', fontSize: 12 }} />
              <Tooltip
                isAnimationActive={false}
                contentStyle={{ background: 'var(--chakra-colors-bg-panel)', border: '1px solid var(--chakra-colors-border)', fontSize: 12.5 }}
                labelFormatter={(seq) => {
                  const point = trend.data?.find((one) => one.seq === seq);
                  return `After change ${seq}${point ? `, ${format(new Date(point.at), 'd MMM yyyy')}` : ''}`;
                }}
              />
              {trendGroups.map((group) => (
                <Line
                  key={group}
                  dataKey={group}
                  name={looks[group].label}
                  stroke={looks[group].colour}
                  strokeDasharray={looks[group].dash}
                  strokeWidth={2}
                  dot={{ r: 2 }}
                  isAnimationActive={false}
                />
              ))}
            </LineChart>
          )}
        </Box>
      )}
    </Box>
  );
}
