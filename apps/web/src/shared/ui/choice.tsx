import { NativeSelect } from '@chakra-ui/react';
import { useRef } from 'react';

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  width?: string;
}

/** A small select with an accessible name. Chosen with the mouse it lets go of the focus, so that the view's keys work again. */
export function Choice({ label, value, options, onChange, width = 'auto' }: ChoiceProps) {
  const byKey = useRef(false);
  return (
    <NativeSelect.Root size="xs" width={width}>
      <NativeSelect.Field
        aria-label={label}
        title={label}
        value={value}
        onKeyDown={() => {
          byKey.current = true;
        }}
        onPointerDown={() => {
          byKey.current = false;
        }}
        onChange={(event) => {
          onChange(event.currentTarget.value);
          if (!byKey.current) event.currentTarget.blur();
        }}
        bg="bg.panel"
        fontSize="13px"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
