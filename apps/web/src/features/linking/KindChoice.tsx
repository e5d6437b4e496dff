import { Box, Button, Dialog, Portal } from '@chakra-ui/react';
import { type AllowedLink, phraseAt } from '@coomb/core';
import { useProject } from '../../shared/live/project-queries';
import { rememberKind } from './remembered-kinds';

interface Props {
  left: string;
  right: string;
  /** Kinds of the items at both sides, that the choice is remembered for. */
  kinds: readonly [string, string];
  allowed: AllowedLink[];
  onChoose: (allowed: AllowedLink) => void;
  onClose: () => void;
}

/** Only link kinds that are valid for the two ends; a number chooses. */
export function KindChoice({ left, right, kinds, allowed, onChoose: take, onClose }: Props) {
  const project = useProject();
  const onChoose = (one: AllowedLink) => {
    rememberKind(project.id, ...kinds, one);
    take(one);
  };
  return (
    <Dialog.Root open onOpenChange={onClose} size="xs" placement="center">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content
            onKeyDown={(event) => {
              const chosen = allowed[Number(event.key) - 1];
              if (chosen) onChoose(chosen);
            }}
          >
            <Dialog.Header pb="2">
              <Dialog.Title fontSize="15px">How are they linked?</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body pb="4">
              {allowed.map((one, index) => (
                <Button
                  key={`${one.linkKind.id}${one.reversed}`}
                  variant="outline"
                  size="sm"
                  w="100%"
                  mb="2"
                  justifyContent="flex-start"
                  fontWeight="400"
                  autoFocus={index === 0}
                  onClick={() => onChoose(one)}
                >
                  <Box fontFamily="mono" color="fg.muted" mr="1">
                    {index + 1}
                  </Box>
                  <Box fontFamily="mono">{left}</Box> {phraseAt(one.linkKind, one.reversed ? 'to' : 'from')} <Box fontFamily="mono">{right}</Box>
                </Button>
              ))}
              <Box fontSize="12.5px" color="fg.muted">
                Taken for such pairs from now on. With Shift held, it is asked again.
              </Box>
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
