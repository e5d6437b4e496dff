import { Box, Button, Checkbox, Flex, Input } from '@chakra-ui/react';
import { findKind, type Scheme, type SheetRecipe } from '@coomb/core';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Choice } from '../../shared/ui/choice';

interface Props {
  scheme: Scheme;
  recipe: SheetRecipe;
  /** Whether the sheet has merged cells. */
  merged: boolean;
  onChange: (recipe: SheetRecipe) => void;
}

/** What of a sheet is no item, and how its rows stand below one another when no column says so. */
export function SheetOptions({ scheme, recipe, merged, onChange, children }: Props & { children?: ReactNode }) {
  const [rule] = recipe.skip ?? [];
  const named = recipe.columns.filter((column) => column.name.trim());
  return (
    <Flex gap="6" px="4" py="1.5" align="center" fontSize="13px" bg="bg.panel" wrap="wrap">
      <Checkbox.Root size="sm" checked={recipe.indented === true} onCheckedChange={({ checked }) => onChange({ ...recipe, indented: checked === true })}>
        <Checkbox.HiddenInput />
        <Checkbox.Control />
        <Checkbox.Label fontWeight="400">Blanks before a title tell what stands below what</Checkbox.Label>
      </Checkbox.Root>
      {merged && (
        <Checkbox.Root size="sm" checked={recipe.bands === true} onCheckedChange={({ checked }) => onChange({ ...recipe, bands: checked === true })}>
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">Rows merged across are sections</Checkbox.Label>
        </Checkbox.Root>
      )}
      <Flex gap="2" align="center">
        <Box>Leave out rows where</Box>
        <Choice
          label="Column to leave rows out by"
          value={rule?.column ?? ''}
          options={[{ value: '', label: 'no column' }, ...named.map(({ name }) => ({ value: name, label: name }))]}
          onChange={(column) => onChange({ ...recipe, skip: column ? [{ column, values: rule?.values ?? [] }] : undefined })}
        />
        {rule && (
          <>
            <Box>is</Box>
            <Input
              size="2xs"
              w="170px"
              aria-label="Values of rows to leave out"
              placeholder="Deleted, Obsolete"
              value={rule.values.join(', ')}
              onChange={(event) => onChange({ ...recipe, skip: [{ column: rule.column, values: event.target.value.split(/,\s*/) }] })}
            />
          </>
        )}
      </Flex>
      <Constants scheme={scheme} recipe={recipe} onChange={onChange} />
      {children}
    </Flex>
  );
}

/** Fields that hold the same for every item, because no column does. */
function Constants({ scheme, recipe, onChange }: Omit<Props, 'merged'>) {
  const constants = recipe.constants ?? {};
  const fields = findKind(scheme, recipe.kind)?.fields ?? [];
  const inColumn = new Set(recipe.columns.flatMap(({ meaning }) => (meaning.as === 'field' ? [meaning.field] : [])));
  const open = fields.filter((field) => !(field.id in constants) && !inColumn.has(field.id));
  const set = (field: string, value: string | undefined) => {
    const { [field]: _, ...others } = constants;
    const next = value === undefined ? others : { ...constants, [field]: value };
    onChange({ ...recipe, constants: Object.keys(next).length ? next : undefined });
  };
  return (
    <>
      {Object.entries(constants).map(([id, value]) => {
        const field = fields.find((one) => one.id === id);
        const label = field?.label ?? id;
        return (
          <Flex key={id} gap="2" align="center">
            <Box>{label} of every item is</Box>
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
