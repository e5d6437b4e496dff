import type { FileFormat } from '../format/file-format.js';

export const docx: FileFormat = {
  id: 'docx',
  label: 'Word-processed document',
  mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  extensions: ['docx', 'docm', 'dotx'],
  fits: (_, extension) => ['docx', 'docm', 'dotx'].includes(extension),
  read: async (bytes) => ({ type: 'document', ...(await (await import('./read-docx.js')).readDocx(bytes)) }),
};
