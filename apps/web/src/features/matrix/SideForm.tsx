import { Popover, Portal } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { shows } from '@coomb/core';
import { useMemo } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { sectionsOf } from '../../shared/live/sections-of';
import { Choice } from '../../shared/ui/choice';
import { ScopeButton } from '../../shared/ui/scope-button';
import { Ticks } from '../../shared/ui/ticks';

export interface SideAsked {
  collections: readonly string[];
  kinds: readonly string[];
  below: string;
  /** What it is grouped by, where it may be. */
  by?: string;
}

interface Props {
  name: string;
  outline: OutlineReply;
  asked: SideAsked;
  onChange: (asked: SideAsked) => void;
}

/** What can group a side: whatever has few values that read as words. */
const groupings = ['field', 'state', 'kind', 'layer', 'collection', 'coverage', 'result', 'changedBy'];

/** What stands at one side: collections, kinds, what is below a section; and what it is grouped by. */
export function SideForm({ name, outline, asked, onChange }: Props) {
  const project = useProject();
  const { scheme, collections } = project;
  const sections = useMemo(() => sectionsOf(outline, asked.collections), [outline, asked.collections]);
  const offers = shows
    .filter(({ sort }) => groupings.includes(sort))
    .flatMap((show) => show.offers(scheme).map(({ of, label, type }) => ({ value: of === undefined ? show.sort : `${show.sort}:${of}`, label, type })))
    .filter(({ type }) => type === 'choice' || type === 'yesNo' || type === 'several');
  const flip = (list: readonly string[], id: string) => (list.includes(id) ? list.filter((one) => one !== id) : [...list, id]);
  const named = collections.filter(({ id }) => asked.collections.includes(id));
  const kinds = scheme.kinds.filter(({ retired, id }) => !retired || asked.kinds.includes(id));
  const isNarrow = asked.kinds.length > 0 || asked.below !== '' || (asked.by ?? '') !== '';
  const whole = named.length === 1 ? named[0]!.name : named.length === 0 ? 'everything' : `${named.length} collections`;
  const says = isNarrow ? `${whole} …` : whole;
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
      <ScopeButton name={name} says={says} />
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="320px" borderWidth="1px" aria-label={`${name} of the matrix`}>
            <Popover.Body p="3" fontSize="13px" display="flex" flexDirection="column" gap="2" maxH="520px" overflowY="auto">
              <Ticks
                title="Collections"
                options={collections.map(({ id, name: label }) => ({ id, label }))}
                chosen={asked.collections}
                onFlip={(id) => onChange({ ...asked, collections: flip(asked.collections, id), below: '' })}
              />
              <Choice
                label={`${name}: only what stands below`}
                width="100%"
                value={asked.below}
                options={[{ value: '', label: 'all sections' }, ...sections]}
                onChange={(below) => onChange({ ...asked, below })}
              />
              {asked.by !== undefined && (
                <Choice
                  label={`${name}: grouped by`}
                  width="100%"
                  value={asked.by}
                  options={[{ value: '', label: 'by their outline' }, ...offers.map(({ value, label }) => ({ value, label: `by ${label}` }))]}
                  onChange={(by) => onChange({ ...asked, by })}
                />
              )}
              <Ticks
                title="Only these kinds"
                options={kinds.map(({ id, plural }) => ({ id, label: plural }))}
                chosen={asked.kinds}
                onFlip={(id) => onChange({ ...asked, kinds: flip(asked.kinds, id) })}
              />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
