import { Box, Button, Checkbox, Flex, Input } from '@chakra-ui/react';
import {
  countTracked,
  type DocumentRecipe,
  findOutlineNumber,
  findTableMeaning,
  findTypedLevel,
  type HeadingMeaning,
  proposeTableFor,
  type Scheme,
  type SourceBlock,
  type TableMeaning,
  offeredKinds,
  holdsOf,
} from '@coomb/core';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Choice } from '../../../shared/ui/choice';
import { Constants } from './Constants';
import { MeaningChoice } from './MeaningChoice';
import { NumberChoice } from './NumberChoice';
import { findReferenceTest } from './recognised';
import { ReferenceShape } from './ReferenceShape';

interface Props {
  scheme: Scheme;
  recipe: DocumentRecipe;
  blocks: SourceBlock[];
  problem: string | undefined;
  onChange: (recipe: DocumentRecipe) => void;
  onPhrase: (words: string) => void;
}

const headingWords: { value: HeadingMeaning; label: string }[] = [
  { value: 'section', label: 'sections' },
  { value: 'item', label: 'items' },
  { value: 'ignore', label: 'left out' },
];
const betweenWords: { value: NonNullable<DocumentRecipe['between']>; label: string }[] = [
  { value: 'section', label: 'text of the section' },
  { value: 'information', label: 'information items' },
  { value: 'before', label: 'part of the item before' },
  { value: 'skip', label: 'left out' },
];
const paragraphWords = [
  { value: '', label: 'text, no item' },
  { value: 'numbered', label: 'an item if numbered' },
  { value: 'each', label: 'an item' },
];
const tableWords: { value: TableMeaning['use']; label: string }[] = [
  { value: 'items', label: 'each row is an item' },
  { value: 'fields', label: 'the table is one item' },
  { value: 'text', label: 'part of the text' },
  { value: 'ignore', label: 'left out' },
];

/** A document says a field of some items and not of others: any may be given to the rest. */
const saidNowhere: [] = [];

/** The recipe in plain sentences; a change shows at once in the outline. */
export function DocumentRecipeForm({ scheme, recipe, blocks, problem, onChange, onPhrase }: Props) {
  const levels = useMemo(() => {
    const counts = new Array<number>(9).fill(0);
    for (const block of blocks) if (block.type === 'paragraph' && block.level > 0) counts[block.level - 1]!++;
    return counts;
  }, [blocks]);
  const { tracked, numbered, typed } = useMemo(() => countFeatures(blocks), [blocks]);
  const change = (part: Partial<DocumentRecipe>) => onChange({ ...recipe, ...part });
  const kinds = offeredKinds(scheme).filter((kind) => holdsOf(kind) === 'specification');
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
      {tracked > 0 && (
        <Row label={`Tracked changes (in ${tracked} ${tracked === 1 ? 'place' : 'places'}) are`}>
          <Choice
            label="Tracked changes"
            value={recipe.changes ?? 'accepted'}
            options={[
              { value: 'accepted', label: 'accepted' },
              { value: 'rejected', label: 'rejected' },
            ]}
            onChange={(changes) => change({ changes: changes as 'accepted' | 'rejected' })}
          />
        </Row>
      )}
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
      {typed > 0 && (
        <Tick
          label={`Lines with a typed number, such as “3.2 Gates”, are headings (${typed})`}
          on={recipe.typedHeadings === true}
          onChange={(typedHeadings) => change({ typedHeadings })}
        />
      )}
      {numbered > 0 && <NumberChoice recipe={recipe} onChange={change} />}
      <Title>Running text</Title>
      <ReferenceShape pattern={recipe.identifier} blocks={blocks} problem={problem} onChange={(identifier) => change({ identifier })} />
      <Box color="fg.muted" mt="2" mb="1">
        So is a paragraph with any of these words (none: leave empty):
      </Box>
      <Input
        size="xs"
        aria-label="Binding words"
        value={recipe.bindingWords.join(', ')}
        placeholder="shall, must"
        onChange={(event) => change({ bindingWords: event.target.value.split(/,\s*/).filter(Boolean) })}
        bg="bg"
      />
      {recipe.bindingWords.length > 0 && (
        <Tick
          label="Each such sentence is an item, not each paragraph"
          on={recipe.eachSentence === true}
          onChange={(eachSentence) => change({ eachSentence })}
        />
      )}
      {recipe.bindingWords.length > 0 && (
        <Row label="Text between them is">
          <Choice
            label="Text between binding sentences"
            value={recipe.between ?? 'before'}
            options={betweenWords}
            onChange={(between) => change({ between: between as DocumentRecipe['between'] })}
          />
        </Row>
      )}
      <Box mt="1.5">
        <Row label="Any other paragraph is">
          <Choice
            label="Other paragraphs"
            value={recipe.paragraphs ?? ''}
            options={paragraphWords}
            onChange={(paragraphs) => change({ paragraphs: (paragraphs || undefined) as DocumentRecipe['paragraphs'] })}
          />
        </Row>
      </Box>
      <Box data-table="phrases">
        <Title>Phrases such as “traces to SYS-012”</Title>
        {(recipe.phrases ?? []).map((phrase, index) => (
          <Row key={phrase.words} label={`${phrase.words} …`}>
            <MeaningChoice
              scheme={scheme}
              kind={recipe.kind}
              name={phrase.words}
              meaning={phrase.meaning}
              onChange={(meaning) => change({ phrases: recipe.phrases!.map((one, at) => (at === index ? { ...one, meaning } : one)) })}
            />
            <Button
              size="2xs"
              variant="ghost"
              minW="5"
              px="0"
              aria-label={`Forget ${phrase.words}`}
              onClick={() => change({ phrases: recipe.phrases!.filter((_, at) => at !== index) })}
            >
              <X size={13} aria-hidden />
            </Button>
          </Row>
        ))}
        <PhraseInput onPhrase={onPhrase} />
      </Box>
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
          onUse={(use) => change({ tables: recipe.tables.map((one, at) => (at === index ? tableFor(scheme, recipe, blocks, one, use) : one)) })}
          onChange={(next) => change({ tables: recipe.tables.map((one, at) => (at === index ? next : one)) })}
        />
      ))}
      <Title>What the document does not say</Title>
      <Constants scheme={scheme} kind={recipe.kind} constants={recipe.constants} said={saidNowhere} onChange={(constants) => change({ constants })} />
    </Box>
  );
}

