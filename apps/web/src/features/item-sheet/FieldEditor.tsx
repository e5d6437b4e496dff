import { RichText } from '../../shared/ui/rich-text';
import { Checkbox, Flex, Input, Textarea } from '@chakra-ui/react';
import { type Field, type FieldType, fieldTypeOf, type FieldValue } from '@coomb/core';
import { lazy, Suspense } from 'react';
import { Choice } from '../../shared/ui/choice';

const RichTextEditor = lazy(() => import('../../shared/editor/RichTextEditor'));

interface Props {
  field: Field;
  value: FieldValue | undefined;
  onChange: (value: FieldValue) => void;
}

/** An editor for one field: the one that its type asks for. */
export function FieldEditor(props: Props) {
  const Editor = editors[fieldTypeOf(props.field.type).editor];
  return <Editor {...props} text={textOf(props.value)} />;
}

const textOf = (value: FieldValue | undefined) => (value === null || value === undefined ? '' : Array.isArray(value) ? value.join(', ') : String(value));

type EditorProps = Props & { text: string };

/** Every way to edit a value; types name theirs. */
const editors: Record<FieldType['editor'], (props: EditorProps) => React.ReactNode> = {
  line: ({ field, text, onChange }) => (
    <Input size="xs" aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value)} bg="bg.panel" />
  ),
  lines: ({ field, text, onChange }) => (
    <Textarea size="xs" rows={2} aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value)} bg="bg.panel" />
  ),
  rich: ({ field, text, onChange }) => (
    <Suspense fallback={null}>
      <RichTextEditor html={text} label={field.label} onChange={onChange} />
    </Suspense>
  ),
  number: ({ field, text, onChange }) => (
    <Input
      size="xs"
      type="number"
      aria-label={field.label}
      value={text}
      onChange={(event) => onChange(event.target.value === '' ? null : Number(event.target.value))}
      bg="bg.panel"
    />
  ),
  day: ({ field, text, onChange }) => (
    <Input size="xs" type="date" aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value || null)} bg="bg.panel" />
  ),
  yesNo: ({ field, text, onChange }) => (
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
  ),
  one: ({ field, text, onChange }) => (
    <Choice label={field.label} value={text} options={[{ value: '', label: '–' }, ...withPresent(field, text)]} onChange={(next) => onChange(next || null)} />
  ),
  several: ({ field, value, text, onChange }) =>
    field.options ? (
      <Choices field={field} chosen={Array.isArray(value) ? value : []} onChange={onChange} />
    ) : (
      <Input size="xs" aria-label={field.label} value={text} onChange={(event) => onChange(event.target.value.split(/,\s*/).filter(Boolean))} bg="bg.panel" />
    ),
};

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
  if (fieldTypeOf(field.type).rich) return <RichText className="rich" html={value} />;
  if (typeof value === 'boolean') return <>{value ? 'Yes' : 'No'}</>;
  return <>{Array.isArray(value) ? value.join(', ') : `${value}${field.unit ? ` ${field.unit}` : ''}`}</>;
}
