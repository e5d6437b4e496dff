import { Box, Button, Dialog, Flex, Input, Portal } from '@chakra-ui/react';
import { findAllowedLinks, offeredKinds, phraseAt } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { notify } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { useAddRelated } from '../../shared/live/add-related';
import type { HeldItem } from '../../shared/marks/at-hand';

const MOST = 8;

/** A related item on the spot: a new one lands where its kind is at home; one that is there is found by reference or title. */
export function AddRelated({ item, onClose }: { item: HeldItem; onClose: () => void }) {
  const project = useProject();
  const outline = useOutline().data;
  const add = useAddRelated(project.id);
  const { scheme } = project;
  const ways = useMemo(
    () =>
      offeredKinds(scheme).flatMap((kind) =>
        findAllowedLinks(scheme, item.kind, kind.id).map(({ linkKind, reversed }) => ({
          value: `${linkKind.id} ${reversed} ${kind.id}`,
          label: `${phraseAt(linkKind, reversed ? 'to' : 'from')} … ${kind.label.toLowerCase()}`,
          ...{ linkKind: linkKind.id, reversed, kind: kind.id },
        })),
      ),
    [scheme, item.kind],
  );
  const [way, setWay] = useState(ways[0]?.value ?? '');
  const [text, setText] = useState('');
  const chosen = ways.find((one) => one.value === way);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = useMemo(() => {
    if (!outline || !chosen || words.length === 0) return [];
    const kind = scheme.kinds.findIndex((one) => one.id === chosen.kind);
    const rows: number[] = [];
    for (let row = 0; row < outline.id.length && rows.length < MOST; row++) {
      if (outline.kind[row] !== kind || outline.heading[row] || outline.id[row] === item.id) continue;
      const says = `${outline.reference[row]} ${outline.title[row]}`.toLowerCase();
      if (words.every((word) => says.includes(word))) rows.push(row);
    }
    return rows;
  }, [outline, chosen, words, scheme, item.id]);
  const run = (to?: string) => {
    if (!chosen || (!to && !text.trim())) return;
    add.mutate(
      { item: item.id, linkKind: chosen.linkKind, reversed: chosen.reversed, ...(to ? { to } : { title: text.trim(), kind: chosen.kind }) },
      {
        onSuccess: () => {
          notify(to ? 'Linked.' : 'Made and linked.');
          onClose();
        },
      },
    );
  };
  return (
    <Dialog.Root open onOpenChange={onClose} size="sm" placement="center">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header pb="1">
              <Dialog.Title fontSize="15px">
                Related to{' '}
                <Box as="span" fontFamily="mono">
                  {item.reference}
                </Box>
              </Dialog.Title>
            </Dialog.Header>
            <Dialog.Body pb="4">
              {ways.length === 0 ? (
                <Box color="fg.muted">No link kind joins items of this kind with any other.</Box>
              ) : (
                <form
                  onSubmit={(event) => {
                    event.preventDefault();
                    run();
                  }}
                >
                  <Choice label="How it is related" value={way} options={ways} onChange={setWay} width="100%" />
                  <Input
                    mt="2"
                    size="sm"
                    autoFocus
                    aria-label="Title of the item"
                    placeholder="Title of a new item, or of one that is there"
                    value={text}
                    maxLength={200}
                    onChange={(event) => setText(event.target.value)}
                  />
                  {found.length > 0 && outline && (
                    <Box mt="2" borderTopWidth="1px">
                      {found.map((row) => (
                        <Flex
                          asChild
                          key={outline.id[row]}
                          w="100%"
                          gap="2"
                          py="1"
                          align="center"
                          borderBottomWidth="1px"
                          textAlign="left"
                          _hover={{ bg: 'bg.subtle' }}
                        >
                          <button type="button" onClick={() => run(outline.id[row])}>
                            <Box fontFamily="mono" fontSize="12px" color="moss.fg">
                              {outline.reference[row]}
                            </Box>
                            <OneLine flex="1" fontFamily="serif" text={outline.title[row]!} />
                            <Box fontSize="12px" color="fg.muted">
                              link this one
                            </Box>
                          </button>
                        </Flex>
                      ))}
                    </Box>
                  )}
                  <Flex mt="3" gap="2" justify="flex-end">
                    <Button size="xs" variant="ghost" onClick={onClose}>
                      Leave
                    </Button>
                    <Button size="xs" type="submit" disabled={!text.trim()} loading={add.isPending}>
                      Make a new one
                    </Button>
                  </Flex>
                </form>
              )}
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
