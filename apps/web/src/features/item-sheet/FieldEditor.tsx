import { RichText } from '../../shared/ui/rich-text';
import { Checkbox, Flex, Input, Textarea } from '@chakra-ui/react';
import type { Field, FieldValue } from '@coomb/core';
import { lazy, Suspense } from 'react';
import { Choice } from '../../shared/ui/choice';

const RichTextEditor = lazy(() => import('../../shared/editor/RichTextEditor'));

interface Props {
  field: Field;
  value: FieldValue | undefined;
  onChange: (value: FieldValue) => void;
}

/** An editor for one field, by its type. */
export function FieldEditor({ field, value, onChange }: Props) {
  const text = value === null || value === undefined ? '' : Array.isArray(value) ? value.join(', ') : String(value);
  switch (field.type) {
    case 'choice':
      return (
        <Choice
          label={field.label}
          value={text}
          options={[{ value: '', label: '–' }, ...withPresent(field, text)]}
          onChange={(next) => onChange(next || null)}
        />
      );
    case 'choices':
      return field.options ? (
        <Choices field={field} chosen={Array.isArray(value) ? value : []} onChange={onChange} />
      ) : (
        <Input size="xs" aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value.split(/,\s*/).filter(Boolean))} bg="bg.panel" />
      );
    case 'yesNo':
      return (
        <Choice
          label={field.label}
          value={text}
          options={[
            { value: '', label: '–' },
            { value: 'true', label: 'Yes' },
            { value: 'false', label: 'No' },
          ]}
          onChange={(next) => onChange(next === '' ? null : next === 'true')}
        />
      );
    case 'number':
      return (
        <Input
          size="xs"
          type="number"
          aria-label={field.label}
          value={text}
          onChange={(event) => onChange(event.target.value === '' ? null : Number(event.target.value))}
          bg="bg.panel"
        />
      );
    case 'date':
      return <Input size="xs" type="date" aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value || null)} bg="bg.panel" />;
    case 'rich':
      return (
        <Suspense fallback={null}>
          <RichTextEditor html={text} label={field.label} onChange={onChange} />
        </Suspense>
      );
    case 'text':
      return <Textarea size="xs" rows={2} aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value)} bg="bg.panel" />;
    default:
      return <Input size="xs" aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value)} bg="bg.panel" />;
  }
}

function withPresent(field: Field, present: string): { value: string; label: string }[] {
  const options = field.options ?? [];
  return [...options, ...(present && !options.includes(present) ? [present] : [])].map((option) => ({ value: option, label: option }));
}

function Choices({ field, chosen, onChange }: { field: Field; chosen: string[]; onChange: (value: string[]) => void }) {
  const options = [...new Set([...(field.options ?? []), ...chosen])];
  return (
    <Flex gap="3" wrap="wrap">
      {options.map((option) => (
        <Checkbox.Root
          key={option}
          size="sm"
          checked={chosen.includes(option)}
          onCheckedChange={({ checked }) => onChange(checked ? [...chosen, option] : chosen.filter((one) => one !== option))}
        >
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">{option}</Checkbox.Label>
        </Checkbox.Root>
      ))}
    </Flex>
  );
}

/** A field as read: words, not a form. */
export function FieldText({ field, value }: { field: Field; value: FieldValue | undefined }) {
  if (value === null || value === undefined || value === '') return null;
  if (field.type === 'rich') return <RichText className="rich" html={value} />;
  if (field.type === 'yesNo') return <>{value ? 'Yes' : 'No'}</>;
  return <>{Array.isArray(value) ? value.join(', ') : `${value}${field.unit ? ` ${field.unit}` : ''}`}</>;
}
