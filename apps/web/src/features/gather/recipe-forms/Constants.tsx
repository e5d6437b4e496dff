import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { type ExchangeMeaning, findKind, type Scheme } from '@coomb/core';
import { X } from 'lucide-react';
import { Choice } from '../../../shared/ui/choice';

interface Props {
  scheme: Scheme;
  kind: string;
  constants: Record<string, string> | undefined;
  /** What the file says by itself: fields among them need no value for every item. */
  said: readonly ExchangeMeaning[];
  onChange: (constants: Record<string, string> | undefined) => void;
}

/** Fields that hold the same for every item, because the file does not say them. */
export function Constants({ scheme, kind, constants = {}, said, onChange }: Props) {
  const fields = findKind(scheme, kind)?.fields ?? [];
  const known = new Set(said.flatMap((meaning) => (meaning.as === 'field' ? [meaning.field] : [])));
  const open = fields.filter((field) => !(field.id in constants) && !known.has(field.id));
  const set = (field: string, value: string | undefined) => {
    const { [field]: _, ...others } = constants;
    const next = value === undefined ? others : { ...constants, [field]: value };
    onChange(Object.keys(next).length ? next : undefined);
  };
  return (
    <>
      {Object.entries(constants).map(([id, value]) => {
        const field = fields.find((one) => one.id === id);
        const label = field?.label ?? id;
        return (
          <Flex key={id} gap="2" align="center" py="0.5">
            <Box flex="1" whiteSpace="nowrap">
              {label} of every item is
            </Box>
            {field?.options?.length ? (
              <Choice
                label={`${label} of every item`}
                value={value}
                options={['', ...field.options].map((one) => ({ value: one, label: one || '–' }))}
                onChange={(next) => set(id, next)}
              />
            ) : (
              <Input size="2xs" w="130px" aria-label={`${label} of every item`} value={value} onChange={(event) => set(id, event.target.value)} />
            )}
            <Button size="2xs" variant="ghost" minW="5" px="0" aria-label={`Forget ${label}`} onClick={() => set(id, undefined)}>
              <X size={13} aria-hidden />
            </Button>
          </Flex>
        );
      })}
      {open.length > 0 && (
        <Choice
          label="Field that is the same for every item"
          value=""
          options={[{ value: '', label: 'the same for every item…' }, ...open.map((field) => ({ value: field.id, label: field.label }))]}
          onChange={(field) => field && set(field, '')}
        />
      )}
    </>
  );
}
