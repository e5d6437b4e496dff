import type { FileFormat } from '../format/file-format.js';

export const xlsx: FileFormat = {
  id: 'xlsx',
  label: 'Workbook',
  mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  extensions: ['xlsx', 'xlsm', 'xltx'],
  fits: (_, extension) => ['xlsx', 'xlsm', 'xltx'].includes(extension),
  read: async (bytes) => ({ type: 'sheets', ...(await (await import('./read-xlsx.js')).readXlsx(bytes)) }),
};
