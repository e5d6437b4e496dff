import { Box, Checkbox, Flex, Input } from '@chakra-ui/react';
import type { SheetRecipe } from '@coomb/core';
import { Choice } from '../../shared/ui/choice';

/** What of a sheet is no item, and how its rows stand below one another when no column says so. */
export function SheetOptions({ recipe, onChange }: { recipe: SheetRecipe; onChange: (recipe: SheetRecipe) => void }) {
  const [rule] = recipe.skip ?? [];
  const named = recipe.columns.filter((column) => column.name.trim());
  return (
    <Flex gap="6" px="4" py="1.5" align="center" fontSize="13px" bg="bg.panel" wrap="wrap">
      <Checkbox.Root size="sm" checked={recipe.indented === true} onCheckedChange={({ checked }) => onChange({ ...recipe, indented: checked === true })}>
        <Checkbox.HiddenInput />
        <Checkbox.Control />
        <Checkbox.Label fontWeight="400">Blanks before a title tell what stands below what</Checkbox.Label>
      </Checkbox.Root>
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
    </Flex>
  );
}
