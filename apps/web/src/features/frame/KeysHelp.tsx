import { Box, CloseButton, Dialog, Flex, Portal } from '@chakra-ui/react';
import { useLocation } from 'react-router';

const everywhere: [string, string][] = [
  ['Ctrl K or /', 'Find anything'],
  ['?', 'These keys'],
  ['Ctrl Z, Ctrl Y', 'Undo, redo'],
  ['Esc', 'Close the sheet or a dialog'],
];

const perView: { test: RegExp; title: string; keys: [string, string][] }[] = [
  {
    test: /^$/,
    title: 'Section',
    keys: [
      ['Arrow keys', 'Move from item to item, layer to layer'],
      ['Enter', 'Open the item'],
      ['Esc', 'Let go of the selection'],
    ],
  },
  {
    test: /^link$/,
    title: 'Bench',
    keys: [
      ['↑ ↓', 'Move in the outline'],
      ['← →', 'Change side'],
      ['Enter', 'Link the two marked items'],
      ['Delete', 'Remove the link between them'],
      ['N', 'Next item without a link on the left'],
      ['O', 'Open the marked item'],
    ],
  },
  {
    test: /^link\/matrix/,
    title: 'Trace matrix',
    keys: [
      ['Arrow keys', 'Move from cell to cell'],
      ['Ctrl with arrows', 'Move to the next linked cell'],
      ['Enter or Space', 'Link or unlink'],
      ['O', 'Open the row’s item'],
      ['G', 'Next gap'],
      ['X', 'Swap rows and columns'],
    ],
  },
  {
    test: /^gather\/[^/]+\/compare/,
    title: 'Newer version',
    keys: [
      ['↑ ↓', 'Move from difference to difference'],
      ['T', 'Take it, or leave it'],
    ],
  },
  {
    test: /^gather\/sources\//,
    title: 'Source',
    keys: [
      ['↑ ↓', 'Select another sentence'],
      ['Shift with ↑ ↓', 'Take in a sentence more, or one less'],
      ['Shift with ← →', 'A word more, or one less'],
      ['I', 'Make an item of the selected passage'],
      ['C', 'Make it an item below the current one'],
      ['F', 'Put it into the chosen field of the current item'],
      ['L', 'Link the current item to the references in it'],
      ['N', 'Next binding sentence, or row of a sheet, that is not accounted for'],
    ],
  },
  {
    test: /^shape/,
    title: 'Read',
    keys: [
      ['↑ ↓', 'Move from item to item'],
      ['Enter', 'Edit in place'],
      ['Ctrl Enter', 'Save'],
      ['A', 'Add an item after this one'],
      ['Alt ↑ ↓', 'Move the item'],
      ['Alt → ←', 'Move it a level down or up'],
      ['Space, Ctrl click', 'Choose an item, or let it go'],
      ['Shift ↑ ↓, Shift click', 'Choose a range'],
      ['Ctrl A, Esc', 'Choose all, let go of all'],
      ['Delete', 'Withdraw what is chosen, or the marked item'],
    ],
  },
];

export function KeysHelp({ onClose }: { onClose: () => void }) {
  const rest = useLocation().pathname.split('/').slice(3).join('/');
  const view = perView.find((one) => one.test.test(rest));
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
              {view && <Keys title={view.title} keys={view.keys} />}
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

function Keys({ title, keys }: { title: string; keys: [string, string][] }) {
  return (
    <Box mb="4">
      <Box fontWeight="600" mb="1">
        {title}
      </Box>
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
