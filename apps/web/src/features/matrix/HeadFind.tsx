import { Input } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { useState } from 'react';
import type { MatrixSide } from './matrix-sides';

interface Props {
  label: string;
  outline: OutlineReply;
  side: MatrixSide;
  /** Line that one stands at, folded or not. */
  from: number;
  onFind: (line: number) => void;
}

/** Finds a line by words of its reference or title; Enter goes to the next, with Shift to the one before. */
export function HeadFind({ label, outline, side, from, onFind }: Props) {
  const [words, setWords] = useState('');
  const [missed, setMissed] = useState(false);
  const find = (text: string, begin: number, step: 1 | -1) => {
    const wanted = text.trim().toLowerCase();
    const count = side.rows.length;
    if (wanted === '') return setMissed(false);
    for (let by = 0; by < count; by++) {
      const line = (((begin + by * step) % count) + count) % count;
      const row = side.rows[line]!;
      const says = row < 0 ? side.groups.get(line)! : `${outline.reference[row]} ${outline.title[row]} ${side.uses.get(line)?.says ?? ''}`;
      if (!says.toLowerCase().includes(wanted)) continue;
      setMissed(false);
      return onFind(line);
    }
    setMissed(true);
  };
  return (
    <Input
      size="2xs"
      aria-label={label}
      placeholder={label}
      value={words}
      aria-invalid={missed}
      borderColor={missed ? 'brick.fg' : undefined}
      onChange={(event) => {
        setWords(event.target.value);
        find(event.target.value, from, 1);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') find(words, from + (event.shiftKey ? -1 : 1), event.shiftKey ? -1 : 1);
        event.stopPropagation();
      }}
    />
  );
}
