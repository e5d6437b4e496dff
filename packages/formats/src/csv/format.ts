import type { FileFormat } from '../format/file-format.js';

export const csv: FileFormat = {
  id: 'csv',
  label: 'Separated values',
  mediaType: 'text/csv',
  extensions: ['csv', 'tsv', 'txt'],
  fits: (_, extension) => ['csv', 'tsv', 'txt'].includes(extension),
  read: async (bytes, name, { dialect }) => ({ type: 'sheets', ...(await import('./read-csv.js')).readCsv(bytes, name, dialect) }),
};
