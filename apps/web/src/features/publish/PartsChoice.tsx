import { Box, Button, Checkbox, Flex } from '@chakra-ui/react';
import { counted } from '@coomb/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { type Project, useOutline } from '../../shared/live/project-queries';
import { type PartChoice, topSections, wholeCollection } from './report-parts';

interface Props {
  project: Project;
  choices: Readonly<Record<string, PartChoice>>;
  onChange: (choices: Record<string, PartChoice>) => void;
}

/** Which collections, sections and trace matrices a report holds. */
export function PartsChoice({ project, choices, onChange }: Props) {
  const outline = useOutline().data;
  const collections = project.collections.map((one, index) => ({ ...one, index })).filter((one) => !one.withdrawn);
  const change = (id: string, part: Partial<PartChoice>) => onChange({ ...choices, [id]: { ...(choices[id] ?? wholeCollection), ...part } });
  return (
    <Box mt="3" role="group" aria-label="What the report is about">
      <Flex color="fg.muted" gap="1" fontSize="12.5px" pb="1" borderBottomWidth="1px">
        <Box flex="1" pl="6">
          About
        </Box>
        <Box w={{ base: '6em', md: '11em' }}>with its trace matrix</Box>
      </Flex>
      {collections.map((collection) => (
        <CollectionPart
          key={collection.id}
          collection={collection}
          choice={choices[collection.id] ?? wholeCollection}
          sections={outline ? topSections(outline, collection.index) : []}
          onChange={(part) => change(collection.id, part)}
        />
      ))}
    </Box>
  );
}

interface PartProps {
  collection: { id: string; name: string; items: number };
  choice: PartChoice;
  sections: { id: string; title: string; items: number }[];
  onChange: (part: Partial<PartChoice>) => void;
}

function CollectionPart({ collection, choice, sections, onChange }: PartProps) {
  const [open, setOpen] = useState(choice.sections.length > 0);
  const some = choice.in && choice.sections.length > 0;
  const toggle = (id: string) => {
    const whole = sections.map((one) => one.id);
    const before = !choice.in ? [] : choice.sections.length > 0 ? choice.sections : whole;
    const next = before.includes(id) ? before.filter((one) => one !== id) : whole.filter((one) => one === id || before.includes(one));
    // All of the sections are the whole collection; none are none of it.
    onChange({ in: next.length > 0, sections: next.length === whole.length ? [] : next, ...(next.length === 0 && { matrix: false }) });
  };
  return (
    <Box borderBottomWidth="1px" py="1">
      <Flex align="center" gap="1">
        <Button
          size="2xs"
          variant="ghost"
          minW="5"
          px="0"
          visibility={sections.length > 0 ? 'visible' : 'hidden'}
          aria-expanded={open}
          aria-label={`Sections of ${collection.name}`}
          onClick={() => setOpen(!open)}
        >
          {open ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
        </Button>
        <Tick
          label={collection.name}
          checked={some ? 'indeterminate' : choice.in}
          onChange={(on) => onChange({ in: on, sections: [], ...(!on && { matrix: false }) })}
        />
        <Box flex="1" color="fg.muted" fontSize="12.5px">
          {some ? `${choice.sections.length} of ${counted(sections.length, 'section')}` : counted(collection.items, 'item')}
        </Box>
        <Box w={{ base: '6em', md: '11em' }} fontSize="12.5px">
          <Tick label={`Trace matrix of ${collection.name}`} quiet checked={choice.matrix} disabled={!choice.in} onChange={(matrix) => onChange({ matrix })} />
        </Box>
      </Flex>
      {open &&
        sections.map((section) => (
          <Flex key={section.id} align="center" gap="1" pl="9" py="0.5">
            <Tick
              label={section.title}
              checked={choice.in && (choice.sections.length === 0 || choice.sections.includes(section.id))}
              onChange={() => toggle(section.id)}
            />
            <Box color="fg.muted" fontSize="12.5px">
              {counted(section.items, 'item')}
            </Box>
          </Flex>
        ))}
    </Box>
  );
}

interface TickProps {
  label: string;
  /** The label is for those who do not see the table. */
  quiet?: boolean;
  checked: boolean | 'indeterminate';
  disabled?: boolean;
  onChange: (on: boolean) => void;
}

function Tick({ label, quiet = false, checked, disabled = false, onChange }: TickProps) {
  return (
    <Checkbox.Root size="sm" checked={checked} disabled={disabled} onCheckedChange={(change) => onChange(change.checked === true)}>
      <Checkbox.HiddenInput {...(quiet && { 'aria-label': label })} />
      <Checkbox.Control />
      {!quiet && (
        <Checkbox.Label fontWeight="400" dir="auto">
          {label}
        </Checkbox.Label>
      )}
    </Checkbox.Root>
  );
}
