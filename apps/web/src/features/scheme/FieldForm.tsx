import { Box, Button, Flex, IconButton, Input } from '@chakra-ui/react';
import type { SchemeEdit } from '@coomb/contract';
import { fieldRoles, type FieldRole, fieldTypeOf, fieldTypes, type FieldValue, type PartOf } from '@coomb/core';
import { ArrowDown, ArrowUp, ChevronDown, ChevronRight, X } from 'lucide-react';
import { useState } from 'react';
import { Choice } from '../../shared/ui/choice';
import { OneLine } from '../../shared/ui/one-line';
import { Labelled, Several, TextLine, Tick } from './form-parts';
import type { PartFormProps } from './part-form';
import { movePart } from './scheme-draft';

interface Props extends PartFormProps<'field'> {
  /** The fields that it stands among, in order. */
  order: readonly SchemeEdit[];
  open: boolean;
  onOpen: () => void;
}

/** One field in a line, which opens to all that it says. */
export function FieldForm({ part, scheme, change, rename, order, open, onOpen, issues }: Props) {
  const { body } = part;
  const set = (more: Partial<PartOf<'field'>['body']>) => change([{ ...part, body: { ...body, ...more } }]);
  const fieldType = fieldTypeOf(body.type);
  const hasOptions = fieldType.has === 'options';
  const says = [
    fieldType.label,
    hasOptions && body.options?.length ? body.options.join(', ') : '',
    body.unit ? `in ${body.unit}` : '',
    body.required ? 'required' : '',
    body.meaning ? 'bears meaning' : '',
  ].filter(Boolean);
  return (
    <Box borderTopWidth="1px">
      <Flex align="center" gap="1">
        <Flex asChild flex="1" minW="0" gap="2" py="1" align="baseline" textAlign="left" _hover={{ color: 'moss.fg' }}>
          <button type="button" aria-expanded={open} onClick={onOpen}>
            {open ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
            <Box whiteSpace="nowrap">{body.label || 'no name'}</Box>
            <OneLine fontSize="12px" color="fg.muted" text={says.join(' · ')} />
          </button>
        </Flex>
        <Move label={`Move ${body.label} up`} by={-1} {...{ order, part, change }} />
        <Move label={`Move ${body.label} down`} by={1} {...{ order, part, change }} />
      </Flex>
      {open && (
        <Box pl="4" pb="2" borderLeftWidth="2px" borderColor="moss.border" ml="1.5">
          {issues
            .filter((issue) => issue.sort === 'field' && issue.key === part.key)
            .map((issue) => (
              <Box key={issue.message} color="brick.fg" fontSize="12.5px">
                {issue.message}
              </Box>
            ))}
          <TextLine label="Name" value={body.label} onChange={(label) => set({ label })} />
          <Labelled label="Holds">
            {() => (
              <Flex gap="1">
                <Choice
                  label="Type of the field"
                  value={body.type}
                  options={fieldTypes.map(({ id, label }) => ({ value: id, label }))}
                  onChange={(type) => set({ type: type as typeof body.type })}
                />
                {fieldType.has === 'unit' && (
                  <Input
                    size="xs"
                    w="6rem"
                    bg="bg.panel"
                    aria-label="Unit"
                    placeholder="unit"
                    value={body.unit ?? ''}
                    maxLength={20}
                    onChange={(event) => set({ unit: event.target.value })}
                  />
                )}
              </Flex>
            )}
          </Labelled>
          {hasOptions && <Options field={part.key} options={body.options ?? []} set={(options) => set({ options })} rename={rename} />}
          <Labelled label="">
            {() => (
              <Flex gap="3" wrap="wrap">
                <Tick label="required" checked={body.required ?? false} onChange={(required) => set({ required })} title="Items without a value are findings" />
                <Tick
                  label="bears meaning"
                  checked={body.meaning ?? false}
                  onChange={(meaning) => set({ meaning })}
                  title="A change of it makes links of the item suspect"
                />
              </Flex>
            )}
          </Labelled>
          <Default body={body} set={set} />
          <Labelled label="Taken for">
            {() => (
              <Choice
                label="What the field is taken for"
                value={body.role ?? ''}
                options={[{ value: '', label: 'nothing' }, ...Object.entries(fieldRoles).map(([value, { label }]) => ({ value, label: label.toLowerCase() }))]}
                onChange={(role) => set({ role: (role || undefined) as FieldRole })}
              />
            )}
          </Labelled>
          <Labelled label="Field of">
            {() => (
              <Several
                label="Kinds that have the field"
                options={scheme.kinds.filter((kind) => !kind.retired).map((kind) => ({ id: kind.id, label: kind.label }))}
                value={body.kinds}
                onChange={(kinds) => set({ kinds })}
              />
            )}
          </Labelled>
          <Button size="2xs" variant="ghost" onClick={() => change([{ ...part, retired: true }])}>
            Retire the field
          </Button>
        </Box>
      )}
    </Box>
  );
}

function Move({
  label,
  by,
  order,
  part,
  change,
}: {
  label: string;
  by: -1 | 1;
  order: readonly SchemeEdit[];
  part: SchemeEdit;
  change: (parts: readonly SchemeEdit[]) => void;
}) {
  const moved = movePart(order, part, by);
  return (
    <IconButton size="2xs" variant="ghost" aria-label={label} title={label} disabled={moved.length === 0} onClick={() => change(moved)}>
      {by < 0 ? <ArrowUp size={13} /> : <ArrowDown size={13} />}
    </IconButton>
  );
}

function Options({
  field,
  options,
  set,
  rename,
}: {
  field: string;
  options: readonly string[];
  set: (options: string[]) => void;
  rename: PartFormProps<'field'>['rename'];
}) {
  const [next, setNext] = useState('');
  const add = () => {
    const option = next.trim();
    if (option && !options.includes(option)) set([...options, option]);
    setNext('');
  };
  return (
    <Labelled label="Choices" hint="A choice that is called otherwise is called so on the items too.">
      {(id) => (
        <Flex direction="column" gap="1">
          {options.map((option, index) => (
            <Flex key={`${index} ${option}`} gap="1">
              <Input
                size="xs"
                bg="bg.panel"
                aria-label={`Choice ${index + 1}`}
                defaultValue={option}
                onBlur={(event) => {
                  const to = event.target.value.trim();
                  if (to && to !== option && !options.includes(to)) rename(field, option, to);
                  else event.target.value = option;
                }}
                onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
              />
              <IconButton
                size="xs"
                variant="ghost"
                aria-label={`Move ${option} up`}
                title={`Move ${option} up`}
                disabled={index === 0}
                onClick={() => set([...options.slice(0, index - 1), option, options[index - 1]!, ...options.slice(index + 1)])}
              >
                <ArrowUp size={13} />
              </IconButton>
              <IconButton
                size="xs"
                variant="ghost"
                aria-label={`Take ${option} away`}
                title={`Take ${option} away`}
                onClick={() => set(options.filter((one) => one !== option))}
              >
                <X size={13} />
              </IconButton>
            </Flex>
          ))}
          <Flex gap="1">
            <Input
              id={id}
              size="xs"
              bg="bg.panel"
              placeholder="one more choice"
              value={next}
              onChange={(event) => setNext(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                add();
              }}
            />
            <Button size="xs" variant="outline" disabled={!next.trim()} onClick={add}>
              Add
            </Button>
          </Flex>
        </Flex>
      )}
    </Labelled>
  );
}

/** What new items have, as far as a line can say it. */
function Default({ body, set }: { body: PartOf<'field'>['body']; set: (more: { default: FieldValue }) => void }) {
  const value = body.default ?? null;
  const { editor, read } = fieldTypeOf(body.type);
  if (editor === 'one')
    return (
      <Labelled label="At first">
        {() => (
          <Choice
            label="Default"
            value={typeof value === 'string' ? value : ''}
            options={[{ value: '', label: 'empty' }, ...(body.options ?? []).map((option) => ({ value: option, label: option }))]}
            onChange={(next) => set({ default: next || null })}
          />
        )}
      </Labelled>
    );
  if (editor === 'yesNo')
    return (
      <Labelled label="At first">
        {() => (
          <Choice
            label="Default"
            value={value === true ? 'yes' : value === false ? 'no' : ''}
            options={['', 'yes', 'no'].map((one) => ({ value: one, label: one || 'empty' }))}
            onChange={(next) => set({ default: next === '' ? null : next === 'yes' })}
          />
        )}
      </Labelled>
    );
  if (editor === 'rich' || editor === 'several') return null;
  // What cannot be read stands as it is typed; the scheme says what is wrong with it.
  const valueSaid = (text: string): FieldValue => (text.trim() === '' ? null : (read(text.trim(), body).value ?? text));
  return <TextLine label="At first" placeholder="empty" value={value === null ? '' : String(value)} onChange={(text) => set({ default: valueSaid(text) })} />;
}
