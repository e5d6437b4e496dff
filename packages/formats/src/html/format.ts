import type { FileFormat } from '../format/file-format.js';

export const html: FileFormat = {
  id: 'html',
  label: 'Web page',
  mediaType: 'text/html',
  extensions: ['html', 'htm', 'xhtml'],
  fits: (_, extension) => ['html', 'htm', 'xhtml'].includes(extension),
  read: async (bytes) => ({ type: 'document', ...(await import('./read-html.js')).readHtml(bytes) }),
};