function countFeatures(blocks: readonly SourceBlock[]): { tracked: number; numbered: number; typed: number } {
  let [numbered, typed] = [0, 0];
  for (const block of blocks) {
    if (block.type === 'table') continue;
    if (findTypedLevel(block) > 0) typed++;
    const found = findOutlineNumber(block);
    if (found && (block.level > 0 || found.number.includes('.'))) numbered++;
  }
  return { tracked: countTracked(blocks), numbered, typed };
}

/** Words by hand, for those who do not select them in the text. */
function PhraseInput({ onPhrase }: { onPhrase: (words: string) => void }) {
  const [words, setWords] = useState('');
  return (
    <Flex
      as="form"
      gap="2"
      mt="1"
      onSubmit={(event) => {
        event.preventDefault();
        if (words.trim()) onPhrase(words.trim());
        setWords('');
      }}
    >
      <Input
        size="2xs"
        flex="1"
        aria-label="Words of a phrase"
        placeholder="select words in the text, or write them"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        bg="bg"
      />
      <Button type="submit" size="2xs" variant="outline" disabled={!words.trim()}>
        Add
      </Button>
    </Flex>
  );
}

function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Checkbox.Root size="sm" py="1" alignItems="flex-start" checked={on} onCheckedChange={({ checked }) => onChange(checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control mt="0.5" />
      <Checkbox.Label fontWeight="400" lineHeight="1.3">
        {label}
      </Checkbox.Label>
    </Checkbox.Root>
  );
}

/** A table put to another use: read by its labels, or by its columns, as the first such table has them. */
function tableFor(scheme: Scheme, recipe: DocumentRecipe, blocks: readonly SourceBlock[], table: TableMeaning, use: TableMeaning['use']): TableMeaning {
  const byLabels = (one: TableMeaning['use']) => one === 'fields';
  // Rows that are to be items need words from somewhere; what the person said of the columns before stays said.
  const isSaid = use !== 'items' || table.columns.some(({ meaning }) => meaning.as === 'text' || meaning.as === 'title');
  if (isSaid && byLabels(use) === byLabels(table.use)) return { ...table, use };
  const isReference = findReferenceTest(recipe.identifier);
  const sample = blocks.find((block) => block.type === 'table' && findTableMeaning([table], block, isReference) !== undefined);
  return sample?.type === 'table' ? proposeTableFor(scheme, recipe.kind, sample, use, isReference) : { ...table, use };
}

interface TablePartProps {
  scheme: Scheme;
  kind: string;
  table: TableMeaning;
  onUse: (use: TableMeaning['use']) => void;
  onChange: (table: TableMeaning) => void;
}

function TablePart({ scheme, kind, table, onUse, onChange }: TablePartProps) {
  return (
    <Box data-table={table.header}>
      <Title>Tables “{table.header.length > 44 ? `${table.header.slice(0, 43)}…` : table.header}”</Title>
      <Row label="Such a table">
        <Choice label={`Use of tables ${table.header}`} value={table.use} options={tableWords} onChange={(use) => onUse(use as TableMeaning['use'])} />
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
      <Box flex="1" minW="64px" overflowWrap="anywhere" lineHeight="1.25">
        {label}
      </Box>
      {children}
    </Flex>
  );
}
