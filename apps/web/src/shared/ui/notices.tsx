import { createToaster, Toaster as ChakraToaster, Toast, Stack, Portal } from '@chakra-ui/react';

const toaster = createToaster({ placement: 'bottom-end', pauseOnPageIdle: true, offsets: '44px' });

/** A short word that something was done or refused; it goes by itself. */
export function notify(text: string, type: 'success' | 'error' | 'info' = 'success'): void {
  toaster.create({ description: text, type, duration: type === 'error' ? 9000 : 3500 });
}

export function notifyError(error: unknown): void {
  notify(error instanceof Error ? error.message : String(error), 'error');
}

export function Notices() {
  return (
    <Portal>
      <ChakraToaster toaster={toaster}>
        {(toast) => (
          <Toast.Root width="sm" bg={toast.type === 'error' ? 'brick.solid' : 'fg'} color="bg">
            <Stack flex="1">
              <Toast.Description>{toast.description}</Toast.Description>
            </Stack>
            <Toast.CloseTrigger />
          </Toast.Root>
        )}
      </ChakraToaster>
    </Portal>
  );
}
