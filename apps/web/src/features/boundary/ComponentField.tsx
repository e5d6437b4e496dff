import { Input } from '@chakra-ui/react';
import { hasRole } from '@coomb/core';
import { useId, useMemo } from 'react';
import { useOutline, useProject } from '../../shared/live/project-queries';

const MOST_OFFERED = 2000;

interface Offered {
  id: string;
  /** "MOD-014 Gate": what is chosen reads so. */
  says: string;
  title: string;
}

/** Every component of the project, to be chosen by its reference or name. */
export function useComponents(without: ReadonlySet<string>): Offered[] {
  const { scheme } = useProject();
  const outline = useOutline().data;
  return useMemo(() => {
    const found: Offered[] = [];
    outline?.id.forEach((id, row) => {
      if (found.length >= MOST_OFFERED || outline.heading[row] || without.has(id)) return;
      if (!hasRole(scheme, scheme.kinds[outline.kind[row]!]!.id, 'component')) return;
      found.push({ id, says: `${outline.reference[row]} ${outline.title[row]}`, title: outline.title[row]! });
    });
    return found;
  }, [outline, scheme, without]);
}

/** The one that a text names: as it is offered, by its reference, or by a name that no other has. */
export function findNamed(offered: readonly Offered[], text: string): Offered | undefined {
  const wanted = text.trim().toLowerCase();
  const exact = offered.find(({ says }) => says.toLowerCase() === wanted || says.slice(0, says.indexOf(' ')).toLowerCase() === wanted);
  if (exact) return exact;
  const named = offered.filter(({ title }) => title.toLowerCase() === wanted);
  return named.length === 1 ? named[0] : undefined;
}

interface FieldProps {
  label: string;
  offered: readonly Offered[];
  value: string;
  onChange: (value: string) => void;
  autoFocus?: boolean;
}

/** A field that offers components; any text may be written. */
export function ComponentField({ label, offered, value, onChange, autoFocus = false }: FieldProps) {
  const list = useId();
  return (
    <>
      <Input
        size="2xs"
        flex="1"
        minW="12rem"
        aria-label={label}
        placeholder={label}
        list={list}
        autoFocus={autoFocus}
        value={value}
        maxLength={500}
        onChange={(event) => onChange(event.target.value)}
      />
      <datalist id={list}>
        {offered.map(({ id, says }) => (
          <option key={id} value={says} />
        ))}
      </datalist>
    </>
  );
}
