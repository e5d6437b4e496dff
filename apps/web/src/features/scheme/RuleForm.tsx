import { Box, Flex, Input } from '@chakra-ui/react';
import { type ItemFilter, type PartOf, sayRule, type Scheme } from '@coomb/core';
import type { ReactNode } from 'react';
import { Choice } from '../../shared/ui/choice';
import { Several, TextLine, Tick } from './form-parts';
import type { PartFormProps } from './part-form';

/** A rule as a sentence that is composed by choosing its words. */
export function RuleForm({ part, scheme, change }: PartFormProps<'rule'>) {
  const { body } = part;
  const set = (more: Partial<PartOf<'rule'>['body']>) => change([{ ...part, body: { ...body, ...more } }]);
  const links = scheme.linkKinds
    .filter((kind) => !kind.retired || body.along.some((step) => step.linkKind === kind.id))
    .flatMap((kind) => [
      { id: `out ${kind.id}`, label: kind.phrase },
      { id: `in ${kind.id}`, label: kind.reverse },
    ]);
  return (
    <>
      <TextLine label="Name" value={body.label} onChange={(label) => set({ label })} />
      <Box fontFamily="serif" fontSize="17px" lineHeight="1.4" py="2" px="3" my="2" bg="bg.subtle" borderLeftWidth="3px" borderColor="moss.solid">
        {sayRule(scheme, body)}
      </Box>
      <Slot word="Every">
        <Filter name="asked of" scheme={scheme} value={body.of} onChange={(of) => set({ of })} />
      </Slot>
      <Slot word="…">
        <Several
          label="Along which links"
          options={links}
          value={body.along.map((step) => `${step.direction} ${step.linkKind}`)}
          onChange={(along) =>
            set({
              along: along.map((one) => {
                const [direction, linkKind] = one.split(' ') as ['in' | 'out', string];
                return { linkKind, direction };
              }),
            })
          }
        />
      </Slot>
      <Slot word="at least">
        <HowMany label="At least how many" value={body.atLeast} most={1000} onChange={(atLeast) => set({ atLeast })} />
        <Filter name="to be reached" scheme={scheme} value={body.reach} onChange={(reach) => set({ reach })} />
      </Slot>
      <Slot word="over up to">
        <Flex align="center" gap="2">
          <HowMany label="Over how many links" value={body.steps} most={8} onChange={(steps) => set({ steps })} />
          {body.steps === 1 ? 'link' : 'links'}
        </Flex>
      </Slot>
      <Slot word="and">
        <Tick
          label="in each usage of an item that is used in several places"
          checked={body.throughUsages ?? false}
          onChange={(throughUsages) => set({ throughUsages })}
        />
      </Slot>
    </>
  );
}

function Slot({ word, children }: { word: string; children: ReactNode }) {
  return (
    <Flex gap="2" py="1.5" borderTopWidth="1px" align="baseline">
      <Box w="5.2rem" flexShrink={0} fontFamily="serif" fontSize="15px" fontStyle="italic">
        {word}
      </Box>
      <Flex direction="column" gap="1.5" flex="1" minW="0">
        {children}
      </Flex>
    </Flex>
  );
}

function HowMany({ label, value, most, onChange }: { label: string; value: number; most: number; onChange: (value: number) => void }) {
  return (
    <Input
      size="xs"
      type="number"
      w="4.5rem"
      bg="bg.panel"
      aria-label={label}
      min={1}
      max={most}
      value={value}
      onChange={(event) => {
        const next = Math.round(event.target.valueAsNumber);
        if (next >= 1 && next <= most) onChange(next);
      }}
    />
  );
}

/** Of which kinds, and with which value of a field. */
export function Filter({ name, scheme, value, onChange }: { name: string; scheme: Scheme; value: ItemFilter; onChange: (value: ItemFilter) => void }) {
  const kinds = scheme.kinds.filter((kind) => !kind.retired || value.kinds.includes(kind.id));
  const fields = new Map(kinds.filter((kind) => value.kinds.includes(kind.id)).flatMap((kind) => kind.fields.map((field) => [field.id, field] as const)));
  const chosen = value.field && fields.get(value.field.id);
  return (
    <>
      <Several
        label={`Kinds ${name}`}
        options={kinds.map((kind) => ({ id: kind.id, label: kind.label }))}
        value={value.kinds}
        onChange={(next) => onChange({ ...value, kinds: next })}
      />
      {fields.size > 0 && (
        <Flex gap="2" align="center" wrap="wrap" fontSize="13px">
          <Choice
            label={`Only some, ${name}`}
            value={value.field?.id ?? ''}
            options={[
              { value: '', label: 'all of them' },
              ...[...fields.values()]
                .filter((field) => field.type !== 'rich')
                .map((field) => ({ value: field.id, label: `whose ${field.label.toLowerCase()} is` })),
            ]}
            onChange={(id) => onChange(id ? { ...value, field: { id, oneOf: fields.get(id)?.options?.slice(0, 1) ?? [] } } : { kinds: value.kinds })}
          />
          {value.field &&
            (chosen?.options?.length ? (
              <Several
                label={`Values, ${name}`}
                options={chosen.options.map((option) => ({ id: option, label: option }))}
                value={value.field.oneOf}
                onChange={(oneOf) => onChange({ ...value, field: { id: value.field!.id, oneOf } })}
              />
            ) : (
              <Input
                size="xs"
                w="12rem"
                bg="bg.panel"
                aria-label={`Values, ${name}`}
                placeholder="value, or several with commas"
                value={value.field.oneOf.join(', ')}
                onChange={(event) => onChange({ ...value, field: { id: value.field!.id, oneOf: event.target.value.split(/,\s*/).filter(Boolean) } })}
              />
            ))}
        </Flex>
      )}
    </>
  );
}
