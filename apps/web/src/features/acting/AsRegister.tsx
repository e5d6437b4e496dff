import { Button } from '@chakra-ui/react';
import { type Condition, registerOfList } from '@coomb/core';
import { Link } from 'react-router';
import { useProject } from '../../shared/live/project-queries';

interface Props {
  items: readonly { reference: string; kind: string }[];
  /** What the items have in common, where all of them are shown and nothing else. */
  common?: Condition | undefined;
  /** What is opened, where a view could open several things so. */
  label?: string;
  size?: 'xs' | '2xs';
}

/** The items as rows of a register, with all columns. */
export function AsRegister({ items, common, label = 'As a register', size = '2xs' }: Props) {
  const { scheme, id } = useProject();
  const what = items.length > 0 ? registerOfList(scheme, items, common) : undefined;
  const title = what || items.length === 0 ? 'As rows of a register, with all columns' : 'Too many to be named one by one: narrow the list first';
  if (!what)
    return (
      <Button size={size} variant="outline" disabled title={title}>
        {label}
      </Button>
    );
  return (
    <Button asChild size={size} variant="outline" title={title}>
      <Link to={`/p/${id}/shape/register?what=${encodeURIComponent(JSON.stringify(what))}`}>{label}</Link>
    </Button>
  );
}
