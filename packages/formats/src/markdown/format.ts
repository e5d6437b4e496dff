import type { FileFormat } from '../format/file-format.js';

export const markdown: FileFormat = {
  id: 'markdown',
  label: 'Markdown',
  mediaType: 'text/markdown',
  extensions: ['md', 'markdown'],
  fits: (_, extension) => extension === 'md' || extension === 'markdown',
  read: async (bytes) => ({ type: 'document', ...(await import('./read-markdown.js')).readMarkdown(bytes) }),
};
