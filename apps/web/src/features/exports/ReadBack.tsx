import { figure } from '@coomb/core';
import { RichText } from '../../shared/ui/rich-text';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { ExportFormat, ReadBackReply } from '@coomb/contract';
import { Check, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { Reference } from '../../shared/ui/reference';
import { type Saved, useReadBack } from './queries';

interface Props {
  project: string;
  saved: Saved;
  format: ExportFormat;
  /** Whether the file is to be written and read back now. */
  asked: boolean;
  onAsk: () => void;
}

/** What comes back when the file is read by its recipe, and what does not: measured by doing it. */
export function ReadBack({ project, saved, format, asked, onAsk }: Props) {
  const { data, error, isFetching, refetch } = useReadBack(project, saved, format, asked);
  if (!asked)
    return (
      <Button size="2xs" variant="ghost" px="0" fontWeight="400" color="moss.fg" onClick={onAsk} aria-label={`Try .${format}`}>
        Write it and read it back
      </Button>
    );
  if (error)
    return (
      <Box role="alert" color="brick.fg">
        {error.message}{' '}
        <Button size="2xs" variant="ghost" onClick={() => void refetch()}>
          Try again
        </Button>
      </Box>
    );
  if (!data)
    return (
      <Box color="fg.muted" role="status">
        {isFetching ? 'Reading it back…' : ''}
      </Box>
    );
  return <Outcome read={data} />;
}

function Outcome({ read }: { read: ReadBackReply }) {
  const [open, setOpen] = useState<string>();
  const { items, links, pictures, differences } = read;
  const shown = differences.find((one) => one.what === open);
  const share = ({ out, back }: { out: number; back: number }, what: string) =>
    `${out === back ? '' : `${figure(back)} of `}${figure(out)} ${out === 1 ? what : `${what}s`}`;
  return (
    <Box mt="0.5" lineHeight="1.4">
      <Flex gap="1.5" align="baseline" color={differences.length > 0 ? 'ochre.fg' : 'moss.fg'}>
        <Box alignSelf="center">{differences.length > 0 ? <TriangleAlert size={12} aria-hidden /> : <Check size={12} aria-hidden />}</Box>
        <Box>
          {differences.length === 0 ? 'All of it comes back: ' : 'Comes back: '}
          {share(items, 'item')}, {share(links, 'link')}
          {pictures.out > 0 && `, ${share(pictures, 'picture')}`}
        </Box>
      </Flex>
      {differences.length > 0 && (
        <Flex gap="1.5" wrap="wrap" ml="4" align="baseline">
          <Box>Not as it was:</Box>
          {differences.map(({ what, count }) => (
            <Button
              key={what}
              size="2xs"
              variant={what === open ? 'subtle' : 'outline'}
              fontWeight="400"
              aria-expanded={what === open}
              onClick={() => setOpen(what === open ? undefined : what)}
            >
              {what.toLowerCase()} {figure(count)}
            </Button>
          ))}
        </Flex>
      )}
      {shown && (
        <Box ml="4" mt="1" borderLeftWidth="2px" pl="3" fontSize="12.5px">
          <Flex gap="2" wrap="wrap" maxH="84px" overflow="auto">
            {shown.items.map((item) => (item.id ? <Reference key={item.id} reference={item.reference} /> : <Box key={item.reference}>{item.reference}</Box>))}
            {shown.count > shown.items.length && <Box color="fg.muted">and {shown.count - shown.items.length} more</Box>}
          </Flex>
          <Box color="fg.muted" mt="1">
            {shown.items[0]?.reference} went out as
          </Box>
          <Value text={shown.before} isMarkup={shown.isMarkup} />
          <Box color="fg.muted">and came back as</Box>
          <Value text={shown.after} isMarkup={shown.isMarkup} />
        </Box>
      )}
    </Box>
  );
}

/** The server has cleaned what is markup. */
function Value({ text, isMarkup }: { text: string; isMarkup: boolean }) {
  if (isMarkup) return <RichText className="rich" maxH="90px" overflow="auto" fontFamily="serif" html={text} />;
  return (
    <Box maxH="70px" overflow="auto" whiteSpace="pre-line">
      {text || 'nothing'}
    </Box>
  );
}
