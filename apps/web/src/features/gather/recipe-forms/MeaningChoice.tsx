import { type ExchangeMeaning, findKind, type Meaning, type ProposedField, type Scheme } from '@coomb/core';
import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { Choice } from '../../../shared/ui/choice';
import { LinkEndChoice } from './LinkEndChoice';
import { NewField } from './NewField';

const encode = (meaning: ExchangeMeaning): string =>
  meaning.as === 'field' ? `field ${meaning.field}` : meaning.as === 'link' ? `link ${meaning.linkKind} ${meaning.reversed ? 'to' : 'from'}` : meaning.as;

function decode(text: string): Meaning {
  const [as, first, end] = text.split(' ');
  if (as === 'field') return { as, field: first! };
  if (as === 'link') return { as, linkKind: first!, reversed: end === 'to' };
  return { as: as as 'ignore' };
}

/** Another link kind leads to the same ends. */
function keepEnds(next: Meaning, before: ExchangeMeaning): Meaning {
  return next.as === 'link' && before.as === 'link' ? { ...before, ...next } : next;
}

/** What a column or label is taken for: part of the item, a field of its kind, its parent, or a link. */
export function MeaningChoice({
  scheme,
  kind,
  name,
  meaning,
  withHeading = false,
  of = 'column',
  proposed,
  onChange,
}: {
  scheme: Scheme;
  kind: string;
  name: string;
  meaning: ExchangeMeaning;
  /** Exchange files tell sections by an attribute, and the outline by itself. */
  withHeading?: boolean;
  /** A value of an element says no kind, parent or other item. */
  of?: 'column' | 'value';
  /** The field that the values would fit, for a new one. */
  proposed?: (() => ProposedField) | undefined;
  onChange: (meaning: Meaning) => void;
}) {
  const [making, setMaking] = useState(false);
  const fields = findKind(scheme, kind)?.fields ?? [];
  const links = scheme.linkKinds.flatMap((link) => [
    ...(link.fromKinds.includes(kind) ? [{ value: `link ${link.id} from`, label: `link: ${link.phrase}` }] : []),
    ...(link.toKinds.includes(kind) ? [{ value: `link ${link.id} to`, label: `link: ${link.reverse}` }] : []),
  ]);
  const options = [
    { value: 'ignore', label: 'left out' },
    { value: 'reference', label: 'reference' },
    { value: 'title', label: 'title' },
    { value: 'text', label: 'text' },
    ...(of === 'value' ? [] : [{ value: 'kind', label: 'kind' }]),
    ...(of === 'value'
      ? []
      : withHeading
        ? [{ value: 'heading', label: 'title of a section' }]
        : [
            { value: 'parent', label: 'parent' },
            { value: 'number', label: 'outline number or level' },
          ]),
    ...fields.map((field) => ({ value: `field ${field.id}`, label: `field: ${field.label.toLowerCase()}` })),
    ...(of === 'value' ? [] : links),
    { value: 'new', label: 'a new field…' },
  ];
  return (
    <Box w={withHeading ? '186px' : '168px'} flexShrink={0}>
      <Choice
        label={`Meaning of ${name}`}
        value={encode(meaning)}
        options={options}
        onChange={(value) => (value === 'new' ? setMaking(true) : onChange(keepEnds(decode(value), meaning)))}
        width="100%"
      />
      {making && (
        <NewField
          kind={kind}
          name={name}
          proposed={proposed?.()}
          onMade={(made) => {
            setMaking(false);
            onChange(made);
          }}
          onLeave={() => setMaking(false)}
        />
      )}
      {meaning.as === 'link' && <LinkEndChoice name={name} meaning={meaning} onChange={onChange} />}
    </Box>
  );
}
