/** Keys of every list of items that acts, as views name them in their help. */
export const itemListKeys = [
  ['↑ ↓', 'Move in the list'],
  ['Space', 'Choose the marked item; with Shift and arrows, all on the way'],
  ['Ctrl A', 'Choose all'],
  ['Enter', 'Open the item'],
  ['E', 'Set a field'],
  ['C', 'Confirm suspect links'],
  ['H', 'Hand on'],
  ['W', 'Waive a rule that they miss'],
] as const;
