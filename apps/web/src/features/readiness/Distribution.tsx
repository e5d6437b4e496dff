import { useRef } from 'react';
import { Box } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { Bar, BarChart, LabelList, XAxis, YAxis } from 'recharts';
import { useSize } from '../../shared/ui/use-size';

interface Props {
  title: string;
  note: string;
  figures: { id: string; label: string; count: number }[];
  base: string;
}

/** A small bar chart whose bars open their items. */
export function Distribution({ title, note, figures, base }: Props) {
  const data = figures.map((figure) => ({ ...figure, name: shorten(figure.label) }));
  const frame = useRef<HTMLDivElement>(null);
  const { width } = useSize(frame);
  return (
    <Box ref={frame} flex="1 1 300px" maxW="560px" minW="0">
      <Box fontWeight="600">{title}</Box>
      <Box color="fg.muted" fontSize="12.5px" mb="1">
        {note}
      </Box>
      <BarChart
        width={Math.max(240, width || 340)}
        height={30 * data.length + 8}
        data={data}
        layout="vertical"
        margin={{ left: 0, right: 40, top: 4, bottom: 4 }}
        accessibilityLayer={false}
      >
        <XAxis type="number" hide />
        <YAxis type="category" dataKey="name" width={92} axisLine={false} tickLine={false} tick={{ fill: 'var(--chakra-colors-fg-muted)', fontSize: 12.5 }} />
        <Bar
          dataKey="count"
          fill="var(--chakra-colors-moss-solid)"
          isAnimationActive={false}
          barSize={16}
          minPointSize={2}
          shape={(bar: BarShape) => <BarLink {...bar} base={base} />}
        >
          <LabelList dataKey="count" position="right" fill="var(--chakra-colors-fg)" fontSize={12.5} />
        </Bar>
      </BarChart>
    </Box>
  );
}

interface BarShape {
  x?: number;
  y?: number;
  width?: number;
  height?: number;
  fill?: string;
  payload?: Props['figures'][number];
}

/** A bar as a link to its items: reached by Tab, opened by Enter. The whole line answers to the mouse, however short the bar. */
function BarLink({ x = 0, y = 0, width = 0, height = 0, fill, payload, base }: BarShape & { base: string }) {
  const navigate = useNavigate();
  if (!payload) return null;
  const to = `${base}/${payload.id}`;
  return (
    <a
      href={to}
      aria-label={`${payload.label}: ${payload.count}`}
      onClick={(event) => {
        if (event.ctrlKey || event.metaKey || event.shiftKey) return;
        event.preventDefault();
        void navigate(to);
      }}
    >
      <title>{`${payload.label}: ${payload.count}`}</title>
      <rect x={0} y={y - 7} width={340} height={height + 14} fill="transparent" />
      <rect x={x} y={y} width={width} height={height} fill={fill} />
    </a>
  );
}

/** "Requirements with 3 to 5 tests" → "3 to 5". */
function shorten(label: string): string {
  return label.replace(/^(Requirements with|Tests that verify|Tests) /, '').replace(/ (tests?|items?)$/, '');
}
