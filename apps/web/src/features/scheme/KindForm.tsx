import { Box, Button, Flex } from '@chakra-ui/react';
import { kindRoles, type KindRole, type PartOf } from '@coomb/core';
import { useState } from 'react';
import { Choice } from '../../shared/ui/choice';
import { FieldForm } from './FieldForm';
import { Labelled, Several, TextLine, Tick } from './form-parts';
import { newPart } from './scheme-draft';
import type { PartFormProps } from './part-form';

const roles = Object.entries(kindRoles).map(([id, { label, explains }]) => ({ id, label: label.toLowerCase(), title: explains }));

/** What a kind says: its names, its layer, what it is taken for, where its items land, and its fields. */
export function KindForm({ part, parts, scheme, collections, change, rename, issues }: PartFormProps<'kind'>) {
  const [open, setOpen] = useState('');
  const { body } = part;
  const set = (more: Partial<PartOf<'kind'>['body']>) => change([{ ...part, body: { ...body, ...more } }]);
  const fields = parts.filter((one) => one.sort === 'field' && !one.retired && one.body.kinds.includes(part.key)).sort((a, b) => a.rank - b.rank);
  const others = parts.filter((one) => one.sort === 'field' && !one.retired && !one.body.kinds.includes(part.key));
  const add = () => {
    const field = newPart(parts, 'field', 'field', { label: '', type: 'text', kinds: [part.key], linkKinds: [] });
    change([field]);
    setOpen(field.key);
  };
  return (
    <>
      <TextLine label="Name" value={body.label} onChange={(label) => set({ label, ...(body.plural === plural(body.label) && { plural: plural(label) }) })} />
      <TextLine label="Of several" value={body.plural} onChange={(next) => set({ plural: next })} />
      <Labelled label="Stands in">
        {() => (
          <Choice
            label="Layer of the kind"
            width="100%"
            value={body.layer}
            options={[
              ...scheme.layers.map((layer) => ({ value: layer.id, label: layer.label })),
              ...(scheme.layers.some((layer) => layer.id === body.layer) ? [] : [{ value: body.layer, label: 'no layer' }]),
            ]}
            onChange={(layer) => set({ layer })}
          />
        )}
      </Labelled>
      <Labelled label="Items">
        {() => <Tick label="explain only: they need no coverage" checked={body.informative ?? false} onChange={(informative) => set({ informative })} />}
      </Labelled>
      <Labelled label="Made in passing" hint="Where an item of this kind lands that is made while linking or clipping.">
        {() => (
          <Choice
            label="Home of new items"
            width="100%"
            value={collections.some((one) => one.id === body.home) ? body.home! : ''}
            options={[{ value: '', label: 'where one is working' }, ...collections.map((one) => ({ value: one.id, label: `in ${one.name}` }))]}
            onChange={(home) => set({ home: home || undefined } as { home: string })}
          />
        )}
      </Labelled>
      <Labelled label="Taken for" hint="What imports and figures look for, whatever the kind is called here.">
        {() => <Several label="Taken for" options={roles} value={body.roles ?? []} onChange={(next) => set({ roles: next as KindRole[] })} />}
      </Labelled>
      <Box fontWeight="600" fontSize="13px" mt="3" mb="1">
        Fields
      </Box>
      {fields.map((field) => (
        <FieldForm
          key={field.key}
          part={field as PartFormProps<'field'>['part']}
          {...{ parts, scheme, collections, change, rename, issues }}
          order={fields}
          open={open === field.key}
          onOpen={() => setOpen(open === field.key ? '' : field.key)}
        />
      ))}
      <Flex gap="2" mt="1.5" align="center" wrap="wrap">
        <Button size="2xs" variant="outline" onClick={add}>
          New field
        </Button>
        {others.length > 0 && (
          <Choice
            label="A field that other kinds have"
            value=""
            options={[
              { value: '', label: 'One that others have…' },
              ...others.map((field) => ({ value: field.key, label: field.sort === 'field' ? field.body.label : '' })),
            ]}
            onChange={(key) => {
              const field = others.find((one) => one.key === key);
              if (field?.sort === 'field') change([{ ...field, body: { ...field.body, kinds: [...field.body.kinds, part.key] } }]);
            }}
          />
        )}
      </Flex>
    </>
  );
}

const plural = (label: string) => (label ? `${label}s` : '');
