import { Box, Button, Checkbox, Popover, Portal } from '@chakra-ui/react';
import type { LinkMeaning } from '@coomb/core';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { OneLine } from '../../../shared/ui/one-line';

const keys: Record<NonNullable<LinkMeaning['by']> | '', string> = {
  '': 'its reference, or its identifier',
  reference: 'its reference',
  source: 'its identifier in its own source',
  title: 'its title',
};

/** How a text names the other end of a link, and in which collections that end is looked for. */
export function LinkEndChoice({ name, meaning, onChange }: { name: string; meaning: LinkMeaning; onChange: (meaning: LinkMeaning) => void }) {
  const { collections } = useProject();
  const within = meaning.within ?? [];
  const set = (part: Partial<LinkMeaning>) => onChange({ ...meaning, ...part });
  const toggle = (collection: string, on: boolean) => {
    const next = on ? [...within, collection] : within.filter((one) => one !== collection);
    set({ within: next.length ? next : undefined });
  };
  const unknown = within.filter((one) => !collections.some((collection) => collection.name === one));
  return (
    <Popover.Root positioning={{ placement: 'bottom-end' }} lazyMount>
      <Popover.Trigger asChild>
        <Button size="2xs" variant="ghost" fontWeight="400" color="fg.muted" maxW="100%" aria-label={`Other ends of ${name}`}>
          <OneLine
            text={`${within.length === 0 ? 'anywhere' : `in ${within.join(', ')}`}, by ${meaning.by === 'title' ? 'title' : meaning.by === 'source' ? 'identifier' : 'reference'}`}
          />
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="300px" fontSize="13px">
            <Popover.Body p="3">
              <Box mb="1">The text names the other item by</Box>
              <Choice
                label={`Key of ${name}`}
                value={meaning.by ?? ''}
                options={Object.entries(keys).map(([value, label]) => ({ value, label }))}
                onChange={(by) => set({ by: by === '' ? undefined : (by as NonNullable<LinkMeaning['by']>) })}
                width="100%"
              />
              <Box mt="3" mb="1">
                It is looked for {within.length === 0 ? 'in every collection. Choose some to look there only:' : 'in these collections only:'}
              </Box>
              {[...collections.map((collection) => collection.name), ...unknown].map((collection) => (
                <Checkbox.Root
                  key={collection}
                  size="sm"
                  display="flex"
                  py="0.5"
                  checked={within.includes(collection)}
                  onCheckedChange={({ checked }) => toggle(collection, checked === true)}
                >
                  <Checkbox.HiddenInput />
                  <Checkbox.Control />
                  <Checkbox.Label fontWeight="400">
                    {collection}
                    {unknown.includes(collection) && ' (not in this project)'}
                  </Checkbox.Label>
                </Checkbox.Root>
              ))}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
