import { Box, Checkbox, Flex, Input } from '@chakra-ui/react';
import { type ReactNode, useId } from 'react';

/** One labelled line of a part's form. */
export function Labelled({ label, hint, children }: { label: string; hint?: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <Flex gap="2" align="baseline" py="1">
      <Box asChild w="8.2rem" flexShrink={0} fontSize="13px" color="fg.muted">
        <label htmlFor={id}>{label}</label>
      </Box>
      <Box flex="1" minW="0">
        {children(id)}
        {hint && (
          <Box fontSize="12px" color="fg.muted" mt="0.5">
            {hint}
          </Box>
        )}
      </Box>
    </Flex>
  );
}

export function TextLine({
  label,
  value,
  onChange,
  hint,
  placeholder,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  hint?: string;
  placeholder?: string;
}) {
  return (
    <Labelled label={label} {...(hint && { hint })}>
      {(id) => (
        <Input
          id={id}
          size="xs"
          bg="bg.panel"
          fontSize="14px"
          value={value}
          maxLength={120}
          onChange={(event) => onChange(event.target.value)}
          {...(placeholder && { placeholder })}
        />
      )}
    </Labelled>
  );
}

export function Tick({ label, checked, onChange, title }: { label: string; checked: boolean; onChange: (checked: boolean) => void; title?: string }) {
  return (
    <Checkbox.Root size="sm" checked={checked} onCheckedChange={(event) => onChange(event.checked === true)} {...(title && { title })}>
      <Checkbox.HiddenInput />
      <Checkbox.Control />
      <Checkbox.Label fontSize="13px" fontWeight="400">
        {label}
      </Checkbox.Label>
    </Checkbox.Root>
  );
}

/** Several of a list, each as a stone that is pressed or not. */
export function Several({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly { id: string; label: string; title?: string }[];
  value: readonly string[];
  onChange: (value: string[]) => void;
}) {
  return (
    <Flex role="group" aria-label={label} wrap="wrap" gap="1">
      {options.map((option) => {
        const on = value.includes(option.id);
        return (
          <Box
            asChild
            key={option.id}
            px="2"
            py="0.5"
            minH="24px"
            fontSize="12.5px"
            borderWidth="1px"
            borderRadius="l2"
            borderColor={on ? 'moss.solid' : 'border.emphasized'}
            bg={on ? 'moss.muted' : 'bg.panel'}
            color={on ? 'fg' : 'fg.muted'}
          >
            <button
              type="button"
              aria-pressed={on}
              title={option.title}
              onClick={() => onChange(on ? value.filter((one) => one !== option.id) : [...value, option.id])}
            >
              {option.label}
            </button>
          </Box>
        );
      })}
    </Flex>
  );
}
