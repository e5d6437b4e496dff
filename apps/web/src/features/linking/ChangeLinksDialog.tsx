import { Box, Flex, Input, SegmentGroup } from '@chakra-ui/react';
import type { BodyOf, changeLinks } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { useState } from 'react';
import type { Project } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { notify } from '../../shared/ui/notices';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { useChangeLinks, useTriedChange } from './queries';

type Change = NonNullable<BodyOf<typeof changeLinks>>['change'];
const ways = [
  { value: 'kind', label: 'Kind' },
  { value: 'end', label: 'Hang an end elsewhere' },
  { value: 'fields', label: 'A field' },
];

/** Composes a change of many links, and says what will become of them before it is made. */
export function ChangeLinksDialog({
  project,
  links,
  sample,
  begins = 'kind',
  onClose,
  onDone,
}: {
  project: Project;
  links: readonly string[];
  /** What the links are now, where they are all alike. */
  sample?: { kind: string } | undefined;
  /** What is asked for first. */
  begins?: 'kind' | 'end';
  onClose: () => void;
  onDone: () => void;
}) {
  const kinds = project.scheme.linkKinds.filter(({ retired }) => !retired);
  const withFields = kinds.flatMap(({ id, phrase, fields = [] }) => fields.map((field) => ({ ...field, of: phrase, linkKind: id })));
  const [way, setWay] = useState<string>(begins);
  const [linkKind, setLinkKind] = useState(sample?.kind ?? kinds[0]?.id ?? '');
  const [end, setEnd] = useState<'from' | 'to'>('to');
  const [item, setItem] = useState('');
  const [field, setField] = useState(withFields[0]?.id ?? '');
  const [value, setValue] = useState('');
  const wanted: Change | undefined =
    way === 'kind'
      ? { sort: 'kind', linkKind }
      : way === 'end'
        ? item.trim()
          ? { sort: 'end', end, item: item.trim() }
          : undefined
        : field
          ? { sort: 'fields', fields: { [field]: value || null } }
          : undefined;
  const body = wanted && { links: [...links], change: wanted };
  const tried = useTriedChange(project.id, body);
  const change = useChangeLinks(project.id);
  const { changed = 0, refused = [] } = tried.data ?? {};
  return (
    <AskDialog
      title={`Change ${counted(links.length, 'link')}`}
      says={
        <SegmentGroup.Root size="xs" value={way} onValueChange={(details) => setWay(details.value ?? 'kind')}>
          <SegmentGroup.Indicator />
          <SegmentGroup.Items items={ways.filter((one) => one.value !== 'fields' || withFields.length > 0)} />
        </SegmentGroup.Root>
      }
      verb={changed > 0 ? `Change ${figure(changed)}` : 'Change'}
      disabled={!body || changed === 0 || tried.isFetching}
      busy={change.isPending}
      onDo={() =>
        body &&
        change.mutate(
          { ...body, skipRefused: true },
          {
            onSuccess: (told) => {
              notify(`${counted(told.changed, 'link')} changed. Undo takes it back.`);
              onDone();
            },
          },
        )
      }
      onClose={onClose}
    >
      {way === 'kind' && (
        <Choice label="New kind" value={linkKind} options={kinds.map(({ id, phrase }) => ({ value: id, label: phrase }))} onChange={setLinkKind} />
      )}
      {way === 'end' && (
        <Flex gap="2" align="center">
          <Choice
            label="Which end"
            value={end}
            options={[
              { value: 'from', label: 'where it comes from' },
              { value: 'to', label: 'where it leads to' },
            ]}
            onChange={(next) => setEnd(next as 'from')}
            width="13rem"
          />
          <Input
            size="xs"
            autoFocus
            aria-label="Reference of the item to hang it on"
            placeholder="Reference, such as SYS-042"
            value={item}
            onChange={(event) => setItem(event.target.value)}
          />
        </Flex>
      )}
      {way === 'fields' && (
        <Flex gap="2" align="center">
          <Choice label="Field" value={field} options={withFields.map(({ id, label, of }) => ({ value: id, label: `${label} (${of})` }))} onChange={setField} />
          <Input size="xs" aria-label="Value" placeholder="Value; empty clears it" value={value} onChange={(event) => setValue(event.target.value)} />
        </Flex>
      )}
      <Box fontSize="13px" minH="3.2rem" aria-live="polite">
        {tried.error ? (
          <Box color="brick.fg">{tried.error.message}</Box>
        ) : tried.data ? (
          <>
            <Box>
              {changed === 0
                ? 'Nothing would change.'
                : `${counted(changed, 'link')} will be changed; ${changed === 1 ? 'it stays' : 'they stay'} who ${changed === 1 ? 'it is' : 'they are'}.`}
            </Box>
            {refused.length > 0 && (
              <Box color="fg.warning" maxH="7rem" overflowY="auto">
                {counted(refused.length, 'link')} left as {refused.length === 1 ? 'it is' : 'they are'}:
                {refused.slice(0, 20).map(({ link, says }) => (
                  <Box key={link}>{says}</Box>
                ))}
                {refused.length > 20 && <Box>and {figure(refused.length - 20)} more</Box>}
              </Box>
            )}
          </>
        ) : null}
      </Box>
    </AskDialog>
  );
}
