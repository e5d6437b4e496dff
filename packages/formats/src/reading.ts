/** What reading a file takes, without the writers: for those who must start quickly. */
export * from './read-error.js';
export type * from './format/file-format.js';
export * from './file-formats.js';
export * from './rich-text/sanitise.js';
