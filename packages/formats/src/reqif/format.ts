import type { FileFormat } from '../format/file-format.js';
import { isXml, rootOf } from '../xml/looks-like-xml.js';

export const reqif: FileFormat = {
  id: 'reqif',
  label: 'Requirements exchange (ReqIF)',
  mediaType: 'application/xml',
  extensions: ['reqif', 'reqifz'],
  fits: (bytes, extension) => extension === 'reqif' || extension === 'reqifz' || (isXml(bytes) && rootOf(bytes) === 'REQ-IF'),
  read: async (bytes) => ({ type: 'exchange', ...(await (await import('./read-reqif-file.js')).readReqifFile(bytes)) }),
};
