import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { ComparedEntry } from '@coomb/contract';
import { useId, useState } from 'react';
import { useOutline, type Project } from '../../../shared/live/project-queries';

interface Props {
  project: Project;
  entry: ComparedEntry;
  /** What the newer version seems to lack: most likely one of these is meant. */
  gone: readonly ComparedEntry[];
  onPair: (entry: ComparedEntry, item: string | null) => void;
}

const reasons = {
  chosen: 'chosen by you',
  key: 'same identifier',
  'same text': 'same text',
  'same title': 'same title',
  'same items': 'the items in it',
  'similar text': 'similar text',
};

/** By what the two were taken for versions of one item, and ways to say that they are not. */
export function Matched(props: Props) {
  const { reason, likeness } = props.entry.match!;
  return (
    <Flex gap="3" align="center" color="fg.muted" fontSize="13px" mb="2" wrap="wrap">
      <Box>
        Matched by {reasons[reason]}
        {reason === 'similar text' && ` (${Math.round(likeness * 100)} % of the words)`}.
      </Box>
      <Button size="2xs" variant="outline" onClick={() => props.onPair(props.entry, null)}>
        Not the same item
      </Button>
      <PairWith {...props} word="It is another…" />
    </Flex>
  );
}

export function NewItem(props: Props) {
  return (
    <Flex mb="2" color="fg.muted" fontSize="13px">
      <PairWith {...props} word="It is a version of…" />
    </Flex>
  );
}

function PairWith({ entry, gone, onPair, word }: Props & { word: string }) {
  const [open, setOpen] = useState(false);
  const [reference, setReference] = useState('');
  const list = useId();
  const outline = useOutline().data;
  const wanted = reference.trim().toLowerCase();
  const found = outline ? outline.reference.findIndex((one) => one.toLowerCase() === wanted) : -1;
  const match = () => found >= 0 && onPair(entry, outline!.id[found]!);
  if (!open)
    return (
      <Button size="2xs" variant="outline" onClick={() => setOpen(true)}>
        {word}
      </Button>
    );
  return (
    <Flex asChild gap="1.5" align="center" wrap="wrap">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          match();
        }}
      >
        <Input
          size="2xs"
          w="190px"
          fontFamily="mono"
          autoFocus
          list={list}
          aria-label="Reference of the item it is a version of"
          placeholder={gone.length > 0 ? 'its reference, or choose' : 'its reference'}
          value={reference}
          onChange={(event) => setReference(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
        />
        <datalist id={list}>
          {gone.flatMap(({ mine }) =>
            mine ? (
              <option key={mine.id} value={mine.reference}>
                {mine.title}
              </option>
            ) : (
              []
            ),
          )}
        </datalist>
        <Button type="submit" size="2xs" disabled={found < 0}>
          Match
        </Button>
        {found >= 0 ? <Box color="fg">{outline!.title[found]}</Box> : wanted && outline && <Box role="status">There is no {reference.trim()} here.</Box>}
      </form>
    </Flex>
  );
}
