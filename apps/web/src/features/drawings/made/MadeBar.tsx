import { Box, Button, Checkbox, Flex, Popover, Portal } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { type MadeDefinition, type MadeDetail, madeDetails, madeSortsOf } from '@coomb/core';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { useWholes } from '../../../shared/live/wholes';

const DETAIL_WORDS: Record<MadeDetail, string> = {
  reference: 'reference',
  fields: 'fields',
  values: 'values',
  parts: 'parts',
  ports: 'ports',
  operations: 'operations',
};

interface Props {
  definition: MadeDefinition;
  outline: OutlineReply;
  onChange: (definition: MadeDefinition) => void;
  children?: React.ReactNode;
}

/** What a drawing of ours shows: its sort, what it is about, how deep, and what stands in its nodes. */
export function MadeBar({ definition, outline, onChange, children }: Props) {
  const project = useProject();
  const wholes = useWholes(project.id).data?.wholes ?? [];
  const sort = madeSortsOf.find((one) => one.sort === definition.sort);
  const set = (change: Partial<MadeDefinition>) => onChange({ ...definition, ...change });
  const collections = project.collections.map((one) => ({ value: one.id, label: one.name }));
  const components = wholes.map(({ item }) => ({ value: item.id, label: item.title }));
  const offered =
    sort?.about === 'component' ? components : [...(definition.sort === 'hierarchy' ? [] : [{ value: '', label: 'the whole project' }]), ...collections];
  const row = outline.id.indexOf(definition.about);
  // What came by an address may be any item.
  const options =
    row >= 0 && !offered.some(({ value }) => value === definition.about)
      ? [{ value: definition.about, label: `${outline.reference[row]} ${outline.title[row]}` }, ...offered]
      : offered;
  const choose = (next: string) => {
    const wanted = madeSortsOf.find((one) => one.sort === next)!;
    const fits = wanted.about === 'component' ? components.some(({ value }) => value === definition.about) : true;
    const about = fits ? definition.about : (components[0]?.value ?? '');
    const isScope = collections.some(({ value }) => value === about) || (about === '' && wanted.sort !== 'hierarchy');
    set({
      sort: wanted.sort,
      about:
        wanted.about !== 'component' && !isScope && wanted.sort === 'overview'
          ? ''
          : about || (wanted.sort === 'hierarchy' ? (collections[0]?.value ?? '') : about),
    });
  };
  return (
    <Flex px="4" py="1.5" gap="2" align="center" borderTopWidth="1px" bg="bg.panel" fontSize="13px" wrap="wrap">
      {sort ? (
        <>
          <Choice
            label="Sort of drawing"
            value={definition.sort}
            options={madeSortsOf.map((one) => ({ value: one.sort, label: one.label }))}
            onChange={choose}
          />
          <Box color="fg.muted">of</Box>
          <Choice label="What it is about" value={definition.about} options={options} onChange={(about) => set({ about })} />
          {sort.hasLevels && (
            <Choice
              label="Levels"
              value={String(definition.levels)}
              options={Array.from({ length: 8 }, (_, at) => ({ value: String(at + 1), label: at === 0 ? '1 level' : `${at + 1} levels` }))}
              onChange={(levels) => set({ levels: Number(levels) })}
            />
          )}
          {definition.sort !== 'overview' && <Details definition={definition} onChange={(detail) => set({ detail })} />}
          <Box color="fg.muted" display={{ base: 'none', lg: 'block' }}>
            {sort.explains}
          </Box>
        </>
      ) : (
        <Box color="fg.muted">
          A trace, as it was grown: {definition.up ?? definition.levels} upstream, {definition.levels} downstream
        </Box>
      )}
      <Flex ml="auto" gap="1" align="center">
        {children}
      </Flex>
    </Flex>
  );
}

function Details({ definition, onChange }: { definition: MadeDefinition; onChange: (detail: MadeDetail[]) => void }) {
  const { detail } = definition;
  return (
    <Popover.Root positioning={{ placement: 'bottom-start' }} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <Button size="2xs" variant="outline">
          {detail.length === 0 ? 'names only' : `with ${detail.map((one) => DETAIL_WORDS[one]).join(', ')}`}
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="200px" fontSize="13px">
            <Popover.Body p="3">
              {madeDetails.map((one) => (
                <Checkbox.Root
                  key={one}
                  size="sm"
                  display="flex"
                  py="0.5"
                  checked={detail.includes(one)}
                  onCheckedChange={({ checked }) => onChange(madeDetails.filter((other) => (other === one ? checked === true : detail.includes(other))))}
                >
                  <Checkbox.HiddenInput />
                  <Checkbox.Control />
                  <Checkbox.Label fontWeight="400">{DETAIL_WORDS[one]}</Checkbox.Label>
                </Checkbox.Root>
              ))}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
