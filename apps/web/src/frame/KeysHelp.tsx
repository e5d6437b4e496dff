import { Box, CloseButton, Dialog, Flex, Portal } from '@chakra-ui/react';
import type { View } from '../shared/view';

const everywhere: View['keys'] = [
  ['Ctrl K or /', 'Find anything'],
  ['?', 'These keys'],
  ['Ctrl Z, Ctrl Y', 'Undo, redo'],
  ['. and ,', 'Mark what is at hand to be linked, on one side or the other'],
  [';', 'Link what is marked with what is at hand'],
  ['I', 'Link something with the item at hand, or make it'],
  ['\\ and |', 'Look through the next lens, or the one before'],
  ['Alt N', 'Back to now, from an earlier moment'],
  ['Esc', 'Close the sheet or a dialog'],
];

/** What the view is for and the keys it answers to, then those that work everywhere. */
export function KeysHelp({ view, onClose }: { view: View | null; onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={onClose} size="sm">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>Keys</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body pb="6">
              {view && <Keys title={view.name} help={view.help} keys={view.keys} />}
              <Keys title="Everywhere" keys={everywhere} />
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Keys({ title, help, keys = [] }: { title: string; help?: string; keys?: View['keys'] }) {
  return (
    <Box mb="4">
      <Box fontWeight="600" mb="1">
        {title}
      </Box>
      {help && (
        <Box color="fg.muted" fontSize="13px" mb="1">
          {help}
        </Box>
      )}
      {keys.map(([key, what]) => (
        <Flex key={key} py="1" borderTopWidth="1px" gap="4">
          <Box as="kbd" fontFamily="mono" fontSize="12px" w="130px" color="moss.fg">
            {key}
          </Box>
          <Box>{what}</Box>
        </Flex>
      ))}
    </Box>
  );
}
