import { Field, Input } from '@chakra-ui/react';
import { useId } from 'react';
import { usePersons } from '../../shared/ui/person-mark';

/** Somebody by name: whoever was here before is proposed, others may be written. */
export function PersonField({
  label,
  value,
  onChange,
  autoFocus,
  placeholder,
}: {
  label: string;
  value: string;
  onChange: (name: string) => void;
  autoFocus?: boolean;
  placeholder?: string;
}) {
  const list = useId();
  const persons = usePersons().data ?? [];
  return (
    <Field.Root>
      <Field.Label fontSize="13px" fontWeight="400" color="fg.muted">
        {label}
      </Field.Label>
      <Input
        size="sm"
        list={list}
        value={value}
        maxLength={80}
        placeholder={placeholder}
        autoFocus={autoFocus}
        onChange={(event) => onChange(event.target.value)}
      />
      <datalist id={list}>
        {persons.map(({ id, name }) => (
          <option key={id} value={name} />
        ))}
      </datalist>
    </Field.Root>
  );
}
