import type { AnyShow } from './show.js';

/** What an item says below its title. Texts are not held in memory: whoever shows a window of rows reads theirs. */
export const text: AnyShow = { sort: 'text', offers: () => [{ label: 'Text', type: 'words' }], read: () => null };
