import type { FileFormat } from '../format/file-format.js';
import { isXml } from '../xml/looks-like-xml.js';

export const xmi: FileFormat = {
  id: 'xmi',
  label: 'Model (UML in XMI 2.5.1)',
  mediaType: 'application/xml',
  extensions: ['xmi', 'uml', 'xml'],
  fits: (bytes, extension) => isXml(bytes) || extension === 'xmi' || extension === 'uml',
  read: async (bytes) => ({ type: 'model', ...(await (await import('./read-xmi.js')).readXmi(bytes)) }),
};
