import { Box, Flex, Input } from '@chakra-ui/react';
import type { DocumentRecipe, HeadingMeaning, Scheme, SourceBlock, TableMeaning } from '@coomb/core';
import { useMemo } from 'react';
import { Choice } from '../../shared/ui/choice';
import { MeaningChoice } from './MeaningChoice';

interface Props {
  scheme: Scheme;
  recipe: DocumentRecipe;
  blocks: SourceBlock[];
  problem: string | undefined;
  onChange: (recipe: DocumentRecipe) => void;
}

const headingWords: { value: HeadingMeaning; label: string }[] = [
  { value: 'section', label: 'sections' },
  { value: 'item', label: 'items' },
  { value: 'ignore', label: 'left out' },
];
const tableWords: { value: TableMeaning['use']; label: string }[] = [
  { value: 'items', label: 'each row is an item' },
  { value: 'fields', label: 'the table is one item' },
  { value: 'text', label: 'part of the text' },
  { value: 'ignore', label: 'left out' },
];

/** The recipe in plain sentences; a change shows at once in the outline. */
export function DocumentRecipeForm({ scheme, recipe, blocks, problem, onChange }: Props) {
  const levels = useMemo(() => {
    const counts = new Array<number>(9).fill(0);
    for (const block of blocks) if (block.type === 'paragraph' && block.level > 0) counts[block.level - 1]!++;
    return counts;
  }, [blocks]);
  const change = (part: Partial<DocumentRecipe>) => onChange({ ...recipe, ...part });
  const kinds = scheme.kinds.filter((kind) => ['needs', 'requirements'].includes(kind.layer));
  return (
    <Box px="4" py="3" fontSize="13.5px">
      <Row label="Items are">
        <Choice
          label="Kind of the items"
          value={recipe.kind}
          options={kinds.map((kind) => ({ value: kind.id, label: kind.plural.toLowerCase() }))}
          onChange={(kind) => change({ kind })}
        />
      </Row>
      <Title>Headings</Title>
      {levels.map(
        (count, index) =>
          count > 0 && (
            <Row key={index} label={`Level ${index + 1} (${count})`}>
              <Choice
                label={`Headings of level ${index + 1}`}
                value={recipe.headings[index] ?? 'section'}
                options={headingWords}
                onChange={(meaning) => change({ headings: recipe.headings.map((one, at) => (at === index ? (meaning as HeadingMeaning) : one)) })}
              />
            </Row>
          ),
      )}
      <Title>Running text</Title>
      <Box color="fg.muted" mb="1">
        A paragraph that starts with this pattern is an item:
      </Box>
      <Input
        size="xs"
        fontFamily="mono"
        aria-label="Pattern of references"
        value={recipe.identifier}
        onChange={(event) => change({ identifier: event.target.value })}
        bg="bg"
        aria-invalid={problem !== undefined}
      />
      {problem && (
        <Box color="brick.fg" mt="1">
          {problem}.
        </Box>
      )}
      <Box color="fg.muted" mt="2" mb="1">
        So is one with any of these words (none: leave empty):
      </Box>
      <Input
        size="xs"
        aria-label="Binding words"
        value={recipe.bindingWords.join(', ')}
        placeholder="shall, must"
        onChange={(event) => change({ bindingWords: event.target.value.split(/,\s*/).filter(Boolean) })}
        bg="bg"
      />
      {recipe.labels.length > 0 && <Title>Labels such as “Priority: High”</Title>}
      {recipe.labels.map((label, index) => (
        <Row key={label.label} label={`${label.label}:`}>
          <MeaningChoice
            scheme={scheme}
            kind={recipe.kind}
            name={label.label}
            meaning={label.meaning}
            onChange={(meaning) => change({ labels: recipe.labels.map((one, at) => (at === index ? { ...one, meaning } : one)) })}
          />
        </Row>
      ))}
      {recipe.tables.map((table, index) => (
        <TablePart
          key={table.header}
          scheme={scheme}
          kind={recipe.kind}
          table={table}
          onChange={(next) => change({ tables: recipe.tables.map((one, at) => (at === index ? next : one)) })}
        />
      ))}
    </Box>
  );
}

function TablePart({ scheme, kind, table, onChange }: { scheme: Scheme; kind: string; table: TableMeaning; onChange: (table: TableMeaning) => void }) {
  return (
    <Box data-table={table.header}>
      <Title>Tables “{table.header.length > 44 ? `${table.header.slice(0, 43)}…` : table.header}”</Title>
      <Row label="Such a table">
        <Choice
          label={`Use of tables ${table.header}`}
          value={table.use}
          options={tableWords}
          onChange={(use) => onChange({ ...table, use: use as TableMeaning['use'] })}
        />
      </Row>
      {(table.use === 'items' || table.use === 'fields') &&
        table.columns.map((column, index) => (
          <Row key={`${column.name}${index}`} label={column.name || `column ${index + 1}`}>
            <MeaningChoice
              scheme={scheme}
              kind={kind}
              name={column.name}
              meaning={column.meaning}
              onChange={(meaning) => onChange({ ...table, columns: table.columns.map((one, at) => (at === index ? { ...one, meaning } : one)) })}
            />
          </Row>
        ))}
    </Box>
  );
}

function Title({ children }: { children: React.ReactNode }) {
  return (
    <Box fontWeight="600" mt="4" mb="1">
      {children}
    </Box>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Flex align="center" gap="2" py="0.5">
      <Box flex="1" minW="84px" overflowWrap="anywhere" lineHeight="1.25">
        {label}
      </Box>
      {children}
    </Flex>
  );
}
