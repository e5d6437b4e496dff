import { NativeSelect } from '@chakra-ui/react';

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  width?: string;
}

/** A small select with an accessible name. */
export function Choice({ label, value, options, onChange, width = 'auto' }: ChoiceProps) {
  return (
    <NativeSelect.Root size="xs" width={width}>
      <NativeSelect.Field
        aria-label={label}
        title={label}
        value={value}
        onChange={(event) => onChange(event.currentTarget.value)}
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
