import { Box, Button, Dialog, Flex, Portal } from '@chakra-ui/react';
import { counted, figure, findLinkKind, phraseAt } from '@coomb/core';
import { useRef, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import type { HeldItem } from '../../shared/marks/at-hand';
import { ErrorNote } from '../../shared/ui/feedback';
import { notify } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { usePlannedLinks, useMakeMany } from './queries';

interface Props {
  left: readonly HeldItem[];
  right: readonly HeldItem[];
  onClose: () => void;
  onDone: () => void;
}

/** Links each of some items with each of others: what will be made and what is refused stands there before anything is. A number chooses, Enter does it. */
export function JoinDialog({ left, right, onClose, onDone }: Props) {
  const project = useProject();
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState(0);
  const plan = usePlannedLinks(
    project.id,
    left.map(({ id }) => id),
    right.map(({ id }) => id),
  );
  const make = useMakeMany(project.id);
  const ways = plan.data ?? [];
  const chosen = ways[Math.min(at, ways.length - 1)];
  const run = () => {
    if (!chosen || chosen.makes === 0 || make.isPending) return;
    const { linkKind, reversed, makes } = chosen;
    const links = left.flatMap((a) => right.map((b) => ({ linkKind, from: reversed ? b.id : a.id, to: reversed ? a.id : b.id })));
    make.mutate(links, {
      onSuccess: () => {
        notify(`${counted(makes, 'link')} made. Undo takes ${makes === 1 ? 'it' : 'them'} back.`);
        onDone();
      },
    });
  };
  return (
    <Dialog.Root open onOpenChange={onClose} size="md" placement="center" initialFocusEl={() => frame.current}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content
            ref={frame}
            tabIndex={-1}
            onKeyDown={(event) => {
              const number = Number(event.key) - 1;
              if (ways[number]) setAt(number);
              else if (event.key === 'Enter' && (event.target as HTMLElement).tagName !== 'BUTTON') run();
            }}
          >
            <Dialog.Header pb="1">
              <Dialog.Title fontSize="16px">Link what is marked</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body pb="3" fontSize="14px">
              <Flex gap="4" mb="3">
                <Side items={left} />
                <Box alignSelf="center" color="fg.muted">
                  with
                </Box>
                <Side items={right} />
              </Flex>
              {plan.error && <ErrorNote error={plan.error} />}
              {plan.data && ways.length === 0 && <Box color="fg.muted">No kind of link joins items of these kinds.</Box>}
              <Box role="radiogroup" aria-label="How they are linked">
                {ways.map((way, index) => {
                  const kind = findLinkKind(project.scheme, way.linkKind);
                  const isChosen = way === chosen;
                  return (
                    <Flex
                      asChild
                      key={`${way.linkKind}${way.reversed}`}
                      w="100%"
                      gap="2"
                      px="2"
                      py="1"
                      textAlign="left"
                      bg={isChosen ? 'moss.subtle' : undefined}
                      boxShadow={isChosen ? 'inset 3px 0 0 var(--chakra-colors-moss-solid)' : undefined}
                    >
                      <button type="button" role="radio" aria-checked={isChosen} onClick={() => setAt(index)} onDoubleClick={run}>
                        <Box fontFamily="mono" color="fg.muted">
                          {index + 1}
                        </Box>
                        <Box flex="1">{kind ? phraseAt(kind, way.reversed ? 'to' : 'from') : way.linkKind}</Box>
                        <Box color={way.makes > 0 ? 'moss.fg' : 'fg.muted'}>{way.makes > 0 ? `makes ${counted(way.makes, 'link')}` : 'makes none'}</Box>
                        {way.refused > 0 && <Box color="fg.warning">{figure(way.refused)} refused</Box>}
                      </button>
                    </Flex>
                  );
                })}
              </Box>
              {chosen && chosen.refused > 0 && (
                <Box mt="2" maxH="8rem" overflowY="auto" fontSize="13px" color="fg.muted">
                  {chosen.says.map((text) => (
                    <Box key={text}>{text}</Box>
                  ))}
                  {chosen.refused > chosen.says.length && <Box>and {figure(chosen.refused - chosen.says.length)} more</Box>}
                </Box>
              )}
            </Dialog.Body>
            <Dialog.Footer pt="0" pb="4" gap="2">
              <Button size="xs" variant="ghost" onClick={onClose}>
                Leave
              </Button>
              <Button size="xs" disabled={!chosen || chosen.makes === 0} loading={make.isPending} onClick={run}>
                {chosen && chosen.makes > 0 ? `Make ${counted(chosen.makes, 'link')}` : 'Make links'}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

const MOST = 6;

function Side({ items }: { items: readonly HeldItem[] }) {
  return (
    <Box flex="1" minW="0">
      {items.slice(0, MOST).map(({ id, reference, title }) => (
        <Flex key={id} gap="2" align="baseline">
          <Box fontFamily="mono" fontSize="12.5px" color="moss.fg" flexShrink={0}>
            {reference}
          </Box>
          <OneLine minW="0" fontFamily="serif" text={title} />
        </Flex>
      ))}
      {items.length > MOST && <Box color="fg.muted">and {figure(items.length - MOST)} more</Box>}
    </Box>
  );
}
