import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { fieldTypeOf, fieldTypes, type FieldTypeId, type Meaning, type ProposedField } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { useAddFields } from './use-add-fields';

interface Props {
  kind: string;
  name: string;
  proposed: ProposedField | undefined;
  onMade: (meaning: Meaning) => void;
  onLeave: () => void;
}

/** A field that the kind does not have yet, made where it is missed. */
export function NewField({ kind, name, proposed, onMade, onLeave }: Props) {
  const add = useAddFields(useProject().id);
  const [label, setLabel] = useState(labelOf(name));
  const [type, setType] = useState<FieldTypeId>(proposed?.type ?? 'text');
  const [options, setOptions] = useState((proposed?.options ?? []).join(', '));
  const [unit, setUnit] = useState(proposed?.unit ?? '');
  const { has } = fieldTypeOf(type);
  const chosen = has === 'options';
  const make = () =>
    add.mutate(
      [{ kind, label: label.trim(), type, ...(chosen && { options: splitOptions(options) }), ...(has === 'unit' && unit.trim() && { unit: unit.trim() }) }],
      {
        onSuccess: ([field]) => onMade({ as: 'field', field: field!.id }),
      },
    );
  return (
    <Flex
      as="form"
      direction="column"
      gap="1"
      my="1"
      p="2"
      borderWidth="1px"
      bg="bg.subtle"
      aria-label={`New field for ${name}`}
      onSubmit={(event) => {
        event.preventDefault();
        make();
      }}
      onKeyDown={(event) => event.key === 'Escape' && onLeave()}
    >
      <Input size="2xs" aria-label="Name of the new field" value={label} autoFocus onChange={(event) => setLabel(event.target.value)} bg="bg" />
      <Choice
        label="Type of the new field"
        value={type}
        options={fieldTypes.map(({ id, label: words }) => ({ value: id, label: words }))}
        onChange={(value) => setType(value as FieldTypeId)}
        width="100%"
      />
      {chosen && (
        <Input
          size="2xs"
          aria-label="What may be chosen"
          placeholder="low, high"
          value={options}
          onChange={(event) => setOptions(event.target.value)}
          bg="bg"
        />
      )}
      {has === 'unit' && (
        <Input
          size="2xs"
          aria-label="Unit"
          placeholder="unit, such as mm"
          value={unit}
          maxLength={20}
          onChange={(event) => setUnit(event.target.value)}
          bg="bg"
        />
      )}
      {add.error && (
        <Box color="brick.fg" fontSize="12px">
          {add.error.message}
        </Box>
      )}
      <Flex gap="1">
        <Button type="submit" size="2xs" loading={add.isPending} disabled={!label.trim()}>
          Add field
        </Button>
        <Button size="2xs" variant="ghost" onClick={onLeave}>
          Leave
        </Button>
      </Flex>
    </Flex>
  );
}

/** Label of a field for a column or attribute: the lowest words of a header over several rows, without a standard's prefix. */
export function labelOf(name: string): string {
  return name
    .split(' / ')
    .at(-1)!
    .replace(/^ReqIF\./i, '')
    .slice(0, 80);
}

export function splitOptions(text: string): string[] {
  return [...new Set(text.split(',').flatMap((option) => option.trim() || []))];
}
