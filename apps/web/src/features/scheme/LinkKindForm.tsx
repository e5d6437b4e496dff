import { Box, Button } from '@chakra-ui/react';
import { linkRoles, type LinkRole, type PartOf } from '@coomb/core';
import { useState } from 'react';
import { Choice } from '../../shared/ui/choice';
import { FieldForm } from './FieldForm';
import { Labelled, Several, TextLine } from './form-parts';
import type { PartFormProps } from './part-form';
import { newPart } from './scheme-draft';

/** What a kind of link says: how it reads each way, where it may begin and end, and what depends on what. */
export function LinkKindForm({ part, parts, scheme, collections, change, rename, issues }: PartFormProps<'linkKind'>) {
  const [open, setOpen] = useState('');
  const { body } = part;
  const set = (more: Partial<PartOf<'linkKind'>['body']>) => change([{ ...part, body: { ...body, ...more } }]);
  const kinds = scheme.kinds.filter((kind) => !kind.retired || body.fromKinds.includes(kind.id) || body.toKinds.includes(kind.id));
  const options = kinds.map((kind) => ({
    id: kind.id,
    label: kind.retired ? `${kind.label} (retired)` : kind.label,
    title: scheme.layers.find((layer) => layer.id === kind.layer)?.label ?? '',
  }));
  const fields = parts.filter((one) => one.sort === 'field' && !one.retired && one.body.linkKinds.includes(part.key)).sort((a, b) => a.rank - b.rank);
  return (
    <>
      <TextLine label="Reads" value={body.phrase} placeholder="satisfies" onChange={(phrase) => set({ phrase })} />
      <TextLine label="Reads back" value={body.reverse} placeholder="is satisfied by" onChange={(reverse) => set({ reverse })} />
      <Labelled label="May begin at">
        {() => <Several label="May begin at" options={options} value={body.fromKinds} onChange={(fromKinds) => set({ fromKinds })} />}
      </Labelled>
      <Labelled label="May end at">
        {() => <Several label="May end at" options={options} value={body.toKinds} onChange={(toKinds) => set({ toKinds })} />}
      </Labelled>
      <Labelled label="Upstream" hint="The trail of an item shows what it comes from on the left.">
        {() => (
          <Choice
            label="Which end is upstream"
            width="100%"
            value={body.upstream}
            options={[
              { value: 'to', label: 'where it ends' },
              { value: 'from', label: 'where it begins' },
            ]}
            onChange={(upstream) => set({ upstream: upstream as 'from' | 'to' })}
          />
        )}
      </Labelled>
      <Labelled label="Taken for" hint="What imports and reports look for, whatever the link is called here.">
        {() => (
          <Choice
            label="What the link is taken for"
            width="100%"
            value={body.role ?? ''}
            options={[
              { value: '', label: 'nothing' },
              ...Object.entries(linkRoles).map(([value, { label, explains }]) => ({ value, label: `${label}: ${explains}` })),
            ]}
            onChange={(role) => set({ role: (role || undefined) as LinkRole })}
          />
        )}
      </Labelled>
      <Box fontWeight="600" fontSize="13px" mt="3" mb="1">
        Fields of these links
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
      <Button
        size="2xs"
        variant="outline"
        mt="1.5"
        onClick={() => {
          const field = newPart(parts, 'field', 'field', { label: '', type: 'text', kinds: [], linkKinds: [part.key] });
          change([field]);
          setOpen(field.key);
        }}
      >
        New field
      </Button>
    </>
  );
}
