import { Box, Button, Flex, IconButton, Input, Popover, Portal } from '@chakra-ui/react';
import { Bookmark, Pencil, Trash2 } from 'lucide-react';
import type { SavedView } from '@coomb/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { OneLine } from '../ui/one-line';
import { addressOfView, useKeepView, useRenameView, useSavedViews, useWithdrawView } from './queries';

interface Props {
  project: string;
  sort: string;
  /** How the view is set now. */
  body: Record<string, unknown>;
  /** What they are called; views, where nothing is said. */
  called?: { words: string; says: string };
  /** Where one is shown, where that is not its own address alone. */
  addressOf?: (view: SavedView) => string;
}

/** Views of one sort that are kept under names: opens them, keeps the present one, calls them otherwise, lets them go. */
export function KeptViews({ project, sort, body, called, addressOf = (view) => `/p/${project}/${addressOfView(view)}` }: Props) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [renaming, setRenaming] = useState<string>();
  const keep = useKeepView(project);
  const rename = useRenameView(project);
  const withdraw = useWithdrawView(project);
  const kept = (useSavedViews(project).data ?? []).filter((view) => view.sort === sort);
  const words = `${called?.words ?? 'Kept'}${kept.length > 0 ? ` (${kept.length})` : ''}`;
  const submit = () => {
    const wanted = name.trim();
    if (!wanted) return;
    if (renaming) rename.mutate({ view: renaming, name: wanted }, { onSuccess: () => setRenaming(undefined) });
    else keep.mutate({ sort, name: wanted, body }, { onSuccess: () => setOpen(false) });
    setName('');
  };
  return (
    <Popover.Root lazyMount unmountOnExit open={open} onOpenChange={(details) => setOpen(details.open)} positioning={{ placement: 'bottom-end' }}>
      <Popover.Trigger asChild>
        <Button size="xs" variant="outline" aria-label={words} title={words} px={{ base: '1.5', lg: '2.5' }} minW={{ base: '8', lg: '0' }}>
          <Bookmark size={13} />
          <Box as="span" display={{ base: 'none', lg: 'inline' }}>
            {words}
          </Box>
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="320px" borderWidth="1px" aria-label={called?.words ?? 'Kept views'}>
            <Popover.Body p="2">
              {kept.length === 0 && (
                <Box color="fg.muted" fontSize="13px" px="1" pb="2">
                  {called?.says ?? 'Nothing is kept yet. How this view is set now can be kept under a name, for everybody.'}
                </Box>
              )}
              {kept.map((view) => (
                <Flex key={view.id} align="center" gap="0.5" px="1" borderRadius="l2" _hover={{ bg: 'bg.subtle' }}>
                  <Box asChild flex="1" minW="0" py="1" textAlign="left" fontSize="14px">
                    {view.body ? (
                      <Link to={addressOf(view)} onClick={() => setOpen(false)} title={`Kept by ${view.person}`}>
                        <OneLine text={view.name} />
                      </Link>
                    ) : (
                      <span title="Kept by another version of Coomb, in a form that this one does not read">{view.name}</span>
                    )}
                  </Box>
                  <IconButton
                    aria-label={`Call ${view.name} otherwise`}
                    title="Call it otherwise"
                    size="2xs"
                    variant="ghost"
                    onClick={() => {
                      setRenaming(view.id);
                      setName(view.name);
                    }}
                  >
                    <Pencil size={12} />
                  </IconButton>
                  <IconButton
                    aria-label={`Keep ${view.name} no more`}
                    title="Keep it no more"
                    size="2xs"
                    variant="ghost"
                    onClick={() => withdraw.mutate(view.id)}
                  >
                    <Trash2 size={12} />
                  </IconButton>
                </Flex>
              ))}
              <Flex
                as="form"
                gap="1.5"
                mt="2"
                onSubmit={(event) => {
                  event.preventDefault();
                  submit();
                }}
              >
                <Input
                  size="xs"
                  aria-label={renaming ? 'Its new name' : 'Name to keep this view under'}
                  placeholder={renaming ? 'Its new name' : 'Keep it as…'}
                  value={name}
                  maxLength={120}
                  onChange={(event) => setName(event.target.value)}
                />
                <Button type="submit" size="xs" disabled={!name.trim()} loading={keep.isPending || rename.isPending}>
                  {renaming ? 'Rename' : 'Keep'}
                </Button>
                {renaming && (
                  <Button
                    size="xs"
                    variant="ghost"
                    onClick={() => {
                      setRenaming(undefined);
                      setName('');
                    }}
                  >
                    Leave
                  </Button>
                )}
              </Flex>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
