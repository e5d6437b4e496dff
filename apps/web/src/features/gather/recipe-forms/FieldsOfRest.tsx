import { Button } from '@chakra-ui/react';
import type { FieldTypeId, Meaning, ProposedField } from '@coomb/core';
import { useProject } from '../../../shared/live/project-queries';
import { notify, notifyError } from '../../../shared/ui/notices';
import { labelOf } from './NewField';
import { useAddFields } from './use-add-fields';

/** What goes nowhere yet, by its place in the recipe. */
export interface Unplaced {
  at: number;
  name: string;
  proposed: () => ProposedField;
}

/** Gives everything that goes nowhere a field of its own, in one step that can be undone. */
export function FieldsOfRest({
  kind,
  rest,
  what,
  onMade,
}: {
  kind: string;
  rest: readonly Unplaced[];
  what: string;
  onMade: (meanings: Map<number, Meaning>) => void;
}) {
  const add = useAddFields(useProject().id);
  if (rest.length === 0) return null;
  const labels = rest.map(({ name }) => labelOf(name));
  /** Two columns with the same lowest words keep their whole names. */
  const labelAt = (index: number) => (labels.filter((label) => label === labels[index]).length > 1 ? rest[index]!.name.slice(0, 80) : labels[index]!);
  const make = () =>
    add.mutate(
      rest.map(({ proposed }, index) => ({
        kind,
        label: labelAt(index),
        ...(proposed() as { type: FieldTypeId; options?: string[]; unit?: string }),
      })),
      {
        onSuccess: (fields) => {
          onMade(new Map(rest.map(({ at }, index) => [at, { as: 'field', field: fields[index]!.id }])));
          notify(`${fields.length} ${fields.length === 1 ? 'field holds' : 'fields hold'} what was left out`);
        },
        onError: notifyError,
      },
    );
  return (
    <Button size="2xs" variant="outline" loading={add.isPending} onClick={make} title={rest.map(({ name }) => name).join(', ')}>
      Make fields of {rest.length} {what} left out
    </Button>
  );
}
