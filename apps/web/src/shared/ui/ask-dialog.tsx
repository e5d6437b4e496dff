import { Button, Dialog, Flex, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  title: string;
  /** What will be done, in words, before it is. */
  says: ReactNode;
  children?: ReactNode;
  verb: string;
  disabled?: boolean;
  busy?: boolean;
  /** Room for rows of several fields. */
  wide?: boolean;
  onDo: () => void;
  onClose: () => void;
}

/** Asks for what is still to be said before something is done to many: what will happen stands on top, Enter does it, Escape leaves it. */
export function AskDialog({ title, says, children, verb, disabled = false, busy = false, wide = false, onDo, onClose }: Props) {
  return (
    <Dialog.Root open onOpenChange={onClose} size={wide ? 'lg' : 'sm'} placement="center">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content asChild>
            <form
              onSubmit={(event) => {
                event.preventDefault();
                if (!disabled && !busy) onDo();
              }}
            >
              <Dialog.Header pb="1">
                <Dialog.Title fontSize="16px">{title}</Dialog.Title>
              </Dialog.Header>
              <Dialog.Body pb="3" fontSize="14px">
                {says}
                {children && (
                  <Flex direction="column" gap="2.5" mt="3">
                    {children}
                  </Flex>
                )}
              </Dialog.Body>
              <Dialog.Footer pt="0" pb="4" gap="2">
                <Button size="xs" variant="ghost" onClick={onClose}>
                  Leave
                </Button>
                <Button type="submit" size="xs" disabled={disabled} loading={busy}>
                  {verb}
                </Button>
              </Dialog.Footer>
            </form>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
