import type { View } from '../../shared/view';

export const sourceView: View = {
  stage: 'gather',
  name: 'Source',
  help: 'A document or table as it came, beside what was made of it.',
  addresses: ['gather/sources/:source'],
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
  load: async () => (await import('./SourcePage')).SourcePage,
};
