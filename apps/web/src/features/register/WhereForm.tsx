import { Box, Button, Field, Input, Popover, Portal } from '@chakra-ui/react';
import type { RegisterWhere } from '@coomb/core';
import { useMemo } from 'react';
import { useLocation } from 'react-router';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { sectionsOf } from '../../shared/live/sections-of';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { useSavedViews } from '../../shared/saved-views/queries';
import { Choice } from '../../shared/ui/choice';
import { ScopeButton } from '../../shared/ui/scope-button';
import { Ticks } from '../../shared/ui/ticks';
import { writeWhere } from './definition';

interface Props {
  where: RegisterWhere;
  /** The lens that is looked through now: a kept place has it. */
  through: string | undefined;
  onChange: (where: RegisterWhere) => void;
}

/** Items that a system is chosen among. */
const MOST_OFFERED = 400;

/** Where a register looks: collections, a section, a system; kept under names, whatever it shows. */
export function WhereForm({ where, through, onChange }: Props) {
  const { id: project, collections } = useProject();
  const outline = useOutline().data;
  const { pathname, search } = useLocation();
  const sections = useMemo(() => (outline ? sectionsOf(outline, where.collections) : []), [outline, where.collections]);
  const rowOf = useMemo(() => new Map(outline?.id.map((id, row) => [id, row])), [outline]);
  const named = collections.filter(({ id }) => where.collections.includes(id));
  const nameOf = (id: string) => outline?.title[rowOf.get(id) ?? -1] ?? 'what is not there any more';
  const lenses = useSavedViews(project).data;
  const kept = where.lens && (lenses?.find(({ id }) => id === where.lens)?.name ?? 'a lens');
  const says = [
    named.length === 0 ? 'everywhere' : named.length === 1 ? `in ${named[0]!.name}` : `in ${named.length} collections`,
    ...where.below.map((id) => `below ${nameOf(id)}`),
    ...(where.usedIn ?? []).map((id) => `used in ${nameOf(id)}`),
    ...(kept ? [`through “${kept}”`] : []),
  ].join(', ');
  const systems = useMemo(
    () => (outline?.reference ?? []).flatMap((reference, row) => (outline!.heading[row] ? [] : [{ reference, title: outline!.title[row]! }])),
    [outline],
  );
  const setSystem = (reference: string) => {
    const row = outline?.reference.findIndex((one) => one.toLowerCase() === reference.trim().toLowerCase()) ?? -1;
    if (row >= 0) onChange({ ...where, usedIn: [outline!.id[row]!] });
    else if (reference.trim() === '') onChange({ ...where, usedIn: [] });
  };
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
      <ScopeButton name="Where" says={says} />
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="330px" borderWidth="1px" aria-label="Where the register looks">
            <Popover.Body p="3" fontSize="13px" display="flex" flexDirection="column" gap="2.5" maxH="560px" overflowY="auto">
              <Ticks
                title="Collections; all, where none is ticked"
                options={collections.map(({ id, name: label }) => ({ id, label }))}
                chosen={where.collections}
                onFlip={(id) => {
                  const next = where.collections.includes(id) ? where.collections.filter((one) => one !== id) : [...where.collections, id];
                  onChange({ ...where, collections: next, below: [] });
                }}
              />
              <Choice
                label="Only what stands below"
                width="100%"
                value={where.below[0] ?? ''}
                options={[
                  { value: '', label: 'all sections' },
                  ...(where.below[0] && !sections.some(({ value }) => value === where.below[0])
                    ? [{ value: where.below[0], label: nameOf(where.below[0]) }]
                    : []),
                  ...sections,
                ]}
                onChange={(below) => onChange({ ...where, below: below ? [below] : [] })}
              />
              <Field.Root>
                <Field.Label fontSize="12px" fontWeight="400" color="fg.muted">
                  Only what is used in a system (its reference)
                </Field.Label>
                <Input
                  size="xs"
                  list="systems"
                  defaultValue={where.usedIn?.[0] ? (outline?.reference[rowOf.get(where.usedIn[0]) ?? -1] ?? '') : ''}
                  onChange={(event) => setSystem(event.target.value)}
                />
                <datalist id="systems">
                  {systems.slice(0, MOST_OFFERED).map(({ reference, title }) => (
                    <option key={reference} value={reference}>
                      {title}
                    </option>
                  ))}
                </datalist>
              </Field.Root>
              <Box>
                <KeptViews
                  project={project}
                  sort="scope"
                  body={{ where: JSON.stringify({ ...where, ...(through && { lens: through }) }) }}
                  called={{ words: 'Kept places', says: 'No place is kept yet. This one can be kept under a name; any register can then look there.' }}
                  addressOf={({ body }) => {
                    const params = new URLSearchParams(search);
                    params.set('where', String(body?.where ?? ''));
                    return `${pathname}?${params}`;
                  }}
                />
                {writeWhere(where) !== '' && (
                  <Button size="xs" variant="ghost" ml="2" onClick={() => onChange({ collections: [], below: [], usedIn: [] })}>
                    Everywhere
                  </Button>
                )}
              </Box>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
