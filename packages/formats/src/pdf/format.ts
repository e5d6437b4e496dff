import type { FileFormat } from '../format/file-format.js';

export const pdf: FileFormat = {
  id: 'pdf',
  label: 'PDF',
  mediaType: 'application/pdf',
  extensions: ['pdf'],
  fits: (_, extension) => extension === 'pdf',
  read: async (bytes) => ({ type: 'document', ...(await (await import('./read-pdf.js')).readPdf(bytes)) }),
};
