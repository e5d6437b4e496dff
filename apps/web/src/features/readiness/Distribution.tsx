import { Box } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { Bar, BarChart, LabelList, XAxis, YAxis } from 'recharts';

interface Props {
  title: string;
  note: string;
  figures: { id: string; label: string; count: number }[];
  base: string;
}

/** A small bar chart whose bars open their items. */
export function Distribution({ title, note, figures, base }: Props) {
  const navigate = useNavigate();
  const data = figures.map((figure) => ({ ...figure, name: shorten(figure.label) }));
  const open = (entry: { payload?: { id?: string } }) => entry.payload?.id && void navigate(`${base}/${entry.payload.id}`);
  return (
    <Box w="340px">
      <Box fontWeight="600">{title}</Box>
      <Box color="fg.muted" fontSize="12.5px" mb="1">
        {note}
      </Box>
      <BarChart width={340} height={30 * data.length + 8} data={data} layout="vertical" margin={{ left: 0, right: 40, top: 4, bottom: 4 }} accessibilityLayer>
        <XAxis type="number" hide />
        <YAxis type="category" dataKey="name" width={92} axisLine={false} tickLine={false} tick={{ fill: 'var(--chakra-colors-fg-muted)', fontSize: 12.5 }} />
        <Bar dataKey="count" fill="var(--chakra-colors-moss-solid)" isAnimationActive={false} cursor="pointer" barSize={16} minPointSize={2} onClick={open}>
          <LabelList dataKey="count" position="right" fill="var(--chakra-colors-fg)" fontSize={12.5} />
        </Bar>
      </BarChart>
    </Box>
  );
}

/** "Requirements with 3 to 5 tests" → "3 to 5". */
function shorten(label: string): string {
  return label.replace(/^(Requirements with|Tests that verify|Tests) /, '').replace(/ (tests?|items?)$/, '');
}
