import { Box, Checkbox, Flex, Input } from '@chakra-ui/react';
import type { Scheme, SheetRecipe } from '@coomb/core';
import type { ReactNode } from 'react';
import { Choice } from '../../../shared/ui/choice';
import { Constants } from './Constants';

const separators = [
  { value: ',', label: 'commas' },
  { value: ';', label: 'semicolons' },
  { value: '\t', label: 'tabs' },
  { value: '|', label: 'bars' },
  { value: ':', label: 'colons' },
];
const quotes = [
  { value: '"', label: 'double marks (")' },
  { value: "'", label: "single marks (')" },
];

interface Props {
  scheme: Scheme;
  recipe: SheetRecipe;
  /** Whether the sheet has merged cells. */
  merged: boolean;
  /** How a file of separated values was read, and how to read it otherwise. */
  dialect?: NonNullable<SheetRecipe['dialect']> | undefined;
  onDialect?: (dialect: NonNullable<SheetRecipe['dialect']>) => void;
  onChange: (recipe: SheetRecipe) => void;
}

/** What of a sheet is no item, and how its rows stand below one another when no column says so. */
export function SheetOptions({ scheme, recipe, merged, dialect, onDialect, onChange, children }: Props & { children?: ReactNode }) {
  const [rule] = recipe.skip ?? [];
  const named = recipe.columns.filter((column) => column.name.trim());
  return (
    <Flex columnGap="5" rowGap="1" px="4" py="1.5" align="center" fontSize="13px" bg="bg.panel" wrap="wrap">
      {dialect && onDialect && (
        <Flex gap="2" align="center">
          <Box>Parted by</Box>
          <Choice label="Separator" value={dialect.separator} options={separators} onChange={(separator) => onDialect({ ...dialect, separator })} />
          <Box>quoted by</Box>
          <Choice label="Quotation mark" value={dialect.quote} options={quotes} onChange={(quote) => onDialect({ ...dialect, quote })} />
        </Flex>
      )}
      <Checkbox.Root size="sm" checked={recipe.indented === true} onCheckedChange={({ checked }) => onChange({ ...recipe, indented: checked === true })}>
        <Checkbox.HiddenInput />
        <Checkbox.Control />
        <Checkbox.Label fontWeight="400">Indented rows stand below</Checkbox.Label>
      </Checkbox.Root>
      <Checkbox.Root size="sm" checked={recipe.goesOn === true} onCheckedChange={({ checked }) => onChange({ ...recipe, goesOn: checked === true })}>
        <Checkbox.HiddenInput />
        <Checkbox.Control />
        <Checkbox.Label fontWeight="400" title="Rows without reference and title go on with the one above">
          Unnamed rows go on
        </Checkbox.Label>
      </Checkbox.Root>
      {merged && (
        <Checkbox.Root size="sm" checked={recipe.bands === true} onCheckedChange={({ checked }) => onChange({ ...recipe, bands: checked === true })}>
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">{dialect ? 'Rows with words alone are sections' : 'Merged rows are sections'}</Checkbox.Label>
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
      <Constants
        scheme={scheme}
        kind={recipe.kind}
        constants={recipe.constants}
        said={recipe.columns.map(({ meaning }) => meaning)}
        onChange={(constants) => onChange({ ...recipe, constants })}
      />
      {children}
    </Flex>
  );
}
