import type { FileFormat } from '../format/file-format.js';
import { isXml, namespaceOf, rootOf } from '../xml/looks-like-xml.js';

export const dmn: FileFormat = {
  id: 'dmn',
  label: 'Decisions (DMN)',
  mediaType: 'application/xml',
  extensions: ['dmn'],
  fits: (bytes, extension) => isXml(bytes) && (extension === 'dmn' || (/^definitions$/i.test(rootOf(bytes)) && /DMN/i.test(namespaceOf(bytes)))),
  read: async (bytes) => ({ type: 'model', ...(await (await import('./read-dmn.js')).readDmn(bytes)) }),
};
