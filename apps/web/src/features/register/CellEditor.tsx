import { Input } from '@chakra-ui/react';
import { type Field, fieldTypeOf } from '@coomb/core';
import { useRef, useState } from 'react';

interface Props {
  label: string;
  /** The field that is written, where the column is one; its type says how. */
  field: Field | undefined;
  value: string;
  /** Stores, and goes on: below, beside, or nowhere. */
  onStore: (text: string, then: 'below' | 'above' | 'beside' | 'before' | 'stay') => void;
  onLeave: () => void;
}

const same: React.CSSProperties = { width: '100%', height: '24px', font: 'inherit', background: 'transparent', border: 'none', outline: 'none' };

/** Writes in a cell, in the way of its type. */
export function CellEditor({ label, field, value, onStore, onLeave }: Props) {
  const [text, setText] = useState(value);
  const done = useRef(false);
  const finish = (run: () => void) => {
    if (done.current) return;
    done.current = true;
    run();
  };
  const store = (then: Parameters<Props['onStore']>[1], what = text) => finish(() => onStore(what, then));
  const editor = field ? fieldTypeOf(field.type).editor : 'line';
  const keys = (event: React.KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Escape') finish(onLeave);
    else if (event.key === 'Enter') store(event.shiftKey ? 'above' : 'below');
    else if (event.key === 'Tab') store(event.shiftKey ? 'before' : 'beside');
    else return;
    event.preventDefault();
  };
  const common = { 'aria-label': label, autoFocus: true, onKeyDown: keys, onBlur: () => store('stay') };
  if (field && (editor === 'one' || editor === 'yesNo')) {
    const options = editor === 'yesNo' ? ['yes', 'no'] : (field.options ?? []);
    return (
      <select {...common} value={text} style={same} onChange={(event) => setText(event.target.value)}>
        <option value="">–</option>
        {[...options, ...(text && !options.includes(text) ? [text] : [])].map((option) => (
          <option key={option} value={option}>
            {option}
          </option>
        ))}
      </select>
    );
  }
  return (
    <Input
      {...common}
      variant="flushed"
      size="2xs"
      type={editor === 'day' ? 'date' : 'text'}
      value={text}
      fontSize="13.5px"
      onFocus={(event) => event.target.setSelectionRange?.(text.length, text.length)}
      onChange={(event) => setText(event.target.value)}
    />
  );
}
