import type { FileFormat } from '../format/file-format.js';
import { isXml, rootOf } from '../xml/looks-like-xml.js';

export const ssp: FileFormat = {
  id: 'ssp',
  label: 'System structure (SSP)',
  mediaType: 'application/xml',
  extensions: ['ssd', 'ssp'],
  fits: (bytes, extension) => extension === 'ssp' || extension === 'ssd' || (isXml(bytes) && rootOf(bytes) === 'SystemStructureDescription'),
  read: async (bytes) => ({ type: 'model', ...(await (await import('./read-ssp.js')).readSsp(bytes)) }),
};
