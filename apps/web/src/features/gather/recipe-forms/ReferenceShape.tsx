import { Box, Input } from '@chakra-ui/react';
import { buildIdentifier, identifierShapes, type SourceBlock } from '@coomb/core';
import { useMemo, useState } from 'react';
import { Choice } from '../../../shared/ui/choice';

interface Props {
  pattern: string;
  blocks: readonly SourceBlock[];
  /** What is wrong with the pattern. */
  problem: string | undefined;
  onChange: (pattern: string) => void;
}

const MOST_SHOWN = 3;

/** What references look like in this document: one of the usual shapes, or a pattern of one's own, and what it finds here. */
export function ReferenceShape({ pattern, blocks, problem, onChange }: Props) {
  const [writes, setWrites] = useState(false);
  const known = identifierShapes.some((shape) => shape.pattern === pattern);
  const isOwn = writes || (pattern !== '' && !known);
  const found = useMemo(() => findReferences(pattern, blocks), [pattern, blocks]);
  return (
    <>
      <Box color="fg.muted" mb="1">
        A paragraph or heading is an item when it begins like
      </Box>
      <Choice
        label="Shape of references"
        value={isOwn ? 'own' : pattern}
        options={[
          ...identifierShapes.map(({ looks, pattern: value }) => ({ value, label: looks })),
          { value: 'own', label: 'a pattern of my own' },
          { value: '', label: 'nothing: there are no references' },
        ]}
        onChange={(value) => {
          setWrites(value === 'own');
          if (value !== 'own') onChange(value);
        }}
        width="100%"
      />
      {isOwn && (
        <Input
          size="xs"
          mt="1"
          fontFamily="mono"
          aria-label="Pattern of references"
          title="A regular expression; its first group is the reference"
          value={pattern}
          onChange={(event) => onChange(event.target.value)}
          bg="bg"
          aria-invalid={problem !== undefined}
        />
      )}
      {problem ? (
        <Box color="brick.fg" mt="1">
          {problem}.
        </Box>
      ) : (
        pattern !== '' && (
          <Box color="fg.muted" fontSize="12.5px" mt="1">
            {found.length === 0
              ? 'None is found outside tables.'
              : `${found.length} found: ${found.slice(0, MOST_SHOWN).join(', ')}${found.length > MOST_SHOWN ? ' …' : ''}`}
          </Box>
        )
      )}
    </>
  );
}

function findReferences(pattern: string, blocks: readonly SourceBlock[]): string[] {
  try {
    const match = buildIdentifier(pattern);
    return match ? blocks.flatMap((block) => (block.type === 'paragraph' ? (match(block.text)?.reference ?? []) : [])) : [];
  } catch {
    // The recipe itself says what is wrong with a pattern.
    return [];
  }
}
