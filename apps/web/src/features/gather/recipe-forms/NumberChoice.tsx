import { Box, Flex, Input } from '@chakra-ui/react';
import { type DocumentRecipe, findKind } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { NewField } from './NewField';

interface Props {
  recipe: DocumentRecipe;
  onChange: (change: Partial<DocumentRecipe>) => void;
}

/** What becomes of the numbers that headings and clauses carry: nothing, the reference, or a field. */
export function NumberChoice({ recipe, onChange }: Props) {
  const { scheme } = useProject();
  const [making, setMaking] = useState(false);
  const fields = findKind(scheme, recipe.kind)?.fields.filter((field) => field.type === 'text') ?? [];
  const asReference = recipe.numberPrefix !== undefined;
  const choose = (value: string) => {
    if (value === 'new') return setMaking(true);
    setMaking(false);
    onChange({ numberPrefix: value === 'reference' ? '' : undefined, numberField: value.startsWith('field ') ? value.slice(6) : undefined });
  };
  return (
    <>
      <Flex align="center" gap="2" mt="1.5" mb="1.5">
        <Box flex="1">Numbers are</Box>
        <Choice
          label="Numbers of headings and clauses"
          value={asReference ? 'reference' : recipe.numberField === undefined ? 'ignore' : `field ${recipe.numberField}`}
          options={[
            { value: 'ignore', label: 'left as they stand' },
            { value: 'reference', label: 'reference' },
            ...fields.map((field) => ({ value: `field ${field.id}`, label: `field: ${field.label.toLowerCase()}` })),
            { value: 'new', label: 'a new field…' },
          ]}
          onChange={choose}
          width="168px"
        />
      </Flex>
      {!asReference && recipe.numberField === undefined && !making && (
        <Box color="fg.muted" fontSize="12.5px">
          Typed numbers stay part of titles and texts. Numbers move when something is inserted; in a field of their own they change nothing else.
        </Box>
      )}
      {making && (
        <NewField
          kind={recipe.kind}
          name="Clause"
          proposed={undefined}
          onMade={(made) => {
            setMaking(false);
            if (made.as === 'field') onChange({ numberPrefix: undefined, numberField: made.field });
          }}
          onLeave={() => setMaking(false)}
        />
      )}
      {asReference && (
        <>
          <Flex align="center" gap="2">
            <Box flex="1">after the words</Box>
            <Input
              size="2xs"
              w="168px"
              fontFamily="mono"
              aria-label="Words before numbers"
              placeholder="none"
              value={recipe.numberPrefix}
              onChange={(event) => onChange({ numberPrefix: event.target.value })}
            />
          </Flex>
          <Box color="fg.muted" mt="1">
            A reference stays as first given. Where numbers move from issue to issue, keep them in a field.
          </Box>
        </>
      )}
    </>
  );
}
