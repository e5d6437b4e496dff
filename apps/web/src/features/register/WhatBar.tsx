import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import { figure, type RegisterWhat, sayColumn, sayCondition } from '@coomb/core';
import { X } from 'lucide-react';
import { memo, type ReactNode } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { kindName } from './column-looks';
import { ConditionForm } from './ConditionForm';
import { KeepLens } from './KeepLens';
import { MakeKey } from './MakeKey';

interface Props {
  what: RegisterWhat;
  /** Conditions that ask for what is not in the project, by their places. */
  unknown: readonly number[];
  /** Rows of the range. */
  chosen: number;
  onSetField: () => void;
  onChange: (change: Partial<RegisterWhat>) => void;
  /** Adds rows. */
  adding: ReactNode;
}

/** What the rows are, as a sentence: kinds and conditions; and what may be made of it. */
export const WhatBar = memo(function WhatBar({ what, unknown, chosen, onSetField, onChange, adding }: Props) {
  const { scheme } = useProject();
  return (
    <Flex align="center" gap="1.5" px="4" py="1.5" wrap="wrap" borderBottomWidth="1px" fontSize="13px" color="fg.muted" flexShrink={0}>
      {kindName(what, scheme)}
      {what.conditions.map((condition, place) => {
        const words = sayCondition(scheme, condition);
        return (
          <Flex
            key={`${place} ${words}`}
            align="center"
            borderWidth="1px"
            borderRadius="l2"
            pl="2"
            bg="bg.subtle"
            color={unknown.includes(place) ? 'fg.warning' : 'fg'}
          >
            {place > 0 && (
              <Box color="fg.muted" mr="1">
                {what.match === 'all' ? 'and' : 'or'}
              </Box>
            )}
            {words}
            <IconButton
              aria-label={`Leave out: ${words}`}
              title="Leave it out"
              size="2xs"
              variant="plain"
              onClick={() => onChange({ conditions: what.conditions.filter((one) => one !== condition) })}
            >
              <X size={12} />
            </IconButton>
          </Flex>
        );
      })}
      <ConditionForm kinds={what.kinds} onAdd={(condition) => onChange({ conditions: [...what.conditions, condition] })} />
      {what.conditions.length > 1 && (
        <Choice
          label="Which must hold"
          value={what.match}
          options={[
            { value: 'all', label: 'all of these' },
            { value: 'any', label: 'any of these' },
          ]}
          onChange={(value) => onChange({ match: value as 'all' })}
        />
      )}
      <KeepLens what={what} />
      <MakeKey />
      <Box flex="1" />
      {what.shape === 'list' && (
        <Choice
          label="Group by"
          value={what.group.join('\u0001')}
          options={[
            { value: '', label: 'not grouped' },
            ...(what.group.length > 1 ? [{ value: what.group.join('\u0001'), label: 'by several columns' }] : []),
            ...what.columns.map((column) => ({ value: column.id, label: `by ${sayColumn(scheme, column)}` })),
          ]}
          onChange={(value) => onChange({ group: value ? value.split('\u0001') : [] })}
        />
      )}
      {adding}
      <Button size="2xs" variant="outline" disabled={chosen === 0} onClick={onSetField} title="One value for all rows of the range (E)">
        Set a field{chosen > 1 ? ` of ${figure(chosen)}` : ''}…
      </Button>
    </Flex>
  );
});
