import { Box, Button, Flex, Input, Popover, Portal } from '@chakra-ui/react';
import { type BodyOf, type Brief, createItem } from '@coomb/contract';
import type { RegisterWhat, RegisterWhere } from '@coomb/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { call } from '../../shared/api/client';
import { useProject } from '../../shared/live/project-queries';
import { useChange } from '../../shared/live/use-change';
import { Choice } from '../../shared/ui/choice';
import { notify } from '../../shared/ui/notices';

interface Props {
  what: RegisterWhat;
  where: RegisterWhere;
  /** The row that one is at: a new one of its kind stands after it. */
  at: Brief | undefined;
}

/** Adds rows one after the other: each stands after the row that one is at, or where its kind is at home. */
export function AddRow({ what, where, at }: Props) {
  const { id: project, scheme, collections } = useProject();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState('');
  const [chosen, setChosen] = useState('');
  const kinds = scheme.kinds.filter(({ id, retired }) => !retired && (what.kinds.length === 0 || what.kinds.includes(id)));
  const kind = kinds.find(({ id }) => id === (chosen || at?.kind)) ?? kinds[0];
  const add = useChange(project, (body: BodyOf<typeof createItem>) => call(createItem, { params: { project }, body }));
  /** Added one after the other, the next stands after the last. */
  const [last, setLast] = useState<Pick<Brief, 'id' | 'kind' | 'reference'>>();
  const before = last ?? at;
  const isAfter = before !== undefined && before.kind === kind?.id;
  const home = collections.find(({ id }) => id === (where.collections[0] ?? collections.find((one) => one.kind === kind?.id)?.id));
  const submit = () => {
    if (!title.trim() || !kind) return;
    const place = isAfter ? { after: before.id } : home && where.collections.length > 0 ? { collection: home.id } : {};
    add.mutate(
      { title: title.trim(), kind: kind.id, html: '', fields: {}, heading: false, parent: null, after: null, ...place },
      {
        onSuccess: (made) => {
          setTitle('');
          setLast(made);
          notify(
            `${made.reference} was added.${what.conditions.length > 0 ? ' It is among these rows once it passes their conditions.' : ''} Undo takes it back.`,
          );
        },
      },
    );
  };
  if (kinds.length === 0) return null;
  return (
    <Popover.Root
      lazyMount
      unmountOnExit
      open={open}
      onOpenChange={(details) => {
        setOpen(details.open);
        setLast(undefined);
      }}
      positioning={{ placement: 'bottom-end' }}
    >
      <Popover.Trigger asChild>
        <Button size="2xs" variant="outline">
          <Plus size={12} /> Row
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="360px" borderWidth="1px" aria-label="Add rows">
            <Popover.Body p="3" fontSize="13px">
              <Flex
                as="form"
                direction="column"
                gap="2"
                onSubmit={(event) => {
                  event.preventDefault();
                  submit();
                }}
              >
                {kinds.length > 1 && (
                  <Choice
                    label="Kind"
                    width="100%"
                    value={kind?.id ?? ''}
                    options={kinds.map(({ id, label }) => ({ value: id, label }))}
                    onChange={setChosen}
                  />
                )}
                <Input
                  size="xs"
                  autoFocus
                  aria-label="Its title"
                  placeholder={`${kind?.label}: its title`}
                  value={title}
                  maxLength={500}
                  onChange={(event) => setTitle(event.target.value)}
                />
                <Flex align="center" gap="2">
                  <Box color="fg.muted" flex="1">
                    {isAfter ? `Stands after ${before.reference}.` : home ? `Stands at the end of ${home.name}.` : 'Stands where its kind is at home.'}
                  </Box>
                  <Button type="submit" size="xs" disabled={!title.trim()} loading={add.isPending}>
                    Add
                  </Button>
                </Flex>
              </Flex>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
